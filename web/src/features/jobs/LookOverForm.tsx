import { useState } from "react";
import { api, ApiError, take, type JobView, type Schemas, type StepBench } from "../../app/api";
import { useCatalogue, useCommand, useKeys } from "../../app/hooks";
import { ProblemNote } from "../../ui/Problem";
import { BenchFrame, type Rested } from "./BenchFrame";

const WORDS: Record<Schemas["LookOverAnswer"], string> = { yes: "Yes", no: "No", "not-known": "Not known" };

/** The questions before lifting. */
export function LookOverForm({ job, bench, rested }: { job: JobView; bench: StepBench; rested: Rested }) {
  const catalogue = useCatalogue();
  const [answers, setAnswers] = useState<Record<string, Schemas["LookOverAnswer"]>>({});
  const send = useCommand<Schemas["LookOverItem"][]>(job, (h, list) =>
    take(
      api.POST("/api/jobs/{id}/look-over", {
        params: { path: { id: job.id } },
        body: { ...h, answers: list },
      }),
    ),
  );
  const go = () =>
    !send.isPending &&
    rested() &&
    send.mutate(Object.entries(answers).map(([id, answer]) => ({ id, answer })));
  useKeys({ Space: go });
  const questions = catalogue.data?.lookOver ?? [];
  const open = questions.filter((q) => !answers[q.id]).length;
  return (
    <BenchFrame
      bench={bench}
      action={
        <>
          {send.error && !(send.error instanceof ApiError && send.error.problem.errors) && (
            <ProblemNote error={send.error} />
          )}
          <button type="button" className="btn-primary" disabled={send.isPending || open > 0} onClick={go}>
            <span>{open > 0 ? `${open} still to answer` : "Looked over: done"}</span>{" "}
            <span className="keycap">Space</span>
          </button>
        </>
      }
    >
      {questions.map((q) => {
        const wrong = send.error instanceof ApiError ? send.error.field(q.id) : undefined;
        return (
          <fieldset key={q.id} className="m-0 border-0 border-t border-rule p-0 pt-1">
            <legend className="sr-only">{q.question}</legend>
            <div className="flex items-center gap-2">
              <span className="flex-1 text-[16px] leading-tight" aria-hidden="true">
                {q.question}
              </span>
              {(["yes", "no", "not-known"] as const).map((a) => (
                <button
                  key={a}
                  type="button"
                  className="btn min-w-12 justify-center !px-2.5 !text-[17px]"
                  aria-pressed={answers[q.id] === a}
                  onClick={() => setAnswers({ ...answers, [q.id]: a })}
                >
                  {WORDS[a]}
                </button>
              ))}
            </div>
            {wrong && <p className="wrong m-0 mt-1">{wrong}</p>}
          </fieldset>
        );
      })}
    </BenchFrame>
  );
}
