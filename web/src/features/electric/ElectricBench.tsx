import { useQuery } from "@tanstack/react-query";
import { api, take, type JobView, type Schemas, type Side } from "../../app/api";
import { ProblemNote } from "../../ui/Problem";
import { Spine } from "../../ui/Spine";
import { JobBenchShell } from "../jobs/JobBenchShell";
import { useThisJob } from "../jobs/JobFrame";
import { figure } from "../jobs/words";
import { Actuator } from "./Actuator";
import { useLive, type Live, type Running } from "./live";
import { Moving } from "./Moving";
import { Resting } from "./Resting";
import { TracePlot } from "./TracePlot";
import { MOVING, SIDES } from "./words";

type View = Schemas["ElectricBenchView"];
type Kept = Schemas["KeptTrace"];

/** The electric bench of a job: both actuators, what they draw, what may be asked of them now and why not the rest. */
export function ElectricBench() {
  const job = useThisJob();
  const bench = useQuery({
    // What it offers follows from the job: asked anew with each version of it.
    queryKey: ["job", job.id, "electric", job.version],
    queryFn: () => take(api.GET("/api/jobs/{id}/electric", { params: { path: { id: job.id } } })),
    placeholderData: (before) => before,
  });
  return (
    <JobBenchShell
      title="Electric bench"
      keys={{ Space: "What comes next, once all hands are clear", Esc: "Stop what runs" }}
    >
      {bench.data && <Bench job={job} bench={bench.data} />}
      <ProblemNote error={bench.error} />
    </JobBenchShell>
  );
}

function Bench({ job, bench }: { job: JobView; bench: View }) {
  const { live, running, lost, heardAt } = useLive(job.id, bench.servesLink);
  const moving = live?.running != null || bench.pending !== null;
  return (
    <div className="grid h-full grid-cols-[152px_minmax(0,1fr)_488px] max-[1100px]:grid-cols-[124px_minmax(0,1fr)_400px] max-[1000px]:flex max-[1000px]:flex-col max-[1000px]:overflow-auto max-[1000px]:pb-56">
      <div className="max-[1000px]:hidden">
        <Spine teeth={job.sheet.spine} stage={job.sheet.stage} />
      </div>
      <section
        className="flex min-h-0 flex-col gap-2 overflow-auto px-4 pt-3 pb-3 max-[1000px]:order-2 max-[1000px]:flex-shrink-0"
        aria-label="Both actuators"
      >
        <h2 className="text-[28px]">{heading(live, bench)}</h2>
        {lost && heardAt && (
          <p className="m-0 border-l-8 border-outside pl-3 text-[18px] font-bold" role="alert">
            The line is silent: this is as it was at {heardAt.toLocaleTimeString("en-GB")}.
          </p>
        )}
        <p className="m-0 text-[15px] text-ink-2">{bench.linkSays}</p>
        {SIDES.map(([side, name]) => (
          <SideRow
            key={side}
            name={name}
            job={job}
            at={(side === "left" ? live?.leftAtMm : live?.rightAtMm) ?? null}
            trace={bench.traces.find((t) => t.side === side) ?? null}
            running={moving ? running : null}
            side={side}
          />
        ))}
      </section>
      <section
        className="flex min-h-0 flex-col gap-2 border-l-2 border-ink bg-plate px-5 pt-3 pb-3 max-[1000px]:flex-shrink-0 max-[1000px]:border-l-0"
        aria-label="What may be done"
      >
        {moving ? (
          <Moving job={job} bench={bench} live={live} lost={lost} />
        ) : (
          <Resting job={job} bench={bench} live={live} />
        )}
      </section>
    </div>
  );
}

const heading = (live: Live | null, bench: View) =>
  live?.running
    ? MOVING[live.running]
    : bench.pending
      ? "Nobody knows how it stands"
      : !bench.servesLink
        ? "With your own tool"
        : live === null
          ? "Asking the car"
          : live.linked
            ? live.says
            : "No link";

function SideRow({
  name,
  job,
  at,
  trace,
  running,
  side,
}: {
  name: string;
  job: JobView;
  at: number | null;
  trace: Kept | null;
  running: Running | null;
  side: Side;
}) {
  const drawn = useQuery({
    queryKey: ["trace", trace?.sha256],
    queryFn: () =>
      take(
        api.GET("/api/jobs/{id}/traces/{sha256}/drawn", {
          params: { path: { id: job.id, sha256: trace!.sha256 } },
        }),
      ),
    enabled: trace !== null,
    staleTime: Infinity,
  });
  const points = running ? running[side] : (drawn.data ?? []);
  const now = running?.[side].at(-1)?.currentA;
  const says = running
    ? now == null
      ? "waits"
      : `${figure(Math.abs(now), 1)} A`
    : (trace?.reading.says ?? "No trace yet.");
  return (
    <div className="flex min-h-0 flex-1 flex-col border-t border-rule pt-2">
      <div className="flex min-h-[112px] flex-1 items-stretch gap-3 max-[640px]:flex-col">
        <div className="flex flex-shrink-0 flex-col justify-center">
          <Actuator at={at} name={name} />
          {trace && !running && (
            <a
              className="link flex items-center"
              href={`/api/jobs/${job.id}/traces/${trace.sha256}`}
              download
            >
              {name} as CSV
            </a>
          )}
        </div>
        <TracePlot
          points={points}
          reading={running ? null : (trace?.reading ?? null)}
          says={`${name}: current over time. ${says}`}
        />
      </div>
      <p className="m-0 text-[16px]">
        <b>{name}</b> {says}
      </p>
    </div>
  );
}
