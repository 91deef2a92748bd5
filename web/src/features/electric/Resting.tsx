import { Link } from "react-router";
import type { JobView, Schemas } from "../../app/api";
import { Why } from "../../ui/Why";
import { Asking } from "./Asking";
import { AttachTrace } from "./AttachTrace";
import { Exchange } from "./Exchange";
import type { Live } from "./live";
import { SIDES } from "./words";

type View = Schemas["ElectricBenchView"];

/** At rest: what the last traces say, what comes next, and why not the rest. */
export function Resting({ job, bench, live }: { job: JobView; bench: View; live: Live | null }) {
  const next = bench.actions.find((a) => a.allowed) ?? null;
  // What is refused for the same reason stands on one line.
  const not = new Map<string, string[]>();
  for (const a of bench.actions.filter((a) => !a.allowed && a.step !== null)) {
    const because = a.because.join(" ");
    not.set(because, [...(not.get(because) ?? []), a.name]);
  }
  return (
    <>
      <div
        className="flex min-h-0 flex-1 flex-col gap-2 overflow-auto"
        tabIndex={0}
        role="group"
        aria-label="What it means"
      >
        {bench.compared ? <Compared bench={bench} /> : <StateWindow live={live} bench={bench} />}
        {bench.ended && <EndedBadly ended={bench.ended} />}
        {live?.warns && (
          <p className="m-0 border-l-8 border-outside pl-3 text-[18px] font-bold" role="alert">
            {live.warns}
          </p>
        )}
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
        {not.size > 0 && (
          <section aria-label="Not now">
            <h3 className="title m-0 text-[20px]">Not now</h3>
            <ul className="m-0 list-none p-0 text-[16px] text-ink-2">
              {[...not].map(([because, names]) => (
                <li key={because} className="border-t border-rule py-1">
                  <b>{names.join(", ")}</b>: {because}
                </li>
              ))}
            </ul>
          </section>
        )}
      </div>
      <div className="grid grid-cols-2 gap-2">
        {bench.servesLink ? (
          <Exchange job={job} />
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
          <div className="bench-action flex flex-col">
            <Link className="btn-primary" to={`/jobs/${job.id}`}>
              To the run sheet
            </Link>
          </div>
        )
      ) : (
        <div className="bench-action flex flex-col">
          <Link className="btn-primary" to={`/jobs/${job.id}`}>
            Say what the tool said
          </Link>
        </div>
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

/** The last pair of motions against each other, the answer as the engine gives it. */
function Compared({ bench }: { bench: View }) {
  const c = bench.compared!;
  const readings = SIDES.map(([side, name]) => ({
    name,
    of: bench.traces.find((t) => t.side === side)!.reading,
  }));
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
      {c.apartS !== null && (
        <div className="window">
          <span className="text-[18px]">Apart by</span>
          <div className="flex items-end gap-4">
            <span className="huge">{c.apartS.toFixed(2)}</span>
            <span className="pb-2 text-[18px]">{c.toContact ? "s to contact" : "s to their ends"}</span>
          </div>
        </div>
      )}
      {c.differences.map((d) => (
        <p key={d.says} className="m-0 text-[17px]">
          <b>{d.says}</b> {d.check}
        </p>
      ))}
      {readings.map(
        ({ name, of }) =>
          of.do && (
            <p key={name} className="m-0 text-[17px]">
              <b>{name}:</b> {of.do}
            </p>
          ),
      )}
    </>
  );
}

/** How the last routine ended, where it did not end as asked: the codes it stored, what stores each and what ends it. */
function EndedBadly({ ended }: { ended: Schemas["EndedBadly"] }) {
  return (
    <section className="border-l-8 border-outside pl-3 text-[17px]" aria-label="How the last routine ended">
      <p className="m-0 font-bold">{ended.says}</p>
      {ended.codes.map((c) => (
        <p key={c.letters} className="m-0">
          <b>{c.letters}</b>{" "}
          {c.known
            ? `${c.known.text}. ${c.known.cause} ${c.known.remedy}`
            : "Look it up in the maker's data."}
        </p>
      ))}
    </section>
  );
}
