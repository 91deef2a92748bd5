import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { api, take, type JobView, type Schemas, type Side } from "../../app/api";
import { useCommand, useKeys } from "../../app/hooks";
import { Overlay } from "../../ui/Overlay";
import { ProblemNote } from "../../ui/Problem";
import { Shell } from "../../ui/Shell";
import { Spine } from "../../ui/Spine";
import { Why } from "../../ui/Why";
import { Dialog } from "radix-ui";
import { jobTitle, useThisJob } from "../jobs/JobFrame";
import { figure } from "../jobs/words";
import { Actuator } from "./Actuator";
import { AttachTrace } from "./AttachTrace";
import { useLive, type Live, type Running } from "./live";
import { TracePlot } from "./TracePlot";
import { MOVING } from "./words";

type View = Schemas["ElectricBenchView"];
type Action = Schemas["ElectricAction"];
type Kept = Schemas["KeptTrace"];

const SIDES: [Side, string][] = [
  ["left", "Left"],
  ["right", "Right"],
];

/** The electric bench of a job: both actuators, what they draw, what may be asked of them now and why not the rest. */
export function ElectricBench() {
  const job = useThisJob();
  const bench = useQuery({
    // What it offers follows from the job: asked anew with each version of it.
    queryKey: ["job", job.id, "electric", job.version],
    queryFn: () => take(api.GET("/api/jobs/{id}/electric", { params: { path: { id: job.id } } })),
    placeholderData: (before) => before,
  });
  const car = jobTitle(job);
  return (
    <Shell
      title="Electric bench"
      sub={`${car.title}, ${car.sub}`}
      info={
        <Link className="flex min-h-11 items-center text-inherit no-underline" to={`/jobs/${job.id}`}>
          Run sheet
        </Link>
      }
      keys={{ Space: "What comes next, once all hands are clear", Esc: "Stop what runs" }}
    >
      {bench.data && <Bench job={job} bench={bench.data} />}
      <ProblemNote error={bench.error} />
    </Shell>
  );
}

function Bench({ job, bench }: { job: JobView; bench: View }) {
  const { live, running } = useLive(job.id, bench.servesLink);
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
          <Moving job={job} bench={bench} live={live} />
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

/** While a motor runs, or nobody knows whether one does. */
function Moving({ job, bench, live }: { job: JobView; bench: View; live: Live | null }) {
  const client = useQueryClient();
  const stop = useMutation({
    mutationFn: () => take(api.POST("/api/jobs/{id}/electric/stop", { params: { path: { id: job.id } } })),
  });
  const settle = useMutation({
    mutationFn: () => take(api.POST("/api/jobs/{id}/electric/settle", { params: { path: { id: job.id } } })),
    onSuccess: () => client.invalidateQueries({ queryKey: ["job", job.id] }),
  });
  const runs = live?.running != null;
  useKeys({ escape: () => runs && stop.mutate() });
  const known = runs && !live.mayRun;
  return (
    <>
      <h2 className="text-[28px] text-outside" role="status">
        {known ? "Hands out. The motors are moving." : "Hands out. The motor may still be running."}
      </h2>
      <div className="window">
        <span className="text-[18px]">
          {!known ? "The link is" : live.stopAsked ? "Stop asked, not confirmed yet" : "Moving for"}
        </span>
        <div className="flex items-end gap-4">
          <span className="huge">{known && live.elapsedS != null ? live.elapsedS.toFixed(1) : "lost"}</span>
          {known && (
            <span className="pb-2 text-[18px]">
              s
              <br />
              {live.voltageV == null ? "volts not known" : `${live.voltageV.toFixed(1)} V under load`}
            </span>
          )}
        </div>
      </div>
      <p className="m-0 text-[17px]">
        Asked by <b>{bench.pending?.by ?? "somebody"}</b>.{" "}
        {known ? "If the link is lost now, nobody" : "Nobody"} knows where the spindles stand:{" "}
        <b>hands out</b> until the state has been read.
      </p>
      {live && !live.linked && <p className="m-0 text-[17px] font-bold">{live.says}</p>}
      <ProblemNote error={stop.error ?? settle.error} />
      <div className="bench-action mt-auto flex flex-col gap-2">
        {runs ? (
          <>
            <p className="m-0 text-[15px] text-ink-2">
              Stop asks the unit to stop. It is not a safety device.
            </p>
            <button
              type="button"
              className="btn btn-stop !min-h-20 !justify-between !px-8 !text-[34px]"
              onClick={() => stop.mutate()}
            >
              Stop <span className="keycap">Esc</span>
            </button>
          </>
        ) : (
          <button
            type="button"
            className="btn-primary"
            disabled={settle.isPending}
            onClick={() => settle.mutate()}
          >
            Ask the car how it stands
          </button>
        )}
      </div>
    </>
  );
}

/** At rest: what the last traces say, what comes next, and why not the rest. */
function Resting({ job, bench, live }: { job: JobView; bench: View; live: Live | null }) {
  const next = bench.actions.find((a) => a.allowed) ?? null;
  const not = bench.actions.filter((a) => !a.allowed && a.step !== null);
  return (
    <>
      <div
        className="flex min-h-0 flex-1 flex-col gap-2 overflow-auto"
        tabIndex={0}
        role="group"
        aria-label="What it means"
      >
        {bench.compared ? <Compared bench={bench} /> : <StateWindow live={live} bench={bench} />}
        {bench.earlier
          .filter((c) => !c.alike)
          .map((c) => (
            <p key={c.says} className="m-0 text-[16px]">
              {c.says}
            </p>
          ))}
        {bench.batterySays && bench.servesLink && (
          <p className="m-0 text-[16px] text-ink-2">{bench.batterySays}</p>
        )}
        {not.length > 0 && (
          <section aria-label="Not now">
            <h3 className="title m-0 text-[20px]">Not now</h3>
            <ul className="m-0 list-none p-0 text-[16px] text-ink-2">
              {not.map((a) => (
                <li key={a.act} className="border-t border-rule py-1">
                  <b>{a.name}</b>: {a.because.join(" ")}
                </li>
              ))}
            </ul>
          </section>
        )}
      </div>
      <div className="grid grid-cols-2 gap-2">
        {bench.servesLink ? (
          <ExchangeDialog job={job} />
        ) : (
          <Link className="btn" to={`/jobs/${job.id}`}>
            Run sheet
          </Link>
        )}
        <AttachTrace job={job} />
      </div>
      {bench.servesLink ? (
        next ? (
          <Asking key={next.act} job={job} bench={bench} action={next} />
        ) : (
          <Link className="btn-primary bench-action" to={`/jobs/${job.id}`}>
            To the run sheet
          </Link>
        )
      ) : (
        <Link className="btn-primary bench-action" to={`/jobs/${job.id}`}>
          Say what the tool said
        </Link>
      )}
    </>
  );
}

function StateWindow({ live, bench }: { live: Live | null; bench: View }) {
  if (!bench.servesLink)
    return (
      <div className="flex flex-col gap-2 text-[18px]">
        <p className="m-0">
          Select the parking brake, rear, and the function that the step names. Wait until the tool says that
          it has ended; then say on the run sheet what it said, with volts and codes.
        </p>
        <p className="m-0">
          A clamp meter round one conductor of one motor, zeroed, its arrow towards the motor, 100 readings a
          second or more: attach what it recorded, and it is read here.
        </p>
      </div>
    );
  return (
    <div className="window">
      <span className="text-[18px]">
        {live?.linked ? "At the battery" : (live?.says ?? "The car is asked.")}
      </span>
      <div className="flex items-end gap-4">
        <span className="huge">{live?.voltageV == null ? "?" : live.voltageV.toFixed(1)}</span>
        <span className="pb-2 text-[18px]">V</span>
      </div>
    </div>
  );
}

function Compared({ bench }: { bench: View }) {
  const c = bench.compared!;
  const [left, right] = SIDES.map(([side]) => bench.traces.find((t) => t.side === side)!.reading);
  // Of an apply its contact counts, of a way back where it ends.
  const at = (r: Schemas["TraceReading"]) => r.contactS ?? r.endedS;
  const [one, two] = [at(left!), at(right!)];
  const apart = one !== null && two !== null ? Math.abs(one - two) : null;
  const until = left!.contactS === null ? "s to their ends" : "s to contact";
  return (
    <>
      <div className="flex items-start justify-between gap-2">
        <h3
          className={`title m-0 border-l-8 pl-3 text-[28px] ${c.alike ? "border-inside text-inside" : "border-outside text-outside"}`}
        >
          {c.alike ? "Left and right alike" : "Left and right differ"}
        </h3>
        <Why reasons={[c.reasons, ...bench.traces.map((t) => t.reading.reasons)]} />
      </div>
      {apart !== null && (
        <div className="window">
          <span className="text-[18px]">Apart by</span>
          <div className="flex items-end gap-4">
            <span className="huge">{apart.toFixed(2)}</span>
            <span className="pb-2 text-[18px]">{until}</span>
          </div>
        </div>
      )}
      {c.differences.map((d) => (
        <p key={d.says} className="m-0 text-[17px]">
          <b>{d.says}</b> {d.check}
        </p>
      ))}
      {[left!, right!].map(
        (r, i) =>
          r.do && (
            <p key={i} className="m-0 text-[17px]">
              <b>{i === 0 ? "Left" : "Right"}:</b> {r.do}
            </p>
          ),
      )}
    </>
  );
}

/** Asks for what comes next, once everybody's hands are clear and the cautions are seen. */
function Asking({ job, bench, action }: { job: JobView; bench: View; action: Action }) {
  const [clear, setClear] = useState<string[]>([]);
  const ask = useCommand<null>(job, (header) =>
    take(
      api.POST("/api/jobs/{id}/electric/act", {
        params: { path: { id: job.id } },
        body: {
          ...header,
          act: action.act,
          clear,
          acknowledged: action.moves ? action.cautions.map((c) => c.id) : [],
        },
      }),
    ),
  );
  const ready = !action.moves || bench.people.every((p) => clear.includes(p));
  useKeys({ Space: () => ready && !ask.isPending && ask.mutate(null) });
  return (
    <div className="bench-action flex flex-col gap-2">
      <ProblemNote error={ask.error} />
      {action.moves && (
        <fieldset className="m-0 flex flex-shrink-0 flex-col gap-2 border-0 p-0">
          <legend className="text-[16px]">
            {action.cautions.map((c) => c.says).join(" ")}{" "}
            <b>
              {bench.people.length > 1
                ? "Each says that their hands are clear."
                : "Say it aloud: hands clear."}
            </b>
          </legend>
          <div className="grid grid-cols-2 gap-2">
            {bench.people.map((name) => (
              <button
                key={name}
                type="button"
                className="btn !min-h-16"
                aria-pressed={clear.includes(name)}
                onClick={() =>
                  setClear(clear.includes(name) ? clear.filter((n) => n !== name) : [...clear, name])
                }
              >
                {name}: clear
              </button>
            ))}
          </div>
        </fieldset>
      )}
      <button
        type="button"
        className="btn-primary"
        disabled={!ready || ask.isPending}
        onClick={() => ask.mutate(null)}
      >
        {action.name} <span className="keycap">Space</span>
      </button>
    </div>
  );
}

function ExchangeDialog({ job }: { job: JobView }) {
  const [open, setOpen] = useState(false);
  const lines = useQuery({
    queryKey: ["exchange", job.id, job.version],
    queryFn: () => take(api.GET("/api/jobs/{id}/electric/exchange", { params: { path: { id: job.id } } })),
    enabled: open,
  });
  return (
    <Dialog.Root open={open} onOpenChange={setOpen}>
      <Dialog.Trigger className="btn">The exchange</Dialog.Trigger>
      <Overlay title="What went over the link" wide>
        <ol className="m-0 flex max-h-[60vh] list-none flex-col overflow-auto p-0 text-[15px]" tabIndex={0}>
          {lines.data?.length === 0 && <li>Nothing yet.</li>}
          {lines.data?.map((e, i) => (
            <li key={i} className="grid grid-cols-[92px_64px_minmax(0,1fr)] gap-2 border-t border-rule py-1">
              <span>{e.at.slice(11, 19)}</span>
              <span>{e.sent ? "asked" : "said"}</span>
              <span>
                {e.words}
                <span className="block font-key text-[13px] break-all text-ink-2">{e.hex.slice(0, 120)}</span>
              </span>
            </li>
          ))}
        </ol>
      </Overlay>
    </Dialog.Root>
  );
}
