import { useState } from "react";
import { api, take, type JobView, type Schemas } from "../../app/api";
import { useCommand, useKeys } from "../../app/hooks";
import { ProblemNote } from "../../ui/Problem";

/** Asks for what comes next, once everybody's hands are clear and the cautions are seen. */
export function Asking({
  job,
  bench,
  action,
}: {
  job: JobView;
  bench: Schemas["ElectricBenchView"];
  action: Schemas["ElectricAction"];
}) {
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
