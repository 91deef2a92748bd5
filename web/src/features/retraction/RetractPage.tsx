import { useQuery, keepPreviousData } from "@tanstack/react-query";
import { Dialog } from "radix-ui";
import { Link, useNavigate, useParams } from "react-router";
import { api, take, type JobView, type Schemas, type Side } from "../../app/api";
import { useKeys } from "../../app/hooks";
import { useLength } from "../../app/units";
import { Overlay } from "../../ui/Overlay";
import { ProblemNote } from "../../ui/Problem";
import { Shell } from "../../ui/Shell";
import { Spine } from "../../ui/Spine";
import { Why } from "../../ui/Why";
import { jobTitle, useThisJob } from "../jobs/JobFrame";
import { StopNote } from "../jobs/StopNote";
import { Verdicts } from "../jobs/Verdicts";
import { figure, useShortScreen } from "../jobs/words";
import { useRetractCommands } from "./commands";
import { useTurnCount } from "./count";
import { CountWindow, LogPanel } from "./LogBench";
import { PairWindow } from "./OpposedSeen";
import { RoundPanel } from "./RoundPanel";
import { StopSigns } from "./RetractSummary";
import { RetractLooks } from "./RetractLooks";
import { RulingFace } from "./RulingFace";
import { RulingText } from "./RulingText";
import { BOOT, PRECONDITION } from "./words";

/** Sizes of the drawing, px: a short screen, one that shows the reservoir too, and one with all its room. */
const SMALL = 214;
const MIDDLE = 270;
const LARGE = 310;

/** The ruling for a corner: which way, how far, turn by turn, what to watch, when to stop. */
export function RetractPage() {
  const job = useThisJob();
  const { side: word } = useParams();
  const corner = word === "right" ? job.right : job.left;
  // Each corner has a count and a log of its own.
  return <Corner key={`${job.id} ${corner.side}`} job={job} corner={corner} />;
}

function Corner({ job, corner }: { job: JobView; corner: Schemas["CornerView"] }) {
  const side = corner.side;
  const other: Side = side === "left" ? "right" : "left";
  const navigate = useNavigate();
  const short = useShortScreen();
  const { ruling, travel, reservoir } = corner;
  const known = useQuery({
    queryKey: ["job", job.id, "retraction", side],
    queryFn: () =>
      take(api.GET("/api/jobs/{id}/retraction", { params: { path: { id: job.id }, query: { side } } })),
  });
  const made = known.data?.lines.filter((l) => l.struckBecause === null).map((l) => l.point.turns) ?? [];
  const count = useTurnCount(`${job.id} ${side}`, Math.max(0, ...made));
  const view = useQuery({
    queryKey: ["job", job.id, "retraction", side, count.turns],
    queryFn: () =>
      take(
        api.GET("/api/jobs/{id}/retraction", {
          params: { path: { id: job.id }, query: { side, turnsNow: count.turns } },
        }),
      ),
    placeholderData: keepPreviousData,
  });
  const bench = view.data?.bench;
  const turned = ruling?.turned === true;
  const opposed = ruling?.method === "opposed-push";
  const rounds = view.data?.rounds ?? [];
  const active =
    !!ruling &&
    !corner.pistonHome &&
    (corner.retractOffered || made.length > 0 || rounds.length > 0) &&
    !corner.stop;
  const { note, strike, round, look, tries, stuck } = useRetractCommands(job, side);
  useKeys({
    ...(active ? {} : { Space: () => void navigate(`/jobs/${job.id}`) }),
    r: () => void navigate(`/jobs/${job.id}`),
    o: () => void navigate(`/jobs/${job.id}/retract/${other}`),
  });
  const { title, sub } = jobTitle(job);
  const noun = turned ? "turn" : "stroke";
  return (
    <Shell
      title={title}
      sub={sub}
      keys={
        active && opposed
          ? { O: "The other corner", R: "Run sheet" }
          : active
            ? {
                Space: `Count one ${noun}`,
                H: "Count a half",
                P: "Pause, go on",
                Enter: "Log what a gauge sent",
                O: "The other corner",
                R: "Run sheet",
              }
            : { Space: "To the run sheet", O: "The other corner" }
      }
      info={
        <Link to={`/jobs/${job.id}`} className="flex min-h-11 items-center">
          Run sheet
        </Link>
      }
    >
      <div className="grid h-full grid-cols-[152px_minmax(0,1fr)_588px] max-[1100px]:grid-cols-[124px_minmax(0,1fr)_500px] max-[800px]:flex max-[800px]:flex-col max-[800px]:overflow-auto">
        <div className="max-[800px]:hidden">
          <Spine teeth={job.sheet.spine} stage="retract" />
        </div>
        <section
          className="flex min-h-0 flex-col gap-2 overflow-auto px-4 pt-4 pb-3 max-[800px]:order-2 max-[800px]:shrink-0 max-[800px]:overflow-visible max-[800px]:pb-28"
          aria-label="Drawing"
        >
          <div className="flex items-start justify-between gap-2">
            <div>
              <h2 className="text-[31px] max-[1100px]:text-[26px]">Retract bench, {side} corner</h2>
              <p className="m-0 text-ink-2">{ruling ? ruling.because : "Identify the brake first."}</p>
            </div>
            <Link className="btn flex-shrink-0" to={`/jobs/${job.id}/retract/${other}`}>
              {other === "right" ? "Right" : "Left"} corner
            </Link>
          </div>
          {ruling && view.data && (
            <RulingFace view={view.data} ruling={ruling} size={short ? SMALL : reservoir ? MIDDLE : LARGE} />
          )}
          {bench?.alignment && (
            <p className="m-0 text-[17px]">
              <b>Slot.</b> {bench.alignment.says}
            </p>
          )}
          {view.data && ruling && !corner.pistonHome && (
            <RetractLooks
              view={view.data}
              turned={turned}
              save={(facts) => look.mutate(facts)}
              at={count.turns}
              tried={
                corner.retractOffered && !tries.isPending
                  ? (passes) => tries.mutate({ turns: count.turns, passes })
                  : null
              }
            />
          )}
          <ProblemNote error={look.error ?? tries.error} />
          {bench?.boot && bench.boot.state !== "free" && (
            <div className="flex flex-wrap items-center gap-2">
              <p
                className={`m-0 min-w-[220px] flex-1 text-[17px] ${bench.boot.stop ? "font-bold text-outside" : ""}`}
              >
                {bench.boot.do}
              </p>
              {bench.boot.condemns && !bench.log.stuck && !corner.pistonHome && (
                <button
                  type="button"
                  className="btn btn-stop"
                  disabled={stuck.isPending}
                  onClick={() =>
                    stuck.mutate(`Boot ${BOOT[bench.boot!.state]}.`, {
                      onSuccess: () => void navigate(`/jobs/${job.id}`),
                    })
                  }
                >
                  A new caliper into the plan
                </button>
              )}
            </div>
          )}
          {bench?.sides?.says.map((s) => (
            <p key={s} className="m-0 text-[16px]">
              {s}
            </p>
          ))}
          {reservoir && !corner.pistonHome && (
            <div className="flex items-center justify-between gap-3 border-t border-rule pt-2">
              <p
                className={`m-0 text-[16px] ${reservoir.room.verdict === "draw-off-first" ? "font-bold text-outside" : ""}`}
              >
                {reservoir.says.slice(0, 2).join(" ")}
              </p>
              <Link className="btn flex-shrink-0" to={`/jobs/${job.id}/fluid`}>
                Fluid bench
              </Link>
            </div>
          )}
          {corner.verdicts.length > 0 && !active && <Verdicts verdicts={corner.verdicts} />}
        </section>
        <section
          className="flex min-h-0 flex-col gap-2 overflow-auto border-l-2 border-ink bg-plate px-5 pt-3 pb-3 max-[800px]:shrink-0 max-[800px]:overflow-visible max-[800px]:border-l-0"
          aria-label="Ruling"
        >
          <div className="flex flex-shrink-0 items-start justify-between gap-2">
            <div className="min-w-0">
              <h2 className="text-[31px] max-[1100px]:text-[26px]">{ruling?.headline ?? "No ruling yet"}</h2>
              {travel && !corner.pistonHome && <HowFar travel={travel} opposed={bench?.opposed ?? null} />}
            </div>
            {ruling && (
              <div className="flex flex-shrink-0 gap-2">
                <Dialog.Root>
                  <Dialog.Trigger className="btn">How</Dialog.Trigger>
                  <Overlay title={ruling.headline} wide>
                    <RulingText ruling={ruling} />
                  </Overlay>
                </Dialog.Root>
                <Why
                  reasons={[
                    ruling.reasons,
                    ...(travel ? [travel.reasons] : []),
                    ...(reservoir ? [reservoir.reasons] : []),
                    ...(bench && !opposed ? [bench.log.reasons] : []),
                    ...(bench?.creep ? [bench.creep.reasons] : []),
                    ...(bench?.opposed ? [bench.opposed.inner.reasons, bench.opposed.outer.reasons] : []),
                    ...(bench?.alignment ? [bench.alignment.reasons] : []),
                    ...(bench?.sides ? [bench.sides.reasons] : []),
                  ]}
                />
              </div>
            )}
          </div>
          {corner.pistonHome ? (
            <p className="title m-0 text-[27px] text-inside">The piston is home.</p>
          ) : corner.stop ? null : opposed && bench?.creep ? (
            <PairWindow answer={bench.creep} />
          ) : opposed && active ? (
            <div
              className="min-h-0 flex-1 overflow-auto"
              tabIndex={0}
              role="group"
              aria-label="The ruling in full"
            >
              {ruling && <RulingText ruling={ruling} />}
            </div>
          ) : active || travel ? (
            <CountWindow
              answer={bench?.log}
              count={count}
              turned={turned}
              planned={travel ? { turns: travel.turns, travelMm: travel.travelMm } : null}
              still={!active}
              halt={bench?.boot?.stop ? { name: `Boot ${BOOT[bench.boot.state]}`, do: bench.boot.do } : null}
            />
          ) : (
            ruling && <p className="m-0 text-[18px]">How far follows from the measuring step.</p>
          )}
          {!corner.pistonHome &&
            travel?.warnings.map((w) => (
              <p key={w} className="wrong m-0">
                {w}
              </p>
            ))}
          <StopNote job={job} corner={corner} condemned={bench?.log.stuck} />
          {ruling && !corner.pistonHome && !corner.stop && !corner.retractOffered && (
            <p className="m-0 text-[16px]">
              <b>Not yet.</b>{" "}
              {corner.retractWhyNot[0] ??
                `First: ${ruling.preconditions.map((p) => PRECONDITION[p]).join(", ")}.`}
            </p>
          )}
          {opposed && (active || rounds.length > 0) ? (
            <>
              <RoundPanel
                pistons={view.data?.piston.pistonsPerCaliper ?? 0}
                rounds={rounds}
                active={active && !corner.pistonHome}
                done={bench?.creep?.allHome ?? false}
                note={(pistons) => round.mutateAsync(pistons)}
                error={round.error}
              />
              {active && bench?.creep?.allHome && (
                <Link className="btn-primary" to={`/jobs/${job.id}`}>
                  To the run sheet, and click it on
                </Link>
              )}
              {active && corner.retractOffered && !bench?.creep?.allHome && (
                <StopSigns job={job} corner={corner} />
              )}
            </>
          ) : active || made.length > 0 ? (
            <LogPanel
              answer={bench?.log}
              lines={view.data?.lines ?? []}
              home={view.data?.piston.homeProtrusionMm ?? null}
              turned={turned}
              planned={travel?.turns ?? null}
              count={count}
              active={active}
              note={(point, instrumentId) => note.mutateAsync({ point, instrumentId })}
              strike={(pointId, reason) => strike.mutateAsync({ pointId, reason })}
              stops={
                corner.retractOffered && !bench?.log.findings.length ? (
                  <StopSigns job={job} corner={corner} />
                ) : null
              }
              found={
                bench?.log.stuck && !corner.pistonHome ? (
                  <>
                    <button
                      type="button"
                      className="btn btn-stop mt-2"
                      disabled={stuck.isPending}
                      onClick={() =>
                        stuck.mutate(bench.log.findings[0]?.says ?? "", {
                          onSuccess: () => void navigate(`/jobs/${job.id}`),
                        })
                      }
                    >
                      A new caliper into the plan
                    </button>
                    <ProblemNote error={stuck.error} />
                  </>
                ) : bench?.log.home && !corner.pistonHome ? (
                  <Link className="btn mt-2" to={`/jobs/${job.id}`}>
                    To the run sheet, and click it on
                  </Link>
                ) : null
              }
            />
          ) : (
            <div
              className="min-h-0 flex-1 overflow-auto"
              tabIndex={0}
              role="group"
              aria-label="The ruling in full"
            >
              {ruling && <RulingText ruling={ruling} />}
            </div>
          )}
          {!active && (
            <Link to={ruling ? `/jobs/${job.id}` : `/jobs/${job.id}/look/${side}`} className="btn-primary">
              {ruling ? "To the run sheet" : "Look at this corner"} <span className="keycap">Space</span>
            </Link>
          )}
        </section>
      </div>
    </Shell>
  );
}

/** How far it goes back, and how much fluid that is. */
function HowFar({
  travel,
  opposed,
}: {
  travel: Schemas["TravelResult"];
  opposed: Schemas["OpposedTravel"] | null;
}) {
  const length = useLength();
  return (
    <p className="m-0 text-[18px]">
      {travel.turns !== null && (
        <>
          <b className="text-[22px]">{figure(travel.turns)}</b> turns,{" "}
        </>
      )}
      {opposed ? (
        <>
          Inner <b className="text-[22px]">{length.of(opposed.inner.travelMm)}</b> {length.name}, outer{" "}
          <b className="text-[22px]">{length.of(opposed.outer.travelMm)}</b> {length.name},{" "}
        </>
      ) : (
        <>
          <b className="text-[22px]">{length.of(travel.travelMm)}</b> {length.name},{" "}
        </>
      )}
      {travel.displacedIsLowerBound ? "at least " : ""}
      <b className="text-[22px]">{figure(travel.displacedMl)}</b> mL
    </p>
  );
}
