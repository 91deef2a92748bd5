import { useQuery } from "@tanstack/react-query";
import { Dialog } from "radix-ui";
import { useState } from "react";
import { api, take, type JobView, type StepBench } from "../../app/api";
import { Overlay } from "../../ui/Overlay";
import { ProblemNote } from "../../ui/Problem";
import { duration, sideWord } from "../jobs/words";

/** What may be done now although the plan does not ask for it: where it is right, and what it costs. */
export function ChoiceDialog({
  job,
  choose,
  className = "",
}: {
  job: JobView;
  choose: (bench: StepBench) => void;
  className?: string;
}) {
  const [open, setOpen] = useState(false);
  const choices = useQuery({
    queryKey: ["choices", job.id, job.version],
    queryFn: () => take(api.GET("/api/jobs/{id}/choices", { params: { path: { id: job.id } } })),
    enabled: open,
  });
  if (!job.sheet.mayChoose) return null;
  return (
    <Dialog.Root open={open} onOpenChange={setOpen}>
      <Dialog.Trigger
        className={`flex min-h-11 items-center border-0 bg-transparent p-0 text-inherit ${className}`}
      >
        By choice
      </Dialog.Trigger>
      {open && (
        <Overlay title="By choice, not by the plan">
          <div className="flex flex-col gap-2">
            {choices.isPending && (
              <p className="m-0 text-[16px] text-ink-2">Reckoning what each costs from here.</p>
            )}
            {choices.data?.length === 0 && <p className="m-0">Nothing that leads to the end from here.</p>}
            {choices.data?.map(({ bench, where, minutes }) => (
              <button
                key={`${bench.step.stepId} ${bench.step.side}`}
                type="button"
                className="btn flex-col !items-start !gap-0 py-1"
                onClick={() => {
                  choose(bench);
                  setOpen(false);
                }}
              >
                <span>
                  {bench.name}
                  {sideWord(bench.step.side)}
                </span>
                <span className="text-left font-sans text-[15px]">
                  {where} <b className="whitespace-nowrap">{cost(minutes)}</b>
                </span>
              </button>
            ))}
          </div>
          <ProblemNote error={choices.error} />
        </Overlay>
      )}
    </Dialog.Root>
  );
}

const cost = (minutes: number) =>
  minutes === 0
    ? "Takes as long."
    : minutes < 0
      ? `${duration(-minutes)} shorter.`
      : `${duration(minutes)} longer.`;
