import { useQuery } from "@tanstack/react-query";
import { Dialog } from "radix-ui";
import { useState, type ReactNode } from "react";
import { api, take, type JobView, type Schemas } from "../../app/api";
import { useCommand } from "../../app/hooks";
import { Overlay } from "../../ui/Overlay";
import { ProblemNote } from "../../ui/Problem";

/** A row to come opens to why it may not be done yet: what it lacks, and the interlocks in the way. */
export function WhyNotDialog({
  row,
  job,
  children,
}: {
  row: Schemas["AheadRow"];
  job: JobView;
  children: ReactNode;
}) {
  const [open, setOpen] = useState(false);
  const why = useQuery({
    queryKey: ["why-not", job.id, job.version, row.step],
    queryFn: () =>
      take(
        api.GET("/api/jobs/{id}/why-not", {
          params: {
            path: { id: job.id },
            query: { stepId: row.step.stepId, side: row.step.side ?? undefined },
          },
        }),
      ),
    enabled: open,
  });
  return (
    <Dialog.Root open={open} onOpenChange={setOpen}>
      <Dialog.Trigger className="row-name min-h-[38px] min-w-0 border-0 bg-transparent p-0 text-left">
        {children}
      </Dialog.Trigger>
      {open && (
        <Overlay title={`${row.name}${row.step.side ? `, ${row.step.side}` : ""}`}>
          <ProblemNote error={why.error} />
          {why.data &&
            (why.data.allowed ? (
              <p className="m-0">Nothing stands in its way; what is left is better done first.</p>
            ) : (
              <>
                <p className="mt-0 mb-2 font-bold">Not yet.</p>
                {why.data.lacking.map((l) => (
                  <p key={l} className="m-0 mb-1">
                    {l}
                  </p>
                ))}
                {why.data.reasons.lines
                  .filter((l) => l.label.startsWith("Interlock"))
                  .map((l) => (
                    <p key={l.label + l.result} className="m-0 mt-2 border-l-8 border-outside pl-3">
                      <b>{l.label}.</b> {l.result}
                    </p>
                  ))}
              </>
            ))}
          {why.data && row.canBeMarked && <OutOfOrder row={row} job={job} done={() => setOpen(false)} />}
        </Overlay>
      )}
    </Dialog.Root>
  );
}

/** It was done all the same: it counts, and what it broke comes into the plan with its remedy. */
function OutOfOrder({ row, job, done }: { row: Schemas["AheadRow"]; job: JobView; done: () => void }) {
  const [reason, setReason] = useState("");
  const mark = useCommand<string>(job, (h, note) =>
    take(
      api.POST("/api/jobs/{id}/out-of-order", {
        params: { path: { id: job.id } },
        body: { ...h, stepId: row.step.stepId, side: row.step.side, readings: [], note },
      }),
    ),
  );
  return (
    <details className="mt-4 border-t border-rule pt-2">
      <summary className="min-h-11 text-[17px] underline">It was done already, out of order</summary>
      <p className="m-0 my-2 text-[15px] text-ink-2">
        It counts as done. What it broke comes into the plan, with what puts it right.
      </p>
      <label className="field my-2">
        <span>How it came about</span>
        <input value={reason} maxLength={200} onChange={(e) => setReason(e.target.value)} />
      </label>
      <ProblemNote error={mark.error} />
      <button
        type="button"
        className="btn btn-stop w-full"
        disabled={reason.trim() === "" || mark.isPending}
        onClick={() => mark.mutate(reason, { onSuccess: done })}
      >
        Mark it done out of order
      </button>
    </details>
  );
}
