import type { ReactNode } from "react";
import { ApiError, type JobView, type StepBench } from "../../app/api";
import { StepHeading } from "./StepHeading";

/** Told when someone else was quicker: what the server said, and what had been typed here. */
export type OnMoved = (error: ApiError, typed: string[]) => void;

/** True once the step at hand has stood for a moment: a second touch meant for the one before does nothing. */
export type Rested = () => boolean;

/** What every bench of a step is given. */
export interface StepProps {
  job: JobView;
  bench: StepBench;
  rested: Rested;
  onMoved: OnMoved;
}

/** Frame of every bench: what, why, the work, and the one primary action, which never scrolls away. */
export function BenchFrame({
  bench,
  children,
  action,
}: {
  bench: StepBench;
  children?: ReactNode;
  action: ReactNode;
}) {
  return (
    <div className="flex h-full flex-col px-6 pt-4 pb-3 max-[1100px]:px-4 max-[800px]:h-auto">
      <div className="flex min-h-0 flex-1 flex-col gap-3 overflow-auto pb-3 max-[800px]:overflow-visible">
        <div>
          <StepHeading bench={bench} />
          <p className="m-0 text-[16px] text-ink-2">{bench.because}</p>
        </div>
        {children}
      </div>
      <div className="bench-action flex flex-shrink-0 flex-col gap-2">{action}</div>
    </div>
  );
}

/** A stale version is told above the bench, where it outlives the step. */
export const staleShownAbove = (error: unknown) =>
  error instanceof ApiError && error.problem.reason === "stale-version" ? null : error;
