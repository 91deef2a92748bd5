import { Dialog } from "radix-ui";
import { useState } from "react";
import type { Schemas, StepKey } from "../../app/api";
import { Overlay } from "../../ui/Overlay";
import { duration, sideWord } from "./words";

/** What may be done now although the plan does not ask for it: where it is right, and what it costs. */
export function ChoiceDialog({
  sheet,
  choose,
}: {
  sheet: Schemas["RunSheet"];
  choose: (step: StepKey) => void;
}) {
  const [open, setOpen] = useState(false);
  if (sheet.choices.length === 0) return null;
  return (
    <Dialog.Root open={open} onOpenChange={setOpen}>
      <Dialog.Trigger className="flex min-h-11 items-center border-0 bg-transparent p-0 text-inherit">
        By choice
      </Dialog.Trigger>
      {open && (
        <Overlay title="By choice, not by the plan">
          <div className="flex flex-col gap-2">
            {sheet.choices.map(({ bench, where, minutes }) => (
              <button
                key={`${bench.step.stepId} ${bench.step.side}`}
                type="button"
                className="btn flex-col !items-start !gap-0 py-1"
                onClick={() => {
                  choose(bench.step);
                  setOpen(false);
                }}
              >
                <span>
                  {bench.name}
                  {sideWord(bench.step.side)}
                </span>
                <span className="text-left font-sans text-[15px]">
                  {where} <b>{cost(minutes)}</b>
                </span>
              </button>
            ))}
          </div>
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
