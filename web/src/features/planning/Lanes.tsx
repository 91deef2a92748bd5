import { Fragment, useState } from "react";
import type { JobView, Schemas, StepBench, StepKey } from "../../app/api";
import { BoltHead } from "../../ui/marks";
import { useDraft } from "../../app/hooks";
import { LiftDialog } from "./LiftDialog";
import { ChangeText } from "./ChangeText";
import { WhyNotDialog } from "./WhyNotDialog";
import { clock, duration, useShortScreen } from "../jobs/words";

type Lane = Schemas["SheetLane"];
const LANES: Lane[] = ["left", "car", "right"];
const NAME: Record<Lane, string> = { left: "Left corner", car: "Car", right: "Right corner" };
const laneOf = (step: StepKey): Lane => step.side ?? "car";

/** Left, car, right: done above the now line, to come below it, holds across all three. */
export function Lanes({
  job,
  now,
  also,
  choose,
}: {
  job: JobView;
  now: StepBench | null;
  also: StepBench[];
  choose: (s: StepKey) => void;
}) {
  const { sheet } = job;
  const [tab, setTab] = useState<Lane>(now ? laneOf(now.step) : "car");
  const [all, setAll] = useState(false);
  const [more, setMore] = useState<Lane | null>(null);
  // Where height is short fewer finished rows stand; what may be done now never gives way.
  const lines = useShortScreen() ? 2 : 3;
  const met = sheet.holds.filter((h) => h.state === "met").at(-1);
  const coming = sheet.holds.filter((h) => h.state !== "met");
  const rest = sheet.ahead.filter(
    (a) => !now || a.step.stepId !== now.step.stepId || a.step.side !== now.step.side,
  );
  const counts = (lane: Lane) =>
    rest.filter((a) => a.lane === lane).length + (now && laneOf(now.step) === lane ? 1 : 0);
  return (
    <section
      className="flex min-h-0 flex-col gap-2 overflow-auto px-4 pt-3 pb-2 max-[800px]:flex-none max-[800px]:overflow-visible"
      aria-label="Run sheet"
    >
      <div className="grid grid-cols-3 gap-2 max-[800px]:hidden">
        {LANES.map((l) => (
          <div key={l} className="pl-4">
            <h2 className="text-[24px] [@media(max-height:700px)]:text-[21px]">{NAME[l]}</h2>
            <p className="m-0 flex gap-3 text-[15px] whitespace-nowrap text-ink-2">
              <span>{counts(l)} to go</span>
              <button
                type="button"
                className="relative border-0 bg-transparent p-0 underline underline-offset-2 after:absolute after:-inset-x-2 after:-inset-y-4"
                onClick={() => setAll(!all)}
              >
                {all ? "fold" : `${sheet.done.filter((d) => d.lane === l).length} done`}
              </button>
            </p>
          </div>
        ))}
      </div>
      {met && <HoldBar hold={met} />}
      <div className="hidden grid-cols-3 gap-0 max-[800px]:grid" role="tablist" aria-label="Lanes">
        {LANES.map((l) => (
          <button
            key={l}
            type="button"
            role="tab"
            aria-selected={tab === l}
            className="btn flex-col !gap-0 rounded-none"
            onClick={() => setTab(l)}
          >
            <span>{NAME[l].split(" ")[0]}</span>
            <span className="font-sans text-[13px]">{counts(l)} to go</span>
          </button>
        ))}
      </div>
      <div className="grid grid-cols-3 items-end gap-2 max-[800px]:grid-cols-1">
        {LANES.map((l) => {
          const done = sheet.done.filter((d) => d.lane === l);
          const shown = all ? done : done.slice(-lines);
          return (
            <div key={l} className={`flex flex-col ${tab === l ? "" : "max-[800px]:hidden"}`}>
              {shown.map((d) => (
                <DoneRow key={d.eventId} row={d} job={job} />
              ))}
            </div>
          );
        })}
      </div>
      <div className="relative -mx-0 grid min-h-[72px] flex-shrink-0 grid-cols-3 border-y-2 border-l-2 border-ink bg-plate max-[800px]:grid-cols-1 max-[800px]:border-r-2 min-[801px]:-mr-4">
        {LANES.map((l) => {
          const here = now && laneOf(now.step) === l;
          const others = also.filter((b) => laneOf(b.step) === l);
          return (
            <div
              key={l}
              className={`flex min-w-0 flex-col justify-center gap-1 p-1 ${here ? "border-l-[10px] border-pawl" : ""}`}
            >
              {here && (
                <div className="px-2 py-1">
                  <div className="title text-[26px]">{now.name}</div>
                  <div className="text-[15px]">
                    {now.torque && now.signed.length > 0
                      ? `${now.signed.length} of ${now.torque.perCorner} clicked on`
                      : "now"}
                  </div>
                </div>
              )}
              {others.slice(0, more === l ? others.length : 1).map((b, i) => (
                <span key={b.step.stepId} className="flex gap-1">
                  <button
                    type="button"
                    className="btn min-w-0 flex-1 flex-col !items-start !gap-0 !px-3 !py-1"
                    onClick={() => choose(b.step)}
                  >
                    <span className="line-clamp-2 max-w-full text-left leading-[1.1]">{b.name}</span>
                    <span className="font-sans text-[13px]">Do this instead</span>
                  </button>
                  {i === 0 && others.length > 1 && (
                    <button
                      type="button"
                      className="btn min-w-12 !px-1"
                      aria-expanded={more === l}
                      aria-label={`${others.length - 1} more that may be done now, ${NAME[l].toLowerCase()}`}
                      onClick={() => setMore(more === l ? null : l)}
                    >
                      {more === l ? "less" : `+${others.length - 1}`}
                    </button>
                  )}
                </span>
              ))}
              {!here && others.length === 0 && (
                <p className="m-0 px-3 text-[15px] text-ink-2">
                  {counts(l) > 0 ? "Nothing may be done here now." : "Nothing left here."}
                </p>
              )}
            </div>
          );
        })}
      </div>
      <Changed job={job} />
      <Ahead
        job={job}
        rows={rest.filter(
          (a) =>
            !also.some((b) => b.step.stepId === a.step.stepId && b.step.side === a.step.side) &&
            a.hold === (coming[0]?.id ?? null),
        )}
        tab={tab}
        limit={1}
      />
      {coming[0] && <HoldBar hold={coming[0]} />}
      {coming[0] && (
        <Ahead job={job} rows={rest.filter((a) => a.hold === (coming[1]?.id ?? null))} tab={tab} limit={1} />
      )}
      {sheet.notYet && (
        <div className="grid grid-cols-3 max-[800px]:grid-cols-1 [@media(max-height:700px)]:hidden">
          <div
            className="flex gap-2 max-[800px]:!col-auto"
            style={{ gridColumn: `${Math.min(LANES.indexOf(laneOf(sheet.notYet.step)) + 1, 2)} / span 2` }}
          >
            <span className="w-[9px] flex-shrink-0 bg-ink-2" />
            <p className="m-0 text-[18px] leading-snug">
              <span className="step-name block">{sheet.notYet.name}</span>
              <b>Not yet.</b> {sheet.notYet.why.replace(/^Not yet: /, "")}
            </p>
          </div>
        </div>
      )}
      {coming.slice(1).map((h, i) => (
        <Fragment key={h.id}>
          <HoldBar hold={h} />
          <Ahead
            job={job}
            rows={rest.filter((a) => a.hold === (coming[i + 2]?.id ?? null))}
            tab={tab}
            limit={0}
          />
        </Fragment>
      ))}
      {sheet.cannotBeMet.length > 0 && (
        <p className="m-0 rounded border-2 border-outside bg-plate p-3 text-[15px]">
          <b className="text-outside">Cannot be finished as it stands.</b> Out of reach:{" "}
          {sheet.cannotBeMet.join("; ")}.
        </p>
      )}
    </section>
  );
}

/** What the latest finding did to the plan, until it has been read. */
function Changed({ job }: { job: JobView }) {
  const change = job.sheet.changes.at(-1);
  const [seen, setSeen] = useDraft(`${job.id} changes`);
  if (!change || seen.last === change.eventId) return null;
  return (
    <div className="flex items-start gap-3 rounded border-2 border-pawl bg-plate p-3" role="status">
      <div className="max-h-[150px] min-w-0 flex-1 overflow-auto" tabIndex={0}>
        <ChangeText change={change} />
      </div>
      <button type="button" className="btn" onClick={() => setSeen("last", change.eventId)}>
        OK, understood
      </button>
    </div>
  );
}

function DoneRow({ row, job }: { row: Schemas["DoneRow"]; job: JobView }) {
  return (
    <div className="flex min-h-12 min-w-0 items-center gap-2 [@media(max-height:700px)]:min-h-[38px]">
      <svg
        width="12"
        height="40"
        viewBox="0 0 12 40"
        preserveAspectRatio="none"
        className="h-full max-h-12 flex-shrink-0"
        aria-hidden="true"
      >
        <path d="M0 0 H2 L11 40 H0 Z" fill="var(--railline)" />
      </svg>
      <LiftDialog row={row} job={job}>
        <span className="step-name line-clamp-2 leading-[1.05] text-ink-2">{row.name}</span>
      </LiftDialog>
      <span className="ml-auto flex-shrink-0 text-[13px] text-ink-2">
        {row.detail && row.detail.length < 11 ? row.detail : `${row.by} ${clock(row.at)}`}
      </span>
    </div>
  );
}

function Ahead({
  rows,
  tab,
  limit,
  job,
}: {
  rows: Schemas["AheadRow"][];
  tab: Lane;
  limit: number;
  job: JobView;
}) {
  const [open, setOpen] = useState<Lane | null>(null);
  return (
    <div className="grid grid-cols-3 items-start gap-2 max-[800px]:grid-cols-1">
      {LANES.map((l) => {
        const mine = rows.filter((r) => r.lane === l);
        // Folding a single row would save nothing.
        const shown = open === l || mine.length === limit + 1 ? mine : mine.slice(0, limit);
        const folded = mine.slice(shown.length);
        return (
          <div key={l} className={tab === l ? "" : "max-[800px]:hidden"}>
            {shown.map((r) => (
              <Row key={r.step.stepId} minutes={r.minutes}>
                <WhyNotDialog row={r} job={job}>
                  <span className="step-name line-clamp-2 leading-[1.05]">
                    {r.cameIn && (
                      <span className="mr-1 bg-pawl px-1 font-sans text-[12px] text-pawl-text">in</span>
                    )}
                    {r.name}
                  </span>
                </WhyNotDialog>
              </Row>
            ))}
            {folded.length > 0 && (
              <Row minutes={folded.reduce((m, r) => m + r.minutes, 0)}>
                <button
                  type="button"
                  className="row-name min-h-[38px] min-w-0 border-0 bg-transparent p-0 text-left"
                  aria-expanded={false}
                  onClick={() => setOpen(l)}
                >
                  <span className="step-name line-clamp-2 leading-[1.05]">
                    {folded.length} more: {folded[0]?.name.toLowerCase()}...
                  </span>
                </button>
              </Row>
            )}
          </div>
        );
      })}
    </div>
  );
}

function Row({ minutes, children }: { minutes: number; children: React.ReactNode }) {
  return (
    <div className="flex min-h-[38px] min-w-0 items-center gap-2">
      <svg
        width="12"
        height="38"
        viewBox="0 0 12 40"
        preserveAspectRatio="none"
        className="flex-shrink-0"
        aria-hidden="true"
      >
        <path d="M0 0 H2 L11 40 H0 Z" fill="var(--rule)" />
      </svg>
      {children}
      <span className="ml-auto flex-shrink-0 text-[13px] text-ink-2">{duration(minutes)}</span>
    </div>
  );
}

function HoldBar({ hold }: { hold: Schemas["HoldBar"] }) {
  const look = {
    met: "border-[1.5px] border-ink min-h-11",
    holding: "border-2 border-railline bg-rail text-rail-text min-h-[56px]",
    "to-come": "border-[1.5px] border-dashed border-ink-2 text-ink-2 min-h-10",
  }[hold.state];
  return (
    <div className={`flex flex-shrink-0 items-center gap-3 rounded px-3 py-1 ${look}`}>
      <BoltHead met={hold.leftMet} size={hold.state === "holding" ? 42 : 34} />
      <div className="min-w-0 flex-1">
        <div className={`title ${hold.state === "holding" ? "text-[22px]" : "text-[18px]"}`}>
          {hold.title}
        </div>
        {hold.state === "holding" && <div className="text-[15px]">{hold.says}</div>}
      </div>
      {hold.state === "met" && hold.met && (
        <span className="text-[15px]">
          {clock(hold.met.at)}, {hold.says}
        </span>
      )}
      <BoltHead met={hold.rightMet} size={hold.state === "holding" ? 42 : 34} />
    </div>
  );
}
