import { Link, useNavigate, useParams } from "react-router";
import { useKeys } from "../../app/hooks";
import { Shell } from "../../ui/Shell";
import { Spine } from "../../ui/Spine";
import { Why } from "../../ui/Why";
import { jobTitle, useThisJob } from "../jobs/JobFrame";
import { StopNote, Verdicts } from "../jobs/StepPanel";
import { PistonFace } from "./PistonFace";
import { Reservoir } from "./Reservoir";
import { RetractWindow, StopSigns } from "./RetractSummary";
import { RulingText } from "./RulingText";
import { PRECONDITION } from "./words";

/** The ruling for a corner: which way, how far, what to watch, when to stop. */
export function RetractPage() {
  const job = useThisJob();
  const { side: word } = useParams();
  const corner = word === "right" ? job.right : job.left;
  const other = corner.side === "left" ? "right" : "left";
  const navigate = useNavigate();
  useKeys({
    Space: () => void navigate(`/jobs/${job.id}`),
    o: () => void navigate(`/jobs/${job.id}/retract/${other}`),
  });
  const { ruling, travel, room } = corner;
  const { title, sub } = jobTitle(job);
  return (
    <Shell
      title={title}
      sub={sub}
      keys={{ Space: "To the run sheet", O: "The other corner" }}
      info={
        <Link to={`/jobs/${job.id}`} className="flex min-h-11 items-center">
          Run sheet
        </Link>
      }
    >
      <div className="grid h-full grid-cols-[152px_minmax(0,1fr)_588px] max-[1100px]:grid-cols-[124px_minmax(0,1fr)_500px] max-[760px]:block max-[760px]:overflow-auto">
        <div className="max-[760px]:hidden">
          <Spine teeth={job.sheet.spine} stage="retract" />
        </div>
        <section className="flex min-h-0 flex-col gap-2 overflow-auto px-4 pt-4 pb-3" aria-label="Drawing">
          <div className="flex items-start justify-between gap-2">
            <div>
              <h2 className="text-[31px]">Retract bench, {corner.side} corner</h2>
              <p className="m-0 text-ink-2">{ruling ? ruling.because : "Identify the brake first."}</p>
            </div>
            <Link className="btn flex-shrink-0" to={`/jobs/${job.id}/retract/${other}`}>
              {other === "right" ? "Right" : "Left"} corner
            </Link>
          </div>
          {ruling && (
            <div className="flex flex-wrap items-center justify-center gap-4">
              <PistonFace ruling={ruling} size={room ? 288 : 330} />
              <div className="w-[150px]">
                {ruling.direction && <p className="title m-0 text-[27px] capitalize">{ruling.direction}</p>}
                <p className="m-0 text-[15px] text-ink-2">
                  {ruling.direction
                    ? ruling.directionIsDefault
                      ? "facing it; a default, to be proved in the first half turn"
                      : "facing it, from the sheet"
                    : "square on its face"}
                </p>
                <p className="mt-3 mb-0 text-[15px]">{ruling.tool}.</p>
              </div>
            </div>
          )}
          {room && travel && (
            <div className="border-t border-rule pt-2">
              <Reservoir
                room={room}
                level={room.levelAfter - (travel.displacedMl / job.opened.sheet.reservoir.bandMl) * 100}
                displacedMl={travel.displacedMl}
              />
            </div>
          )}
          {corner.verdicts.length > 0 && <Verdicts verdicts={corner.verdicts} />}
        </section>
        <section
          className="flex min-h-0 flex-col gap-3 border-l-2 border-ink bg-plate px-5 pt-4 pb-3 max-[760px]:border-l-0"
          aria-label="Ruling"
        >
          <div className="flex items-start justify-between gap-2">
            <h2 className="text-[31px]">{ruling?.headline ?? "No ruling yet"}</h2>
            {ruling && (
              <Why
                reasons={
                  travel
                    ? [ruling.reasons, travel.reasons, ...(room ? [room.reasons] : [])]
                    : [ruling.reasons]
                }
              />
            )}
          </div>
          {corner.pistonHome ? (
            <p className="title m-0 text-[27px] text-inside">The piston is home.</p>
          ) : travel ? (
            <RetractWindow travel={travel} />
          ) : (
            ruling && <p className="m-0 text-[18px]">How far follows from the measuring step.</p>
          )}
          {!corner.pistonHome &&
            travel?.warnings.map((w) => (
              <p key={w} className="wrong m-0">
                {w}
              </p>
            ))}
          <StopNote job={job} corner={corner} />
          {ruling && !corner.pistonHome && !corner.stop && !corner.retractOffered && (
            <p className="m-0 text-[16px]">
              <b>Not yet.</b>{" "}
              {corner.retractWhyNot[0] ??
                `First: ${ruling.preconditions.map((p) => PRECONDITION[p]).join(", ")}.`}
            </p>
          )}
          <div
            className="min-h-0 flex-1 overflow-auto"
            tabIndex={0}
            role="group"
            aria-label="The ruling in full"
          >
            {ruling && <RulingText ruling={ruling} />}
          </div>
          {corner.retractOffered && <StopSigns job={job} corner={corner} />}
          <Link
            to={ruling ? `/jobs/${job.id}` : `/jobs/${job.id}/look/${corner.side}`}
            className="btn-primary"
          >
            {ruling ? "To the run sheet" : "Look at this corner"} <span className="keycap">Space</span>
          </Link>
        </section>
      </div>
    </Shell>
  );
}
