import { useMemo, useState } from "react";
import { Link } from "react-router";
import type { ApiError, JobView, StepBench, StepKey } from "../../app/api";
import { useRested } from "../../app/hooks";
import { useOutbox } from "../../app/kept";
import { ProblemNote } from "../../ui/Problem";
import { Shell } from "../../ui/Shell";
import { Spine } from "../../ui/Spine";
import { BenchMenu } from "./BenchMenu";
import { DoneSoFar, PracticePanel } from "../practice/PracticePanel";
import { CarStrip } from "./CarStrip";
import { ChoiceDialog } from "../planning/ChoiceDialog";
import { FoundDialog } from "./FoundDialog";
import { GoalDialog } from "../planning/GoalDialog";
import { jobTitle, useThisJob } from "./JobFrame";
import { Lanes } from "../planning/Lanes";
import { HeldBar, WaitsBar } from "../planning/PartsAwaited";
import { StepPanel } from "./StepPanel";
import { useAwake, useStepFocus } from "./attention";
import { duration } from "./words";

const withoutPlan = (job: JobView): JobView => ({
  ...job,
  sheet: { ...job.sheet, now: null, also: [], ahead: [], holds: [] },
});

const same = (a: StepKey, b: StepKey) => a.stepId === b.stepId && a.side === b.side;

/** Three lanes, holds, spine with the pawl, the bench of the step at hand, and the car strip. */
export function RunSheetPage() {
  const whole = useThisJob();
  // Who practises alone sees no plan: what is next is theirs to say.
  const alone = whole.opened.practice?.way === "alone";
  const job = useMemo(() => (alone ? withoutPlan(whole) : whole), [whole, alone]);
  const { sheet } = job;
  const [chosen, setChosen] = useState<StepKey | null>(null);
  // A choice is made for once: done, or overtaken by something else, it is made anew.
  const [byChoice, setByChoice] = useState<{ bench: StepBench; version: number } | null>(null);
  const [moved, setMoved] = useState<{ error: ApiError; typed: string[] } | null>(null);
  // What was chosen stays at hand as long as it is still offered; then the sheet's own next step is.
  const now: StepBench | null = useMemo(() => {
    if (byChoice?.version === job.version) return byChoice.bench;
    const offered = [whole.sheet.now, ...whole.sheet.also].filter((b): b is StepBench => !!b);
    const picked = chosen && offered.find((b) => same(b.step, chosen));
    return picked || sheet.now;
  }, [whole, sheet, chosen, byChoice, job.version]);
  const also = [sheet.now, ...sheet.also].filter((b): b is StepBench => !!b && b !== now);
  const { title, sub } = jobTitle(job);
  const at = now ? `${now.step.stepId}-${now.step.side}-${now.signed.length}` : "none";
  const rested = useRested(at);
  const two = useOutbox().people.length > 1;
  useStepFocus(at);
  useAwake();
  const panel = (
    <StepPanel
      key={at}
      job={job}
      bench={now}
      rested={rested}
      onMoved={(error, typed) => setMoved({ error, typed })}
    />
  );
  return (
    <Shell
      title={title}
      sub={sub}
      keys={{
        Space: "Step done",
        ...(two ? { "1, 2": "Sign, whichever of the two stands there" } : {}),
        L: "Undo the last step",
        R: "Record",
        Enter: "Next reading field; never clicks a step",
      }}
      info={
        <>
          {!job.opened.practice && (
            <span className="max-[1360px]:hidden">
              Job <b>{job.number}</b>, bay <b>{job.opened.bay}</b>
            </span>
          )}
          {!job.handedOver && !alone && (
            <span className="max-[800px]:hidden">
              <b>{duration(sheet.minutesLeft)}</b> left
            </span>
          )}
          <FoundDialog job={job} />
          <BenchMenu job={job} className="max-[800px]:hidden" />
          <ChoiceDialog
            job={job}
            choose={(bench) => setByChoice({ bench, version: job.version })}
            className="max-[800px]:hidden"
          />
          {job.sheet.goal.goal !== "finish" && (
            <span className="max-[800px]:hidden">
              <GoalDialog job={job} />
            </span>
          )}
          {!alone && (
            <Link to="plan" className="flex min-h-11 items-center">
              Plan
            </Link>
          )}
          <Link to="record" className="flex min-h-11 items-center">
            Record
          </Link>
        </>
      }
    >
      <div className="grid h-full grid-cols-[152px_minmax(0,1fr)_456px] grid-rows-[minmax(0,1fr)_auto] max-[1100px]:grid-cols-[124px_minmax(0,1fr)_372px] max-[800px]:flex max-[800px]:flex-col max-[800px]:overflow-auto max-[800px]:pb-[150px] max-[800px]:[&>*]:flex-none">
        <div className="max-[800px]:hidden">
          <Spine teeth={sheet.spine} stage={now?.stage ?? sheet.stage} />
        </div>
        {alone ? (
          <DoneSoFar job={job} />
        ) : (
          <Lanes
            job={job}
            now={now}
            also={also}
            choose={(step) => {
              setByChoice(null);
              setChosen(step);
            }}
          />
        )}
        <div className="relative flex min-h-0 flex-col border-l-2 border-ink bg-plate max-[800px]:-order-1 max-[800px]:border-l-0">
          {job.imported && (
            <p role="status" className="m-0 border-b-2 border-ink px-4 py-2 text-[17px]">
              A copy, read in by {job.imported.by}: it is looked at here, and goes on where it lives.
            </p>
          )}
          <WaitsBar job={job} />
          {now && <HeldBar job={job} />}
          {moved && (
            <div className="absolute inset-x-3 top-3 z-10 flex flex-col gap-2 rounded bg-plate shadow-lg">
              <ProblemNote error={moved.error} />
              {moved.typed.filter(Boolean).length > 0 && (
                <p className="m-0 px-3">
                  You had typed: {moved.typed.filter(Boolean).join("; ")}. It is kept at that step.
                </p>
              )}
              <button type="button" className="btn mx-3 mb-3" onClick={() => setMoved(null)}>
                OK, understood
              </button>
            </div>
          )}
          {job.opened.practice ? (
            <PracticePanel job={job} bench={now} pick={setChosen}>
              {panel}
            </PracticePanel>
          ) : (
            <div className="min-h-0 flex-1">{panel}</div>
          )}
        </div>
        <div className="col-span-3 max-[800px]:-order-2">
          <div className="flex gap-2 min-[801px]:hidden">
            <BenchMenu job={job} className="!px-4 !text-ink" />
            <ChoiceDialog
              job={job}
              choose={(bench) => setByChoice({ bench, version: job.version })}
              className="!px-4 !text-ink"
            />
          </div>
          <CarStrip facts={sheet.strip} />
        </div>
      </div>
    </Shell>
  );
}
