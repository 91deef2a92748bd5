import type { StepBench } from "../../app/api";
import { stepTitle } from "./words";

/** What the step is; it takes the focus when the step comes up. */
export const StepHeading = ({ bench }: { bench: StepBench }) => (
  <h2 id="step" tabIndex={-1} className="text-[31px] outline-none [@media(max-height:700px)]:text-[27px]">
    {stepTitle(bench)}
  </h2>
);
