import { useEffect, useState } from "react";
import type { Schemas } from "../../app/api";

/** The car's own sequence, part by part, with a running clock. */
export function Sequence({ steps }: { steps: Schemas["SequenceStep"][] }) {
  const [at, setAt] = useState(-1);
  const [left, setLeft] = useState(0);
  useEffect(() => {
    if (at < 0 || left <= 0) return;
    const timer = setTimeout(() => setLeft(left - 1), 1000);
    return () => clearTimeout(timer);
  }, [at, left]);
  const go = (i: number) => {
    setAt(i);
    setLeft(steps[i]?.seconds ?? 0);
  };
  if (steps.length === 0) return null;
  const running = at >= 0 && at < steps.length;
  return (
    <div className="window flex flex-col gap-2" aria-live="polite">
      <ol className="m-0 pl-6 text-[17px]">
        {steps.map((s, i) => (
          <li key={s.says} className={i === at ? "font-bold" : i < at ? "line-through opacity-70" : ""}>
            {s.says}
            {s.seconds > 0 && `, ${s.seconds} s`}
          </li>
        ))}
      </ol>
      {running && steps[at]!.seconds > 0 && <div className="huge">{left > 0 ? `${left} s` : "now"}</div>}
      <button
        type="button"
        className="btn"
        disabled={running && left > 0}
        onClick={() => go(at + 1 >= steps.length ? -1 : at + 1)}
      >
        {at < 0 ? "Start the sequence" : at + 1 < steps.length ? "Next part" : "From the start"}
      </button>
    </div>
  );
}
