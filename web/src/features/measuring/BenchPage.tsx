import { Tabs } from "radix-ui";
import type { ReactNode } from "react";
import { Link, useNavigate } from "react-router";
import type { JobView, Schemas, Side } from "../../app/api";
import { useKeys } from "../../app/hooks";
import { Shell } from "../../ui/Shell";
import { Spine } from "../../ui/Spine";
import { TabList } from "../../ui/TabList";
import { jobTitle } from "../jobs/JobFrame";
import { InstrumentSelect } from "./fields";
import { GaugePanel } from "./GaugePanel";
import { ReadingsDialog } from "./ReadingsDialog";
import type { Bench } from "./readings";

export interface Tab {
  id: string;
  name: string;
  measurand: Schemas["Measurand"];
  fields: ReactNode;
  verdict: ReactNode;
}

/** The frame of every measuring bench: points on the left, the verdict on the right, the same with a job and without. */
export function BenchPage({
  title,
  job,
  side,
  other,
  bench,
  tabs,
  tab,
  onTab,
  clear,
  sheet = null,
  attach,
  error,
}: {
  title: string;
  job: JobView | null;
  side: Side;
  other: string | null;
  bench: Bench;
  tabs: Tab[];
  tab: string;
  onTab: (id: string) => void;
  clear: () => void;
  /** With no job: the spec sheet that is reckoned with. */
  sheet?: ReactNode;
  attach: ReactNode;
  error: ReactNode;
}) {
  const navigate = useNavigate();
  const shown = tabs.find((t) => t.id === tab) ?? tabs[0]!;
  const keys = Object.fromEntries(tabs.map((t, i) => [String(i + 1), () => onTab(t.id)]));
  useKeys({ ...keys, ...(job ? { Space: () => void navigate(`/jobs/${job.id}`) } : {}) });
  const car = job && jobTitle(job);
  return (
    <Shell
      title={title}
      sub={car ? `${car.title}, ${car.sub}` : "with no job"}
      keys={{
        Space: job ? "To the run sheet" : "Attach to a job",
        Enter: "Next point; a gauge sends it",
        ...Object.fromEntries(tabs.map((t, i) => [String(i + 1), t.name])),
      }}
    >
      <Tabs.Root
        value={shown.id}
        onValueChange={onTab}
        className={`grid h-full max-[800px]:block max-[800px]:overflow-auto ${
          job
            ? "grid-cols-[152px_minmax(0,1fr)_588px] max-[1100px]:grid-cols-[124px_minmax(0,1fr)_440px]"
            : "grid-cols-[minmax(0,1fr)_588px] max-[1100px]:grid-cols-[minmax(0,1fr)_470px]"
        }`}
      >
        {job && (
          <div className="max-[800px]:hidden">
            <Spine teeth={job.sheet.spine} stage="judge" />
          </div>
        )}
        <section className="flex min-h-0 flex-col gap-2 overflow-auto px-4 pt-3 pb-3" aria-label="Readings">
          <div className="flex flex-wrap items-stretch gap-2">
            <div className="min-w-[150px] flex-1">
              <InstrumentSelect bench={bench} measurand={shown.measurand} />
            </div>
            <button
              type="button"
              className="btn"
              onClick={() => bench.setUnit(bench.unit === "mm" ? "inch" : "mm")}
              aria-label={`Unit ${bench.unit}; change it`}
            >
              {bench.unit}
            </button>
            <GaugePanel
              bench={bench}
              measurand={shown.measurand}
              practice={job?.opened.practice ? { jobId: job.id, side } : null}
            />
            <ReadingsDialog bench={bench} side={side} />
            {!job && (
              <button type="button" className="btn" onClick={clear}>
                Clear the bench
              </button>
            )}
          </div>
          {sheet}
          <div className="flex gap-2">
            <TabList label={title} tabs={tabs.map((t) => [t.id, t.name] as const)} />
            {job && other && (
              <Link className="btn" to={other}>
                {side === "left" ? "Right" : "Left"} corner
              </Link>
            )}
          </div>
          {tabs.map((t) => (
            <Tabs.Content key={t.id} value={t.id} className="flex flex-col gap-2 outline-none" tabIndex={-1}>
              {t.fields}
            </Tabs.Content>
          ))}
        </section>
        <section
          className="flex min-h-0 flex-col border-l-2 border-ink bg-plate px-5 pt-3 pb-3 max-[800px]:border-l-0"
          aria-label="Verdict"
        >
          <div
            className="flex min-h-0 flex-1 flex-col gap-2 overflow-auto pb-2"
            tabIndex={0}
            role="group"
            aria-label="Verdict in full"
          >
            {shown.verdict}
          </div>
          {error}
          {job ? (
            <Link to={`/jobs/${job.id}`} className="btn-primary">
              To the run sheet <span className="keycap">Space</span>
            </Link>
          ) : (
            attach
          )}
        </section>
      </Tabs.Root>
    </Shell>
  );
}

/** The head of a verdict: the mark, "not passed" where so, and why. */
export function Headline({ children }: { children: ReactNode }) {
  return <div className="flex min-h-12 flex-shrink-0 items-start justify-between gap-2">{children}</div>;
}

export const NotPassed = () => (
  <span className="title rounded bg-ink px-3 py-2 text-[20px] text-plate">Not passed</span>
);

/** What a bench says before it can judge. */
export function Wanted({ title, lacks }: { title: string; lacks: string[] }) {
  return (
    <>
      <h2 className="text-[31px]">{title}</h2>
      {lacks.map((l) => (
        <p key={l} className="m-0 text-[18px]">
          {l}
        </p>
      ))}
      <p className="m-0 text-[16px] text-ink-2">The maker's figures outrank every answer here.</p>
    </>
  );
}
