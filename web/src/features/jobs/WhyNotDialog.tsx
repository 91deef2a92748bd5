import { useQuery } from "@tanstack/react-query";
import { Dialog } from "radix-ui";
import { useState, type ReactNode } from "react";
import { api, take, type JobView, type Schemas } from "../../app/api";
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
        </Overlay>
      )}
    </Dialog.Root>
  );
}
