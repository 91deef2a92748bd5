import { useRef, useState } from "react";
import { api, ApiError, take } from "../../app/api";
import { useCommand, useDraft, useKeys } from "../../app/hooks";
import { useWaitingAt } from "../../app/kept";
import { typedNumber } from "../../app/units";
import { ProblemNote } from "../../ui/Problem";
import { StopSigns } from "../retraction/RetractSummary";
import { BenchFrame, staleShownAbove, type StepProps } from "./BenchFrame";
import { ReadingFields, useStepInstruments } from "./ReadingFields";
import { Sequence } from "./ServicePanel";
import { StepFacts } from "./StepFacts";
import { Verdicts } from "./Verdicts";

/** A step that is clicked on: what it says, what it asks for, and its one action. */
export function ClickPanel({ job, bench, rested, onMoved }: StepProps) {
  const [typed, setValue, clearDraft] = useDraft(
    `${job.id} ${bench.step.stepId} ${bench.step.side ?? "car"}`,
  );
  // What a bench has read already is filled in; what is typed here outranks it.
  const values: Record<string, string> = {
    ...Object.fromEntries(bench.prefilled.map((p) => [p.kind, String(p.value)])),
    ...typed,
  };
  const prefilled = (kind: string) => bench.prefilled.find((p) => p.kind === kind);
  const instruments = useStepInstruments();
  const [acknowledged, setAcknowledged] = useState<string[]>([]);
  const { note = "", said = "", codes = "" } = values;
  const primary = useRef<HTMLButtonElement>(null);
  const corner = bench.step.side === "right" ? job.right : job.left;
  const click = useCommand<{ outcome: string | null; refused: boolean }>(job, (h, { outcome, refused }) =>
    take(
      api.POST("/api/jobs/{id}/steps", {
        params: { path: { id: job.id } },
        body: {
          ...h,
          stepId: bench.step.stepId,
          side: bench.step.side,
          readings: bench.readings
            .filter((r) => (values[r.kind] ?? "").trim() !== "")
            .map((r) => ({
              kind: r.kind,
              value: typedNumber(values[r.kind] ?? "") ?? 0,
              instrumentId:
                (typed[r.kind] === undefined ? prefilled(r.kind)?.instrumentId : undefined) ??
                instruments.of(r),
            })),
          acknowledged,
          outcome,
          report:
            bench.needsReport && outcome === null
              ? { succeeded: !refused, words: said.trim() || (refused ? "Refused" : "Finished"), codes }
              : null,
          note: note.trim() || null,
        },
      }),
    ),
  );
  const unsent = useWaitingAt(job.id, "steps", bench.step).length > 0;
  const notNumbers = bench.readings.filter((r) => Number.isNaN(typedNumber(values[r.kind] ?? "")));
  const go = (outcome: string | null = null, refused = false) => {
    if (unsent || click.isPending || notNumbers.length > 0 || !rested()) return;
    click.mutate(
      { outcome, refused },
      {
        onSuccess: clearDraft,
        onError: (e) =>
          e instanceof ApiError && e.problem.reason === "stale-version" && onMoved(e, Object.values(values)),
      },
    );
  };
  useKeys({ Space: () => go() });
  const mustAcknowledge = bench.cautions.filter((c) => c.mustAcknowledge);
  const wrong = (kind: string) =>
    notNumbers.some((r) => r.kind === kind)
      ? "A plain figure is wanted, such as 12.4."
      : click.error instanceof ApiError
        ? click.error.field(kind.replaceAll("-", ""))
        : undefined;
  const retract = bench.page === "retract";
  return (
    <BenchFrame
      bench={bench}
      action={
        <>
          <ProblemNote error={staleShownAbove(click.error)} />
          {/* Beside the primary action they never scroll away; a phone's bar has no room for them. */}
          {retract && (
            <div className="max-[800px]:hidden">
              <StopSigns job={job} corner={corner} />
            </div>
          )}
          {bench.needsReport && (
            <button type="button" className="btn" onClick={() => go(null, true)}>
              The tool refused
            </button>
          )}
          {bench.outcomes.map((o) => (
            <button key={o.id} type="button" className="btn btn-stop" onClick={() => go(o.id)}>
              {o.says}
            </button>
          ))}
          <button
            ref={primary}
            type="button"
            className="btn-primary"
            disabled={click.isPending || unsent}
            onClick={() => go()}
          >
            <span>
              {unsent
                ? "Done here, not sent yet"
                : bench.needsReport
                  ? "The tool has finished"
                  : `${bench.name}: done`}
            </span>{" "}
            <span className="keycap">Space</span>
          </button>
        </>
      }
    >
      <StepFacts job={job} bench={bench} />
      {bench.readings.length > 0 && (
        <ReadingFields
          readings={bench.readings}
          values={values}
          from={(kind) => (typed[kind] === undefined ? prefilled(kind)?.from : undefined)}
          instruments={instruments}
          wrong={wrong}
          onType={setValue}
          onLast={() => primary.current?.focus()}
        />
      )}
      {bench.page === "in-car-sequence" && <Sequence steps={job.opened.sheet.electric?.inCar ?? []} />}
      {bench.page === "in-car-closing" && <Sequence steps={job.opened.sheet.electric?.inCarClose ?? []} />}
      {bench.needsReport && (
        <div className="grid grid-cols-2 gap-2">
          <label className="field">
            <span>What the tool said</span>
            <input value={said} onChange={(e) => setValue("said", e.target.value)} maxLength={200} />
          </label>
          <label className="field">
            <span>Codes, if any</span>
            <input value={codes} onChange={(e) => setValue("codes", e.target.value)} maxLength={200} />
          </label>
        </div>
      )}
      {mustAcknowledge.map((c) => (
        <button
          key={c.id}
          type="button"
          className="btn !justify-start !font-sans !text-[16px]"
          aria-pressed={acknowledged.includes(c.id)}
          onClick={() =>
            setAcknowledged(
              acknowledged.includes(c.id) ? acknowledged.filter((a) => a !== c.id) : [...acknowledged, c.id],
            )
          }
        >
          <span
            className="flex h-6 w-6 flex-shrink-0 items-center justify-center border-2 border-current"
            aria-hidden="true"
          >
            {acknowledged.includes(c.id) && <span className="h-3 w-3 bg-current" />}
          </span>
          <span>{c.says}</span>
        </button>
      ))}
      {retract && (
        <div className="min-[801px]:hidden">
          <StopSigns job={job} corner={corner} />
        </div>
      )}
      {corner.verdicts.length > 0 &&
        ["reservoir-again", "parts-compared", "bolts-laid-out"].includes(bench.step.stepId) && (
          <Verdicts verdicts={[...job.left.verdicts, ...job.right.verdicts]} />
        )}
      {(bench.tools.length > 0 || bench.parts.length > 0) && (
        <p className="m-0 text-[15px] text-ink-2">
          {bench.tools.length > 0 && `Tools: ${bench.tools.join(", ")}. `}
          {bench.parts.length > 0 && `Parts: ${bench.parts.join(", ")}.`}
        </p>
      )}
      <label className="field">
        <span>{bench.noteWanted ? `Say ${bench.noteWanted}` : bench.leadOnly ? "Reason" : "Note"}</span>
        <input value={note} onChange={(e) => setValue("note", e.target.value)} maxLength={500} />
      </label>
    </BenchFrame>
  );
}
