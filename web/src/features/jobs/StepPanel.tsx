import { useQuery } from "@tanstack/react-query";
import { Dialog } from "radix-ui";
import { useRef, useState, type ReactNode } from "react";
import { Link, useNavigate } from "react-router";
import { api, ApiError, take, type JobView, type Schemas, type StepBench } from "../../app/api";
import { useCommand, useDraft, useKeys } from "../../app/hooks";
import { useWaitingAt } from "../../app/outbox";
import { typedNumber } from "../../app/units";
import { InnerPadBack, LeadingEnd } from "../pads/drawings";
import { ProblemNote } from "../../ui/Problem";
import { VerdictMark } from "../../ui/marks";
import { Why } from "../../ui/Why";
import { RetractSummary, StopSigns } from "../retraction/RetractSummary";
import { TorquePanel } from "../torque/TorquePanel";
import { BENCH_NAME, benchPath } from "./BenchMenu";
import { StepHeading } from "./StepHeading";
import { LiftForm } from "./LiftDialog";
import { AimReached } from "./GoalDialog";
import { LookOverForm } from "./LookOverForm";
import { ReadingFields, useStepInstruments } from "./ReadingFields";
import { Sequence } from "./ServicePanel";
import { duration, figure } from "./words";

/** Told when someone else was quicker: what the server said, and what had been typed here. */
export type OnMoved = (error: ApiError, typed: string[]) => void;

/** True once the step at hand has stood for a moment: a second touch meant for the one before does nothing. */
export type Rested = () => boolean;

/** The bench: whatever the step at hand needs. */
export function StepPanel({
  job,
  bench,
  rested,
  onMoved,
}: {
  job: JobView;
  bench: StepBench | null;
  rested: Rested;
  onMoved: OnMoved;
}) {
  const navigate = useNavigate();
  useKeys({ r: () => void navigate(`/jobs/${job.id}/record`) });
  if (!bench) return <Finished job={job} />;
  if (bench.role) return <TorquePanel job={job} bench={bench} rested={rested} onMoved={onMoved} />;
  switch (bench.step.stepId) {
    case "look-over":
      return <LookOverForm job={job} bench={bench} rested={rested} />;
    case "identify":
    case "push-tried":
      return <GoLook job={job} bench={bench} />;
    case "choose-route":
      return <ChooseRoute job={job} bench={bench} rested={rested} />;
    default:
      return <ClickPanel job={job} bench={bench} rested={rested} onMoved={onMoved} />;
  }
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

function Finished({ job }: { job: JobView }) {
  const corners = [job.left, job.right].filter((c) => c.stop);
  return (
    <div className="flex h-full flex-col gap-4 px-6 pt-4 pb-3">
      <h2 className="text-[31px]">
        {job.handedOver
          ? "Handed over"
          : job.sheet.night
            ? "Left overnight"
            : job.sheet.goal.reached
              ? job.sheet.goal.says
              : "Nothing can be done now"}
      </h2>
      {job.sheet.night && <ComeBack job={job} />}
      {job.notCovered && <p className="m-0 text-[18px]">{job.notCovered}</p>}
      {corners.map((c) => (
        <StopNote key={c.side} job={job} corner={c} />
      ))}
      {!job.handedOver && !job.notCovered && !job.sheet.night && job.sheet.goal.reached && (
        <AimReached job={job} />
      )}
      {!job.handedOver &&
        !job.notCovered &&
        !job.sheet.night &&
        !job.sheet.goal.reached &&
        corners.length === 0 && (
          <p className="m-0 text-[18px]">Undo the last step, or follow the maker's order.</p>
        )}
      {job.handedOver && <p className="m-0 text-[22px]">{job.sheet.goal.then}</p>}
      <Link to={`/jobs/${job.id}/record`} className={`${job.handedOver ? "btn-primary" : "btn"} mt-auto`}>
        Open the record <span className="keycap">R</span>
      </Link>
    </div>
  );
}

function ComeBack({ job }: { job: JobView }) {
  const back = useCommand<null>(job, (h) =>
    take(api.POST("/api/jobs/{id}/come-back", { params: { path: { id: job.id } }, body: h })),
  );
  const go = () => !back.isPending && back.mutate(null);
  useKeys({ Space: go });
  return (
    <>
      <p className="m-0 text-[20px]">{job.sheet.goal.then}</p>
      <ul className="m-0 pl-6 text-[18px]">
        {job.sheet.night?.tags.map((t) => (
          <li key={t}>{t}</li>
        ))}
      </ul>
      <p className="m-0 text-[16px] text-ink-2">
        On return stands, chocks and tags are looked at first; then spindles and levers again.
      </p>
      <ProblemNote error={back.error} />
      <button type="button" className="btn-primary" onClick={go}>
        Back at it: all as it was left <span className="keycap">Space</span>
      </button>
    </>
  );
}

/** A stop sign that holds its corner. Where the log condemns the caliper anyway, that stands beside it. */
export function StopNote({
  job,
  corner,
  condemned = false,
}: {
  job: JobView;
  corner: Schemas["CornerView"];
  condemned?: boolean;
}) {
  const [open, setOpen] = useState(false);
  // Where the log condemns it, that is the answer, and what speaks against it is asked for.
  const [asked, setAsked] = useState(false);
  if (!corner.stop || !corner.stopEventId) return null;
  const full = !condemned || asked;
  return (
    <div className="rounded border-2 border-outside p-3">
      <p className="m-0 font-bold text-outside">
        The {corner.side} piston is held: {corner.stopMeans?.name.toLowerCase()}.
      </p>
      {full && (
        <p className="m-0 mt-1 text-[16px]">
          {corner.stopMeans?.means} {corner.stopMeans?.do}
        </p>
      )}
      {corner.stop.note && <p className="m-0 mt-1 text-[16px]">Noted: {corner.stop.note}</p>}
      {full && corner.stopMeans?.goesOn && (
        <SettleStop job={job} corner={corner} goesOn={corner.stopMeans.goesOn} condemned={condemned} />
      )}
      <div className="mt-2 flex flex-wrap gap-2">
        {!full && (
          <button type="button" className="btn" onClick={() => setAsked(true)}>
            It goes on after all
          </button>
        )}
        <Dialog.Root open={open} onOpenChange={setOpen}>
          <Dialog.Trigger className="btn">It was not so: undo it</Dialog.Trigger>
          {open && (
            <LiftForm
              eventId={corner.stopEventId}
              name="stop sign"
              detail=""
              job={job}
              done={() => setOpen(false)}
            />
          )}
        </Dialog.Root>
      </div>
    </div>
  );
}

/** The same caliper goes on, or a new one takes its place: both with what was done. */
function SettleStop({
  job,
  corner,
  goesOn,
  condemned,
}: {
  job: JobView;
  corner: Schemas["CornerView"];
  goesOn: string;
  condemned: boolean;
}) {
  const [what, setWhat] = useState("");
  const settle = useCommand<string>(job, (h, it) =>
    take(
      api.POST("/api/jobs/{id}/stop-signs/settled", {
        params: { path: { id: job.id } },
        body: { ...h, side: corner.side, what: it },
      }),
    ),
  );
  const condemn = useCommand<string>(job, (h, it) =>
    take(
      api.POST("/api/jobs/{id}/findings", {
        params: { path: { id: job.id } },
        body: { ...h, kind: "stuck-piston", side: corner.side, note: it || null },
      }),
    ),
  );
  const busy = settle.isPending || condemn.isPending;
  return (
    <>
      <label className="field mt-2">
        <span>What was done</span>
        <input value={what} maxLength={200} onChange={(e) => setWhat(e.target.value)} />
      </label>
      <ProblemNote error={settle.error ?? condemn.error} />
      <div className="mt-2 flex flex-wrap gap-2">
        <button
          type="button"
          className="btn flex-1"
          disabled={busy}
          onClick={() => settle.mutate(what.trim())}
        >
          {goesOn}
        </button>
        {!condemned && (
          <button
            type="button"
            className="btn flex-1"
            disabled={busy}
            onClick={() => condemn.mutate(what.trim())}
          >
            Condemned: new caliper
          </button>
        )}
      </div>
    </>
  );
}

function GoLook({ job, bench }: { job: JobView; bench: StepBench }) {
  const navigate = useNavigate();
  const side = bench.step.side ?? "left";
  const to = `/jobs/${job.id}/look/${side}`;
  const corner = side === "left" ? job.left : job.right;
  useKeys({ Space: () => void navigate(to) });
  return (
    <BenchFrame
      bench={bench}
      action={
        <Link to={to} className="btn-primary">
          Look at the {side} corner <span className="keycap">Space</span>
        </Link>
      }
    >
      <p className="m-0 text-[22px]">{bench.how}</p>
      <div className="window">
        <div className="text-[17px]">Still possible</div>
        <div className="huge">{corner.found.standing.length}</div>
      </div>
    </BenchFrame>
  );
}

function ChooseRoute({ job, bench, rested }: { job: JobView; bench: StepBench; rested: Rested }) {
  const choose = useCommand<Schemas["ServiceRoute"]>(job, (h, route) =>
    take(api.POST("/api/jobs/{id}/route", { params: { path: { id: job.id } }, body: { ...h, route } })),
  );
  const ranking = useQuery({
    queryKey: ["routes", job.id, job.version],
    queryFn: () => take(api.GET("/api/jobs/{id}/routes", { params: { path: { id: job.id } } })),
  });
  return (
    <BenchFrame bench={bench} action={<ProblemNote error={choose.error ?? ranking.error} />}>
      {ranking.data?.routes.map((r) => (
        <button
          key={r.route}
          type="button"
          className="btn min-h-[84px] flex-col !items-start"
          disabled={!r.offered || choose.isPending}
          onClick={() => rested() && choose.mutate(r.route)}
        >
          <span className="title text-[25px]">
            {r.says}
            {r.minutes !== null && (
              <span className="ml-2 font-sans text-[15px]">{duration(r.minutes)} in all</span>
            )}
          </span>
          <span className="text-left font-sans text-[16px]">{r.because}</span>
        </button>
      ))}
      {ranking.data && (
        <p className="m-0 text-[15px] text-ink-2">
          {ranking.data.never} <Why reasons={[ranking.data.reasons]} />
        </p>
      )}
    </BenchFrame>
  );
}

function ClickPanel({
  job,
  bench,
  rested,
  onMoved,
}: {
  job: JobView;
  bench: StepBench;
  rested: Rested;
  onMoved: OnMoved;
}) {
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
  const found = job.sheet.findings;
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
      {found.length > 0 && ["free", "judge"].includes(bench.stage) && bench.judged.length === 0 && (
        <div className="rounded border-2 border-ink p-3 text-[16px]">
          {found.map((f) => (
            <p key={f.side + f.finding.part + f.finding.says} className="m-0">
              <b className="capitalize">{f.side}.</b> {f.finding.says}
            </p>
          ))}
        </div>
      )}
      {retract && <RetractSummary job={job} corner={corner} />}
      {bench.how && (
        <p
          className={`m-0 leading-snug ${retract ? "text-[16px]" : bench.pads ? "text-[18px]" : "text-[22px]"}`}
        >
          {bench.how}
        </p>
      )}
      {bench.cautions
        .filter((c) => !c.mustAcknowledge)
        .map((c) => (
          <p key={c.id} className="m-0 border-l-4 border-undecided pl-3 text-[16px]">
            {c.says}
          </p>
        ))}
      {bench.pads && (
        <div>
          <p className="title m-0 text-[48px] leading-none">
            {bench.pads.placement.leadingEndAtBottom ? "Bottom leads" : "Top leads"}
          </p>
          {bench.pads.assumes && (
            <p className="m-0 mt-1 border-l-4 border-undecided pl-3 text-[17px] font-bold">
              {bench.pads.assumes}
            </p>
          )}
          <div className="flex items-stretch gap-2">
            <LeadingEnd
              parts={bench.pads.parts}
              atBottom={bench.pads.placement.leadingEndAtBottom}
              side={bench.step.side ?? "left"}
            />
            <InnerPadBack parts={bench.pads.parts} placement={bench.pads.placement} />
          </div>
          {bench.pads.placement.lines.map((l) => (
            <p key={l} className="m-0 text-[16px]">
              {l}
            </p>
          ))}
        </div>
      )}
      {bench.judged.length > 0 && (
        <div>
          {bench.judged.map((p) => (
            <div key={p.part} className="border-t border-rule py-1">
              <VerdictMark verdict={p.verdict} />
              <p className="m-0 text-[16px]">{p.says}</p>
              {p.settledBy.length > 0 && (
                <p className="m-0 text-[15px] text-ink-2">{p.settledBy.map((s) => s.says).join(" ")}</p>
              )}
            </div>
          ))}
        </div>
      )}
      {bench.backFromLock !== null && (
        <div className="window flex items-end gap-4">
          <span className="huge">{bench.backFromLock}</span>
          <span className="pb-2 text-[18px]">
            {bench.backFromLock === 1 ? "click" : "clicks"} back from lock
            {bench.clearance && (
              <>
                <br />
                by clearance it would be {Math.abs(bench.clearance.clicks)}{" "}
                {bench.clearance.clicks >= 0 ? "out" : "back"} from where it stands
              </>
            )}
          </span>
        </div>
      )}
      {bench.backFromLock === null && bench.clearance && (
        <div className="window flex items-end gap-4">
          <span className="huge">{Math.abs(Math.round(bench.clearance.clicks))}</span>
          <span className="pb-2 text-[18px]">
            {bench.clearance.clicks >= 0 ? "clicks out" : "clicks back"}
            <br />
            leaves {figure(bench.clearance.afterMm, 2)} mm of diameter
          </span>
        </div>
      )}
      {bench.benches.length > 0 && (
        <div className="grid auto-cols-fr grid-flow-col gap-2">
          {job.sheet.benches
            .filter(
              (b) => bench.benches.includes(b.kind) && [bench.step.side ?? "left", "car"].includes(b.lane),
            )
            .map((b) => (
              <Link key={b.kind} className="btn justify-center" to={benchPath(job.id, b.kind, b.lane)}>
                {BENCH_NAME[b.kind]}
              </Link>
            ))}
        </div>
      )}
      {bench.starWheel && (
        <p className="m-0 text-[16px]">
          {bench.starWheel.loosens === "up" ? "Up" : "Down"} loosens it, hole at {bench.starWheel.holeAt}{" "}
          o'clock.
        </p>
      )}
      {bench.page === "parts-list" && (
        <ul className="m-0 list-none p-0 text-[17px]">
          {job.sheet.partsList.map((p) => (
            <li key={p} className="border-t border-rule py-1">
              {p}
            </li>
          ))}
        </ul>
      )}
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

/** A stale version is told above the bench, where it outlives the step. */
export const staleShownAbove = (error: unknown) =>
  error instanceof ApiError && error.problem.reason === "stale-version" ? null : error;

/** Verdicts as rows, each with its why. */
export function Verdicts({ verdicts }: { verdicts: Schemas["LimitVerdict"][] }) {
  return (
    <div>
      {verdicts.map((v) => (
        <div key={v.what} className="flex items-center justify-between gap-2 border-t border-rule py-1">
          <span>
            {v.what}: <b>{figure(v.valueMm, 3)}</b> mm, {v.kind === "minimum" ? "least" : "most"}{" "}
            {figure(v.limitMm, 3)}
          </span>
          <span className="flex items-center gap-2">
            <VerdictMark verdict={v.verdict} />
            <Why reasons={[v.reasons]} />
          </span>
        </div>
      ))}
    </div>
  );
}
