import { useQuery } from "@tanstack/react-query";
import { Dialog } from "radix-ui";
import { useState } from "react";
import { api, take, type JobView, type Schemas } from "../../app/api";
import { useCommand } from "../../app/hooks";
import { Overlay } from "../../ui/Overlay";
import { ProblemNote } from "../../ui/Problem";
import { duration } from "../jobs/words";

const useAim = (job: JobView) =>
  useCommand<{ goal: Schemas["JobGoal"]; reason: string }>(job, (h, aim) =>
    take(api.POST("/api/jobs/{id}/goal", { params: { path: { id: job.id } }, body: { ...h, ...aim } })),
  );

/** Leaves the job for the night, once it stands where it may be left. */
export const useLeave = (job: JobView) =>
  useCommand<null>(job, (h) =>
    take(api.POST("/api/jobs/{id}/overnight", { params: { path: { id: job.id } }, body: h })),
  );

/** What the job is to end in, changed at any moment: each with what it takes from here. */
export function GoalDialog({
  job,
  className = "flex min-h-11 items-center border-0 bg-transparent p-0 text-inherit",
}: {
  job: JobView;
  className?: string;
}) {
  const [open, setOpen] = useState(false);
  const [reason, setReason] = useState("");
  const aim = useAim(job);
  const goals = useQuery({
    queryKey: ["goals", job.id, job.version],
    queryFn: () => take(api.GET("/api/jobs/{id}/goals", { params: { path: { id: job.id } } })),
    enabled: open,
  });
  if (job.handedOver || job.notCovered || job.sheet.night) return null;
  return (
    <Dialog.Root open={open} onOpenChange={setOpen}>
      <Dialog.Trigger className={className}>
        {job.sheet.goal.goal === "finish" ? "Change the aim" : <b>{job.sheet.goal.says}</b>}
      </Dialog.Trigger>
      {open && (
        <Overlay title="Where this job is to end">
          <label className="field">
            <span>Why it changes, before you touch one</span>
            <input value={reason} maxLength={200} onChange={(e) => setReason(e.target.value)} />
          </label>
          <div className="mt-3 flex flex-col gap-2">
            {goals.isPending && (
              <p className="m-0 text-[16px] text-ink-2">Reckoning what each takes from here.</p>
            )}
            {goals.data?.map((g) => (
              <button
                key={g.goal}
                type="button"
                className="btn flex-col !items-start !gap-0 py-1"
                aria-pressed={g.present}
                disabled={g.cannotBeMet.length > 0 || aim.isPending}
                onClick={() =>
                  !g.present && aim.mutate({ goal: g.goal, reason }, { onSuccess: () => setOpen(false) })
                }
              >
                <span>{g.says}</span>
                <span className="text-left font-sans text-[14px]">
                  {g.cannotBeMet.length > 0
                    ? `Not from here: ${g.cannotBeMet.join("; ")}.`
                    : `${g.present ? "The job goes there already. " : ""}${g.steps === 0 ? "It stands there now." : `${g.steps} ${g.steps === 1 ? "step" : "steps"}, ${duration(g.minutes)}.`}`}
                </span>
              </button>
            ))}
          </div>
          <ProblemNote error={goals.error ?? aim.error} />
        </Overlay>
      )}
    </Dialog.Root>
  );
}

/** The job is where it was to end for now: what holds then, and the way back to finishing it. */
export function AimReached({ job }: { job: JobView }) {
  const aim = useAim(job);
  const leave = useLeave(job);
  return (
    <>
      <p className="m-0 text-[22px] leading-snug">{job.sheet.goal.then}</p>
      <ProblemNote error={aim.error ?? leave.error} />
      {job.sheet.goal.leaves && (
        <button
          type="button"
          className="btn-primary"
          disabled={leave.isPending}
          onClick={() => leave.mutate(null)}
        >
          Tagged: leave it
        </button>
      )}
      <button
        type="button"
        className="btn"
        disabled={aim.isPending}
        onClick={() => aim.mutate({ goal: "finish", reason: `${job.sheet.goal.says}: done` })}
      >
        Go on with the job
      </button>
    </>
  );
}
