import { useMutation } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { api, take, type JobView, type Schemas } from "../../app/api";
import { typedNumber } from "../../app/units";
import { ProblemNote } from "../../ui/Problem";
import { figure } from "./words";

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

const ASKED: Record<string, Schemas["ToolFunction"][]> = {
  "codes-read": ["read-codes"],
  "service-entered": ["enter-service"],
  "service-closed": ["close-service"],
  "codes-cleared": ["read-codes", "clear-codes"],
};
const SAYS: Record<Schemas["ToolFunction"], string> = {
  "read-codes": "Read codes",
  "clear-codes": "Clear codes",
  "enter-service": "Into service",
  "close-service": "Close",
};

/** The stand-in scan tool: rehearses the step, and what it says can be taken over as the report. */
export function StandInTool({
  job,
  stepId,
  say,
}: {
  job: JobView;
  stepId: string;
  say: (words: string, codes: string) => void;
}) {
  const [open, setOpen] = useState(false);
  const [volts, setVolts] = useState("");
  const ask = useMutation({
    mutationFn: (fn: Schemas["ToolFunction"]) =>
      take(
        api.POST("/api/jobs/{id}/scan-tool", {
          params: { path: { id: job.id } },
          body: { function: fn, batteryV: typedNumber(volts) },
        }),
      ),
    onSuccess: (a) => say(a.words, a.codes.join("; ")),
  });
  const functions = ASKED[stepId];
  if (!functions) return null;
  if (!open)
    return (
      <button type="button" className="btn" onClick={() => setOpen(true)}>
        Stand-in tool
      </button>
    );
  return (
    <div className="rounded border-2 border-dashed border-ink-2 p-3">
      <p className="m-0 mb-2 text-[15px] text-ink-2">
        Stand-in: no car moves. With a real tool, type what it said.
      </p>
      <div className="flex flex-wrap items-end gap-2">
        {functions.map((f) => (
          <button
            key={f}
            type="button"
            className="btn"
            disabled={ask.isPending}
            onClick={() => ask.mutate(f)}
          >
            {SAYS[f]}
          </button>
        ))}
        <label className="field min-w-[110px] flex-1">
          <span>Battery, V</span>
          <input value={volts} inputMode="decimal" onChange={(e) => setVolts(e.target.value)} />
        </label>
      </div>
      <ProblemNote error={ask.error} />
      {ask.data && (
        <p className={`m-0 mt-2 text-[17px] ${ask.data.succeeded ? "" : "font-bold text-outside"}`}>
          {ask.data.words} {figure(ask.data.batteryV ?? 0, 1)} V. {ask.data.codes.join("; ")}
        </p>
      )}
    </div>
  );
}
