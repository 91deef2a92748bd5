import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { api, take, type Schemas } from "../../app/api";
import { ProblemNote } from "../../ui/Problem";
import { Shell } from "../../ui/Shell";
import { Why } from "../../ui/Why";
import { jobTitle, useThisJob } from "../jobs/JobFrame";
import { duration } from "../jobs/words";
import { MARK } from "./words";

/** A run talked over: what was done, what the engines would have done and why, and what came of it. */
export function DebriefPage() {
  const job = useThisJob();
  const debrief = useQuery({
    queryKey: ["debrief", job.id, job.version],
    queryFn: () => take(api.GET("/api/jobs/{id}/debrief", { params: { path: { id: job.id } } })),
  });
  const { title, sub } = jobTitle(job);
  const of = debrief.data;
  // What needs no word is left out: the run sheet has it.
  const lines = of?.lines.filter((l) => l.mark !== "done") ?? [];
  return (
    <Shell
      title={`Talked over: ${title}`}
      sub={sub}
      info={
        <Link to="/practice" className="flex min-h-11 items-center">
          Practice
        </Link>
      }
    >
      <div
        className="mx-auto flex h-full max-w-[980px] flex-col gap-4 overflow-auto p-6 max-[800px]:p-4"
        tabIndex={0}
        role="group"
        aria-label="The run, talked over"
      >
        <ProblemNote error={debrief.error} />
        {of && (
          <>
            <p className={`title m-0 text-[48px] ${of.harms > 0 ? "text-outside" : ""}`}>{verdict(of)}</p>
            <p className="m-0 text-[18px]">
              {duration(of.minutes)} at the car
              {of.planMinutes > 0 && of.minutes > of.planMinutes
                ? `, ${duration(of.planMinutes)} of it in its steps`
                : ""}
              . {of.refused > 0 && `${times(of.refused)} the rules kept harm away. `}
              {of.missed > 0 && `${of.missed === 1 ? "One thing was" : `${of.missed} things were`} missed. `}
              {of.helped > 0 && `What is next was asked ${times(of.helped).toLowerCase()}.`}
            </p>
            {of.shown.length > 0 && (
              <p className="m-0 text-[20px]">
                <b>Shown here:</b> {of.shown.map((c) => c.says.toLowerCase()).join(", ")}.
              </p>
            )}
            <ol className="m-0 list-none p-0">
              {lines.map((l, i) => (
                <li
                  key={i}
                  className="grid grid-cols-[210px_minmax(0,1fr)] gap-4 border-t border-rule py-2 text-[17px] max-[800px]:block"
                >
                  <b className={MARK[l.mark].tone}>{MARK[l.mark].says}</b>
                  <div>
                    <span className="font-semibold">{l.what}</span>
                    {l.says && <p className="m-0">{l.says}</p>}
                    {l.better && <p className="m-0 text-ink-2">{l.better}</p>}
                    {l.why && l.why.length > 0 && (
                      <div className="mt-1">
                        <Why reasons={l.why} label="The reasoning" />
                      </div>
                    )}
                  </div>
                </li>
              ))}
            </ol>
            {lines.length === 0 && <p className="m-0 text-[18px]">Nothing was done that has to be judged.</p>}
            <Link className="btn self-start" to={`/jobs/${job.id}/record`}>
              Open the record
            </Link>
          </>
        )}
      </div>
    </Shell>
  );
}

const times = (n: number) => (n === 1 ? "Once" : n === 2 ? "Twice" : `${n} times`);

const verdict = (of: Schemas["Debrief"]) =>
  of.harms > 0
    ? of.harms === 1
      ? "Harm was done once"
      : `Harm was done ${of.harms} times`
    : of.finished
      ? "Handed over, no harm done"
      : "No harm done, and not handed over";
