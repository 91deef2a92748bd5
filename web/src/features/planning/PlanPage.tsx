import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { api, take, type JobView, type Schemas, type StepKey } from "../../app/api";
import { useCommand, useDraft, useHand, useSession } from "../../app/hooks";
import { ProblemNote } from "../../ui/Problem";
import { Shell } from "../../ui/Shell";
import { Tick } from "../../ui/Tick";
import { Why } from "../../ui/Why";
import { ChangeText } from "./ChangeText";
import { GoalDialog, useLeave } from "./GoalDialog";
import { jobTitle, useThisJob } from "../jobs/JobFrame";
import { duration, sideWord } from "../jobs/words";

const at = (minutes: number) => `${Math.trunc(minutes / 60)}:${String(minutes % 60).padStart(2, "0")}`;

/** Who does what and when, what to fetch, how the plan changed, and where the job can be left. */
export function PlanPage() {
  const job = useThisJob();
  const [people, setPeople] = useState(2);
  const schedule = useQuery({
    queryKey: ["schedule", job.id, job.version, people],
    queryFn: () =>
      take(api.GET("/api/jobs/{id}/schedule", { params: { path: { id: job.id }, query: { people } } })),
    placeholderData: (old) => old,
  });
  const { title, sub } = jobTitle(job);
  const s = schedule.data;
  const name = (step: StepKey) => {
    const row = job.sheet.ahead.find((a) => a.step.stepId === step.stepId && a.step.side === step.side);
    return `${row?.name ?? step.stepId}${sideWord(step.side)}`;
  };
  return (
    <Shell
      title={title}
      sub={sub}
      info={
        <>
          <span className="max-[800px]:hidden">
            <GoalDialog job={job} />
          </span>
          <Link to={`/jobs/${job.id}/torques`} className="flex min-h-11 items-center">
            Torque card
          </Link>
          <Link to={`/jobs/${job.id}`} className="flex min-h-11 items-center">
            Run sheet
          </Link>
        </>
      }
    >
      <div className="grid h-full grid-cols-[minmax(0,1fr)_400px] max-[1100px]:grid-cols-[minmax(0,1fr)_340px] max-[800px]:block max-[800px]:overflow-auto">
        <section className="flex min-h-0 flex-col gap-3 p-5" aria-label="Who does what">
          <div className="flex items-center gap-5 max-[800px]:flex-wrap">
            <div className="huge whitespace-nowrap max-[1100px]:!text-[72px]">
              {s ? duration(s.minutes) : ""}
            </div>
            <div className="min-w-0 flex-1 text-[17px]">
              {people === 2 ? "to the hand-over, with two" : "to the hand-over, alone"}
              <br />
              {s && (
                <span className="text-ink-2">
                  nothing ends before {duration(s.lowerBound)}: {s.boundBy}
                </span>
              )}
            </div>
            <div className="ml-auto flex flex-shrink-0 flex-col gap-2">
              {[1, 2].map((n) => (
                <button
                  key={n}
                  type="button"
                  className="btn"
                  aria-pressed={people === n}
                  onClick={() => setPeople(n)}
                >
                  {n === 1 ? "One technician" : "Two technicians"}
                </button>
              ))}
              {s && <Why reasons={[s.reasons]} />}
            </div>
          </div>
          <ProblemNote error={schedule.error} />
          <div
            className={`grid min-h-0 flex-1 content-start gap-4 overflow-auto ${people === 2 ? "grid-cols-2" : ""}`}
            tabIndex={0}
            aria-label="Timeline"
          >
            {s &&
              Array.from({ length: s.people }, (_, i) => i + 1).map((person) => (
                <ol key={person} className="m-0 flex list-none flex-col gap-[3px] p-0">
                  {people === 2 && <li className="title text-[20px]">Technician {person}</li>}
                  {lane(s, person).map((r) => (
                    <li
                      key={`${r.start}-${r.says}`}
                      className={`flex items-start gap-3 border-l-[8px] py-1 pl-3 ${r.step ? "border-railline" : "border-dashed border-rule text-ink-2"}`}
                      style={{ minHeight: Math.min(120, Math.max(30, 9 * (r.end - r.start))) }}
                    >
                      <span className="w-12 flex-shrink-0 text-[15px] text-ink-2">{at(r.start)}</span>
                      <span className="min-w-0 flex-1">{r.step ? name(r.step) : `waits: ${r.says}`}</span>
                      <span className="flex-shrink-0 text-[14px] text-ink-2">{r.end - r.start} min</span>
                    </li>
                  ))}
                </ol>
              ))}
          </div>
        </section>
        <section
          className="flex min-h-0 flex-col gap-5 overflow-auto border-l-2 border-ink bg-plate p-5"
          aria-label="Before and after"
        >
          <LayOut job={job} />
          <Beside job={job} />
          <Changes job={job} />
          <Night job={job} />
          <GoalDialog job={job} className="btn w-full min-[801px]:hidden" />
        </section>
      </div>
    </Shell>
  );
}

/** What one person does and waits for, in order. */
function lane(s: Schemas["Schedule"], person: number) {
  const rows: { start: number; end: number; says: string; step?: StepKey }[] = [
    ...s.assignments
      .filter((a) => a.person === person)
      .map((a) => ({ start: a.start, end: a.end, says: a.step.stepId + (a.step.side ?? ""), step: a.step })),
    ...s.waits.filter((w) => w.person === person).map((w) => ({ start: w.start, end: w.end, says: w.for })),
  ];
  return rows.sort((a, b) => a.start - b.start);
}

function LayOut({ job }: { job: JobView }) {
  const [ticked, tick] = useDraft(`${job.id} lay-out`);
  const { tools, parts } = job.sheet.layOut;
  return (
    <div>
      <h2 className="text-[24px]">Lay out first</h2>
      {(
        [
          ["Parts", parts],
          ["Tools", tools],
        ] as const
      )
        .filter(([, things]) => things.length > 0)
        .map(([title, things]) => (
          <fieldset key={title} className="m-0 border-0 p-0">
            <legend className="mt-2 text-[15px] text-ink-2">{title}</legend>
            {things.map((t) => (
              <Tick key={t} checked={ticked[t] === "yes"} onChange={(on) => tick(t, on ? "yes" : "")}>
                <span className={ticked[t] === "yes" ? "text-ink-2 line-through" : ""}>{t}</span>
              </Tick>
            ))}
          </fieldset>
        ))}
    </div>
  );
}

/** Where the house asks for what was shown in practice: who works beside somebody, said by the lead. */
function Beside({ job }: { job: JobView }) {
  const session = useSession().data;
  const hand = useHand();
  const put = useCommand<string>(job, (h, technicianId) =>
    take(
      api.POST("/api/jobs/{id}/beside", { params: { path: { id: job.id } }, body: { ...h, technicianId } }),
    ),
  );
  const beside = job.beside;
  if (!beside) return null;
  const others = session?.technicians.filter((t) => !t.isLead && !beside.includes(t.name)) ?? [];
  return (
    <div>
      <h2 className="text-[24px]">Beside somebody</h2>
      <p className="m-0 text-[17px]">
        {beside.length > 0
          ? `${beside.join(", ")}, on this job.`
          : "Nobody yet: each does alone what they have shown in practice."}
      </p>
      <ProblemNote error={put.error} />
      {hand?.isLead && !job.handedOver && (
        <div className="mt-2 flex flex-wrap gap-2">
          {others.map((t) => (
            <button
              key={t.id}
              type="button"
              className="btn"
              aria-label={`Beside somebody: ${t.name}`}
              disabled={put.isPending}
              onClick={() => put.mutate(t.id)}
            >
              {t.name}
            </button>
          ))}
        </div>
      )}
    </div>
  );
}

function Changes({ job }: { job: JobView }) {
  const changes = [...job.sheet.changes].reverse();
  if (changes.length === 0) return null;
  return (
    <div>
      <h2 className="text-[24px]">How the plan changed</h2>
      {changes.map((c) => (
        <div key={c.eventId} className="border-t border-rule py-2">
          <ChangeText change={c} />
        </div>
      ))}
    </div>
  );
}

/** The shortest safe stopping point, what to tag, and leaving once it is reached. */
function Night({ job }: { job: JobView }) {
  const stop = useQuery({
    queryKey: ["overnight", job.id, job.version],
    queryFn: () => take(api.GET("/api/jobs/{id}/overnight", { params: { path: { id: job.id } } })),
    enabled: !job.handedOver && !job.notCovered && !job.sheet.night,
  });
  const leave = useLeave(job);
  if (job.handedOver || job.notCovered) return null;
  if (job.sheet.night)
    return <p className="m-0 text-[17px]">The job is left overnight. The run sheet says how to come back.</p>;
  const s = stop.data;
  return (
    <div>
      <h2 className="flex items-center gap-3 text-[24px]">
        Leave it overnight {s && <Why reasons={[s.reasons]} />}
      </h2>
      <ProblemNote error={stop.error ?? leave.error} />
      {s && (
        <>
          <p className="title m-0 text-[48px] leading-none">
            {s.cannotBeMet.length > 0 ? "No" : s.steps.length === 0 ? "Yes" : `In ${duration(s.minutes)}`}
          </p>
          <p className="m-0 text-[18px]">
            {s.cannotBeMet.length > 0
              ? `No safe stopping point: ${s.cannotBeMet.join("; ")}.`
              : s.steps.length === 0
                ? s.kind === "assembled"
                  ? "Both sides are together: it can be left as it stands."
                  : "It can be left as it stands, on its stands."
                : `To a safe stop, ${s.kind === "assembled" ? "assembled" : "on stands"}:`}
          </p>
          <ol className="m-0 pl-7 text-[16px]">
            {s.names.map((n, i) => (
              <li key={`${n}-${i}`}>{n}</li>
            ))}
          </ol>
          <p className="mt-2 mb-0 text-[15px] text-ink-2">Tag: {s.tags.join(". ")}.</p>
          <p className="m-0 mb-2 text-[15px] text-ink-2">On return: {s.onReturn.join(". ")}.</p>
          <button
            type="button"
            className="btn w-full"
            disabled={s.steps.length > 0 || s.cannotBeMet.length > 0 || leave.isPending}
            onClick={() => leave.mutate(null)}
          >
            Tagged: leave it
          </button>
        </>
      )}
    </div>
  );
}
