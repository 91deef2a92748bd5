import { type Schemas } from "../../app/api";
import { useKeys } from "../../app/hooks";
import { figure } from "../jobs/words";

/** Strokes counted by touching the window; the prediction stands beside. */
export function PedalCount({
  answer,
  counted,
  firm,
  count,
  setFirm,
  reset,
  keys,
}: {
  answer: Schemas["StrokesAnswer"];
  counted: number;
  firm: boolean;
  count: () => void;
  setFirm: (firm: boolean) => void;
  reset: () => void;
  keys: boolean;
}) {
  useKeys(keys ? { Space: count, f: () => setFirm(!firm) } : {});
  if (answer.verdict === "makers-routine")
    return <p className="m-0 text-[22px] font-bold text-outside">{answer.says}</p>;
  const bad = answer.verdict === "not-firm" || answer.verdict === "firm-late";
  return (
    <>
      <button type="button" onClick={count} className="window flex items-end gap-6 text-left">
        <span className="block">
          <span className="block text-[17px]">Strokes made</span>
          <span className="huge block">{counted}</span>
        </span>
        <span className="block pb-2">
          <span className="block text-[28px] leading-none">of about {answer.expected}</span>
          <span className="mt-1 block text-[16px]">{figure(answer.gapMl)} mL to bring up</span>
          <span className="block text-[15px]">Touch here for each stroke.</span>
        </span>
      </button>
      <p
        className={`m-0 text-[20px] ${bad ? "font-bold text-outside" : answer.verdict === "firm" ? "font-bold text-inside" : ""}`}
      >
        {answer.says}
      </p>
      <div className="grid grid-cols-2 gap-2">
        <button type="button" className="btn" aria-pressed={firm} onClick={() => setFirm(!firm)}>
          Firm and high
        </button>
        <button type="button" className="btn" onClick={reset}>
          Count anew
        </button>
      </div>
    </>
  );
}
