import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { Dialog } from "radix-ui";
import { useState } from "react";
import { api, take, type JobView, type Schemas } from "../../app/api";
import { useCommand, useHand } from "../../app/hooks";
import { BY } from "../../app/outbox";
import { Overlay } from "../../ui/Overlay";
import { ProblemNote } from "../../ui/Problem";
import { moment } from "../jobs/words";

/** A finished row opens to what it holds; it is undone with a reason, after seeing what goes with it. */
export function LiftDialog({
  row,
  job,
  children,
}: {
  row: Schemas["DoneRow"];
  job: JobView;
  children: React.ReactNode;
}) {
  const [open, setOpen] = useState(false);
  return (
    <Dialog.Root open={open} onOpenChange={setOpen}>
      <Dialog.Trigger className="row-name min-h-11 min-w-0 border-0 bg-transparent p-0 text-left [@media(max-height:700px)]:min-h-[38px]">
        {children}
      </Dialog.Trigger>
      {open && (
        <LiftForm
          eventId={row.eventId}
          name={row.name}
          detail={`${row.by}, ${moment(row.at)}${row.detail ? `. ${row.detail}` : ""}`}
          job={job}
          done={() => setOpen(false)}
        />
      )}
    </Dialog.Root>
  );
}

export function LiftForm({
  eventId,
  name,
  detail,
  job,
  done,
}: {
  eventId: string;
  name: string;
  detail: string;
  job: JobView;
  done: () => void;
}) {
  const [reason, setReason] = useState("");
  // Later steps that were not done either; what could not have been done without this one goes with it.
  const [notDone, setNotDone] = useState<string[]>([]);
  const hand = useHand();
  const preview = useQuery({
    queryKey: ["lift", job.id, eventId, job.version, hand?.id, notDone],
    placeholderData: keepPreviousData,
    queryFn: () =>
      take(
        api.GET("/api/jobs/{id}/lifts/{target}", {
          params: { path: { id: job.id, target: eventId }, query: { notDone } },
          // Whether they may is the server's word: two can be signed in here.
          headers: hand ? { [BY]: hand.id } : {},
        }),
      ),
    retry: false,
  });
  const without = preview.data?.asked.filter((a) => a.fallsWithIt) ?? [];
  const asked = preview.data?.asked.filter((a) => !a.fallsWithIt) ?? [];
  const lift = useCommand<string>(job, (h, why) =>
    take(
      api.POST("/api/jobs/{id}/lifts", {
        params: { path: { id: job.id } },
        body: {
          ...h,
          target: eventId,
          reason: why,
          notDone: [...notDone, ...without.map((a) => a.eventId)],
        },
      }),
    ),
  );
  return (
    <Overlay title={`Undo this step: ${name}`}>
      <p className="mt-0 text-[15px] text-ink-2">{detail}</p>
      <p>Only when it was not done. Something taken apart again is a step of its own.</p>
      {preview.data && (
        <>
          <p className="mb-1 font-bold">
            {preview.data.undoes.length === 1
              ? "This is undone:"
              : `These ${preview.data.undoes.length} are undone:`}
          </p>
          <ul className="mt-0 max-h-[180px] overflow-auto pl-5">
            {preview.data.undoes.map((u, i) => (
              <li key={i}>{u}</li>
            ))}
          </ul>
        </>
      )}
      {without.length > 0 && (
        <p className="mb-3">
          {without.map((a) => a.says).join(", ")} could not have been done without it. If one of them was
          done, so was this: there is nothing to undo.
        </p>
      )}
      {asked.length > 0 && (
        <fieldset className="m-0 mb-3 border-0 p-0">
          <legend className="mb-1 font-bold">
            Done all the same? What is left on stays as it was done, and is proved again.
          </legend>
          <ul className="m-0 grid max-h-[220px] list-none gap-1 overflow-auto p-0">
            {asked.map((a) => {
              const done = !notDone.includes(a.eventId);
              return (
                <li key={a.eventId} className="flex items-center justify-between gap-3">
                  <span>{a.says}</span>
                  <button
                    type="button"
                    className="btn min-w-36 shrink-0"
                    aria-pressed={done}
                    aria-label={`${a.says}: ${done ? "was done" : "was not done"}`}
                    onClick={() =>
                      setNotDone(done ? [...notDone, a.eventId] : notDone.filter((id) => id !== a.eventId))
                    }
                  >
                    {done ? "Was done" : "Was not done"}
                  </button>
                </li>
              );
            })}
          </ul>
        </fieldset>
      )}
      <ProblemNote error={preview.error ?? lift.error} />
      <label className="field my-3">
        <span>Why</span>
        <input value={reason} onChange={(e) => setReason(e.target.value)} maxLength={200} />
      </label>
      <button
        type="button"
        className="btn btn-stop w-full"
        disabled={!preview.data || reason.trim() === "" || lift.isPending}
        onClick={() => lift.mutate(reason, { onSuccess: done })}
      >
        Undo this step
      </button>
    </Overlay>
  );
}
