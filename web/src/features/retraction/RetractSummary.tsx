import { Link } from "react-router";
import { api, take, type JobView, type Schemas } from "../../app/api";
import { useCommand } from "../../app/hooks";
import { useLength } from "../../app/units";
import { ProblemNote } from "../../ui/Problem";
import { figure } from "../jobs/words";

/** The number to act on. Whether it is wound or pushed is the ruling's to say; turns are shown where they can be reckoned. */
export function RetractWindow({
  travel,
  ruling,
}: {
  travel: Schemas["TravelResult"];
  ruling: Schemas["Ruling"];
}) {
  const length = useLength();
  const inTurns = ruling.turned && travel.turns !== null;
  const big = inTurns ? figure(travel.turns ?? 0) : length.of(travel.travelMm);
  return (
    <div className="window flex items-end gap-6">
      <div>
        <div className="text-[17px]">
          {inTurns ? "Turns to make" : ruling.turned ? "Wind it in" : "Push it in"}
        </div>
        <div className="huge">{big}</div>
      </div>
      <div className="pb-2">
        <div className="text-[32px] leading-none">{inTurns ? length.with(travel.travelMm) : length.name}</div>
        <div className="mt-1 text-[16px]">
          {travel.displacedIsLowerBound ? "at least " : ""}
          {figure(travel.displacedMl)} mL comes back
          {ruling.turned && !inTurns && <div>Turns are counted as you go.</div>}
        </div>
      </div>
    </div>
  );
}

/** What the log says now, where one is kept. */
function LogWindow({ log }: { log: Schemas["LogAnswer"] }) {
  const length = useLength();
  const stop = log.findings.find((f) => f.stop);
  return (
    <>
      <div className="window flex items-end gap-6">
        <div>
          <div className="text-[17px]">{stop ? stop.name : "To go, by the log"}</div>
          <div className={`huge ${stop ? "huge-5 pb-2" : ""}`}>
            {stop
              ? stop.kind === "home"
                ? "home"
                : "stop"
              : log.turnsToGo === null
                ? "?"
                : log.turnsToGo.toFixed(1)}
          </div>
        </div>
        <div className="pb-2 text-[16px]">
          {log.travelToGoMm !== null && (
            <div className="text-[30px] leading-none">{length.with(log.travelToGoMm)}</div>
          )}
          {log.fluidToComeMl !== null && <div>{figure(log.fluidToComeMl)} mL still to come</div>}
        </div>
      </div>
      {log.findings[0] && <p className="m-0 text-[17px] font-bold">{log.findings[0].do}</p>}
    </>
  );
}

/** The ruling and how far, in the bench of the step. */
export function RetractSummary({ job, corner }: { job: JobView; corner: Schemas["CornerView"] }) {
  const { ruling, travel } = corner;
  if (!ruling) return null;
  return (
    <>
      <p className="title m-0 text-[27px]">{ruling.headline}</p>
      {corner.log ? (
        <LogWindow log={corner.log} />
      ) : (
        travel && <RetractWindow travel={travel} ruling={ruling} />
      )}
      {travel?.warnings.map((w) => (
        <p key={w} className="wrong m-0">
          {w}
        </p>
      ))}
      <p className="m-0 text-[15px]">{ruling.never[0]}</p>
      <Link className="btn" to={`/jobs/${job.id}/retract/${corner.side}`}>
        The whole bench: drawing, tool, log, why
      </Link>
    </>
  );
}

/** Stop signs as buttons: touched when seen. */
export function StopSigns({ job, corner }: { job: JobView; corner: Schemas["CornerView"] }) {
  const stop = useCommand<Schemas["StopSign"]>(job, (h, sign) =>
    take(
      api.POST("/api/jobs/{id}/stop-signs", {
        params: { path: { id: job.id } },
        body: { ...h, side: corner.side, sign, note: null },
      }),
    ),
  );
  return (
    <div className="flex-shrink-0">
      <p className="m-0 mb-1 text-[16px]">
        <b>Stop</b> if you see one of these, and touch it
      </p>
      <div className="grid grid-cols-5 gap-1 max-[800px]:grid-cols-2">
        {corner.ruling?.stops.map((s) => (
          <button
            key={s.sign}
            type="button"
            className="btn btn-stop !px-1 text-center !text-[17px] max-[1100px]:!border-l-4 max-[1100px]:!text-[16px]"
            title={s.do}
            disabled={stop.isPending}
            onClick={() => stop.mutate(s.sign)}
          >
            {s.name}
          </button>
        ))}
      </div>
      {stop.isSuccess && (
        <p className="m-0 mt-2 text-[16px] font-bold">
          {corner.ruling?.stops.find((s) => s.sign === stop.variables)?.do}
        </p>
      )}
      <ProblemNote error={stop.error} />
    </div>
  );
}
