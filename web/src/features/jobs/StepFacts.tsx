import { Link } from "react-router";
import type { JobView, StepBench } from "../../app/api";
import { InnerPadBack, LeadingEnd } from "../pads/drawings";
import { RetractSummary } from "../retraction/RetractSummary";
import { VerdictMark } from "../../ui/marks";
import { BENCH_NAME, benchPath } from "./BenchMenu";
import { figure } from "./words";

/** What a step says before anything is asked: how, cautions, how pads go in, what was judged, clicks. */
export function StepFacts({ job, bench }: { job: JobView; bench: StepBench }) {
  const corner = bench.step.side === "right" ? job.right : job.left;
  const retract = bench.page === "retract";
  const found = job.sheet.findings;
  return (
    <>
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
    </>
  );
}
