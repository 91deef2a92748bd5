import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Dialog } from "radix-ui";
import { useState, type ReactNode } from "react";
import { useNavigate } from "react-router";
import { api, take, type JobView, type Schemas, type StepBench, type StepKey } from "../../app/api";
import { useCommand, useIsCommanding } from "../../app/hooks";
import { Overlay } from "../../ui/Overlay";
import { ProblemNote } from "../../ui/Problem";
import { useStepInstruments } from "../jobs/ReadingFields";
import { duration, figure } from "../jobs/words";
import { HARMED, WAY } from "./words";

/** A practised job beside its run sheet: what its step asks first, what can be touched and read, what happened. */
export function PracticePanel({
  job,
  bench,
  pick,
  children,
}: {
  job: JobView;
  bench: StepBench | null;
  /** Takes a step that may be done to the bench; null goes back to picking. */
  pick: (step: StepKey | null) => void;
  /** The bench of the step at hand. */
  children: ReactNode;
}) {
  const navigate = useNavigate();
  const step = bench?.step;
  const run = useQuery({
    queryKey: ["practice run", job.id, job.version, step?.stepId, step?.side],
    queryFn: () =>
      take(
        api.GET("/api/jobs/{id}/practice", {
          params: {
            path: { id: job.id },
            query: step ? { stepId: step.stepId, ...(step.side ? { side: step.side } : {}) } : {},
          },
        }),
      ),
    placeholderData: (old) => old,
  });
  const client = useQueryClient();
  const isBusy = useIsCommanding(job.id);
  const path = { params: { path: { id: job.id } } };
  const help = useCommand<null>(job, (h) =>
    take(api.POST("/api/jobs/{id}/practice/help", { ...path, body: h })),
  );
  const end = useCommand<null>(job, (h) =>
    take(api.POST("/api/jobs/{id}/practice/end", { ...path, body: h })),
  );
  const of = run.data;
  // It is told as it happens; the debrief has all of it.
  const latest = of?.happened[0];
  const last = latest && latest.happening.seq >= job.version ? latest : undefined;
  if (!of) return <div className="min-h-0 flex-1">{children}</div>;
  return (
    <>
      <div className="flex flex-wrap items-center gap-2 border-b-2 border-ink px-4 py-2 text-[16px]">
        <b className="flex-1 whitespace-nowrap">
          {WAY[of.way]}, {duration(of.minutes)}
        </b>
        {!of.isEnded && <TouchDialog job={job} things={of.things} />}
        {!of.isEnded && of.way === "alone" && bench && (
          <button type="button" className="btn" onClick={() => pick(null)}>
            Another step
          </button>
        )}
        {!of.isEnded && of.way === "alone" && !bench && (
          <button type="button" className="btn" disabled={isBusy} onClick={() => help.mutate(null)}>
            What is next?
          </button>
        )}
        <button
          type="button"
          className="btn"
          disabled={isBusy}
          onClick={() => {
            const away = () => {
              void client.invalidateQueries({ queryKey: ["practice"] });
              void navigate(`/jobs/${job.id}/debrief`);
            };
            if (of.isEnded) away();
            else end.mutate(null, { onSuccess: away });
          }}
        >
          {of.isEnded ? "Talk it over" : "End the run"}
        </button>
      </div>
      <ProblemNote error={help.error ?? end.error} />
      {of.way === "guided" && job.sheet.done.length === 0 && (
        <p className="m-0 border-b border-rule px-4 py-2 text-[18px]">“{of.driverSays}”</p>
      )}
      {last && <Happened key={last.happening.seq} job={job} row={last} />}
      {of.tells && <p className="m-0 border-b border-rule px-4 py-2 text-[18px]">{of.tells}</p>}
      {of.felt && <p className="m-0 border-b border-rule px-4 py-2 text-[18px]">Felt: {of.felt}</p>}
      {bench && bench.readings.length > 0 && !of.isEnded && <Gauges job={job} bench={bench} read={of.read} />}
      {of.way === "alone" && !bench && !of.isEnded ? (
        <Pick job={job} picks={of.picks} pick={pick} />
      ) : of.question && !of.isEnded ? (
        <Question key={`${step?.stepId}-${step?.side}`} job={job} question={of.question} />
      ) : (
        <div className="min-h-0 flex-1">{children}</div>
      )}
    </>
  );
}

/** What is asked before anything shows how it is done. */
function Question({ job, question }: { job: JobView; question: Schemas["PracticeQuestion"] }) {
  const isBusy = useIsCommanding(job.id);
  const answer = useCommand<string>(job, (h, option) =>
    take(
      api.POST("/api/jobs/{id}/practice/answer", {
        params: { path: { id: job.id } },
        body: { ...h, stepId: question.step.stepId, side: question.step.side ?? null, option },
      }),
    ),
  );
  return (
    <div
      className="flex min-h-0 flex-1 flex-col gap-2 overflow-auto px-6 py-4"
      role="group"
      aria-label="Say first how"
    >
      <h2 className="text-[28px]">{question.asks}</h2>
      {question.options.map((o) => (
        <button
          key={o.id}
          type="button"
          className="btn min-h-14 justify-start text-left !text-[20px] whitespace-normal"
          disabled={isBusy}
          onClick={() => answer.mutate(o.id)}
        >
          {o.says}
        </button>
      ))}
      <ProblemNote error={answer.error} />
    </div>
  );
}

/** The latest that happened, with the way back to before it. */
function Happened({ job, row }: { job: JobView; row: Schemas["HappenedRow"] }) {
  const isBusy = useIsCommanding(job.id);
  const back = useCommand<string>(job, (h, target) =>
    take(
      api.POST("/api/jobs/{id}/practice/return", {
        params: { path: { id: job.id } },
        body: { ...h, target },
      }),
    ),
  );
  const { happening, lesson, returnTo } = row;
  return (
    <div role="status" className="border-b-2 border-ink bg-plate px-4 py-3 text-[18px]">
      <b className="text-outside">
        {happening.carried ? HARMED[happening.to] : "Refused; it would have been:"}
      </b>
      <p className="m-0">{happening.says}</p>
      {lesson && <p className="m-0 text-ink-2">{lesson}</p>}
      {returnTo && (
        <button type="button" className="btn mt-2" disabled={isBusy} onClick={() => back.mutate(returnTo)}>
          Back to before it
        </button>
      )}
      <ProblemNote error={back.error} />
    </div>
  );
}

/** Gauges of the step at hand: each shows what the car that is not there has, as well as the gauge can tell. */
function Gauges({ job, bench, read }: { job: JobView; bench: StepBench; read: Schemas["PracticeRead"][] }) {
  const isBusy = useIsCommanding(job.id);
  const take1 = useCommand<{ kind: Schemas["ReadingKind"]; instrumentId: string | null }>(job, (h, body) =>
    take(
      api.POST("/api/jobs/{id}/practice/read", {
        params: { path: { id: job.id } },
        body: { ...h, side: bench.step.side, ...body },
      }),
    ),
  );
  const instruments = useStepInstruments();
  return (
    <div className="flex flex-wrap items-start gap-2 border-b border-rule px-4 py-2 text-[16px]">
      {bench.readings.map((r) => {
        const last = read.filter((x) => x.kind === r.kind).at(-1);
        const serving = instruments.serving(r);
        return (
          <div key={r.kind} className="flex max-w-[240px] flex-col">
            <button
              type="button"
              className="btn"
              disabled={isBusy}
              onClick={() => take1.mutate({ kind: r.kind, instrumentId: instruments.of(r) })}
            >
              {r.name}
              {last ? (
                <b>
                  {figure(last.value, 3)} {r.unit}
                </b>
              ) : (
                ": read"
              )}
            </button>
            {r.instrument && serving.length > 1 && (
              <select
                className="min-h-9 border-0 bg-transparent p-0 text-[14px] text-ink-2"
                aria-label={`${r.name}, read with`}
                value={instruments.of(r) ?? ""}
                onChange={(e) => instruments.choose(r.kind, e.target.value)}
              >
                {serving.map(({ instrument }) => (
                  <option key={instrument.id} value={instrument.id}>
                    {instrument.name}, {instrument.resolutionMm}
                  </option>
                ))}
              </select>
            )}
          </div>
        );
      })}
      <ProblemNote error={take1.error} />
    </div>
  );
}

/** Things that can be touched: what is there is seen by touching it, and some of it misleads. */
function TouchDialog({ job, things }: { job: JobView; things: Schemas["TouchRow"][] }) {
  const isBusy = useIsCommanding(job.id);
  const touch = useCommand<Schemas["TouchRow"]>(job, (h, row) =>
    take(
      api.POST("/api/jobs/{id}/practice/look", {
        params: { path: { id: job.id } },
        body: { ...h, side: row.side, thing: row.thing },
      }),
    ),
  );
  return (
    <Dialog.Root>
      <Dialog.Trigger className="btn">Touch</Dialog.Trigger>
      <Overlay title="Touch and look" wide>
        <div className="grid grid-cols-2 gap-x-6 max-[800px]:grid-cols-1">
          {(["left", "right"] as const).map((side) => (
            <div key={side}>
              <h3 className="text-[22px]">{side === "left" ? "Left" : "Right"}</h3>
              {things
                .filter((t) => t.side === side)
                .map((t) => (
                  <div key={t.thing} className="border-t border-rule py-1 text-[17px]">
                    <button
                      type="button"
                      className="btn"
                      disabled={isBusy}
                      aria-label={`${t.says}, ${side}`}
                      onClick={() => touch.mutate(t)}
                    >
                      {t.says}
                    </button>
                    {t.seen && <p className="m-0 py-1">{t.seen}</p>}
                  </div>
                ))}
            </div>
          ))}
        </div>
        <ProblemNote error={touch.error} />
      </Overlay>
    </Dialog.Root>
  );
}

/** Who works alone sees what was done, and no plan. */
export function DoneSoFar({ job }: { job: JobView }) {
  return (
    <section className="flex min-h-0 flex-col gap-1 overflow-auto p-5" aria-label="Done so far" tabIndex={0}>
      <h2 className="text-[31px]">Done so far</h2>
      <p className="m-0 text-[17px] text-ink-2">“{job.opened.complaint}”</p>
      {job.sheet.done.length === 0 && <p className="m-0 text-[18px]">Nothing yet.</p>}
      {[...job.sheet.done].reverse().map((d) => (
        <p key={d.eventId} className="m-0 border-t border-rule py-1 text-[18px]">
          <b>{d.name}</b>
          {d.lane === "car" ? "" : `, ${d.lane}`} {d.detail}
        </p>
      ))}
    </section>
  );
}

/** Every step there is, by its name: which is next is for the learner to say. */
function Pick({
  job,
  picks,
  pick,
}: {
  job: JobView;
  picks: Schemas["PickRow"][];
  pick: (step: StepKey) => void;
}) {
  const [search, setSearch] = useState("");
  const [refused, setRefused] = useState("");
  const isBusy = useIsCommanding(job.id);
  const choose = useCommand<StepKey>(job, async (h, step) => {
    const answer = await take(
      api.POST("/api/jobs/{id}/practice/pick", {
        params: { path: { id: job.id } },
        body: { ...h, stepId: step.stepId, side: step.side ?? null },
      }),
    );
    setRefused(answer.says);
    if (answer.isAllowed) pick(step);
  });
  const words = search.trim().toLowerCase();
  return (
    <div
      className="flex min-h-0 flex-1 flex-col gap-2 px-4 py-3"
      role="group"
      aria-label="Pick the next step"
    >
      <label className="field">
        <span>What do you do next?</span>
        <input type="search" value={search} maxLength={40} onChange={(e) => setSearch(e.target.value)} />
      </label>
      {refused && (
        <p role="status" className="m-0 text-[17px] text-outside">
          {refused}
        </p>
      )}
      <ProblemNote error={choose.error} />
      <div
        className="flex min-h-0 flex-1 flex-col gap-1 overflow-auto"
        tabIndex={0}
        role="group"
        aria-label="Steps"
      >
        {picks
          .filter((p) => p.says.toLowerCase().includes(words))
          .map((p) => (
            <button
              key={p.says}
              type="button"
              className="btn flex-none justify-start"
              disabled={isBusy}
              onClick={() => choose.mutate(p.step)}
            >
              {p.says}
            </button>
          ))}
      </div>
    </div>
  );
}
