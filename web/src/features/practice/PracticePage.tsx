import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Link, useNavigate } from "react-router";
import { api, occurredAt, take, type Schemas } from "../../app/api";
import { newId } from "../../app/ids";
import { ProblemNote } from "../../ui/Problem";
import { Shell } from "../../ui/Shell";
import { duration } from "../jobs/words";
import { CardsWaiting } from "./deck";
import { KeptScenario, OwnScenario } from "./OwnScenario";
import { WAY } from "./words";

/** Learning on a car that is not there: scenarios, cards, one's own runs, and what was shown. */
export function PracticePage() {
  const navigate = useNavigate();
  const client = useQueryClient();
  const home = useQuery({ queryKey: ["practice"], queryFn: () => take(api.GET("/api/practice")) });
  const start = useMutation({
    mutationFn: async ({ scenarioId, way }: { scenarioId: string; way: Schemas["PracticeWay"] }) => {
      const jobId = newId();
      const header = { eventId: newId(), expectedVersion: 0, occurredAt: occurredAt() };
      await take(api.POST("/api/practice/runs", { body: { ...header, jobId, scenarioId, way } }));
      return jobId;
    },
    onSuccess: (jobId) => void navigate(`/jobs/${jobId}`),
  });
  const remove = useMutation({
    mutationFn: (id: string) => take(api.DELETE("/api/practice/runs/{id}", { params: { path: { id } } })),
    onSuccess: () => client.invalidateQueries({ queryKey: ["practice"] }),
  });
  const of = home.data;
  return (
    <Shell title="Practice" sub="on a car that is not there">
      <div className="grid h-full grid-cols-[minmax(0,1fr)_420px] max-[1100px]:grid-cols-[minmax(0,1fr)_360px] max-[900px]:block max-[900px]:overflow-auto">
        <section
          className="flex min-h-0 flex-col gap-2 overflow-auto p-4"
          aria-label="Scenarios"
          tabIndex={0}
        >
          <p className="m-0 text-[17px] text-ink-2">
            Guided shows the plan. Alone hides it: you pick each step, and may ask what is next.
          </p>
          <ProblemNote error={start.error ?? remove.error ?? home.error} />
          {of?.scenarios.map((s) => (
            <article key={s.id} className="flex flex-wrap items-center gap-3 border-t border-rule py-3">
              <div className="min-w-[260px] flex-1">
                <h2 className="text-[24px]">{s.title}</h2>
                <p className="m-0 text-[17px]">
                  {s.vehicle}. “{s.driverSays}”
                </p>
                <p className="m-0 text-[15px] text-ink-2">{s.trains.join(", ")}</p>
              </div>
              {(["guided", "alone"] as const).map((way) => (
                <button
                  key={way}
                  type="button"
                  className="btn"
                  disabled={start.isPending}
                  aria-label={`${WAY[way]}: ${s.title}`}
                  onClick={() => start.mutate({ scenarioId: s.id, way })}
                >
                  {WAY[way]}
                </button>
              ))}
              {of.team && <KeptScenario card={s} />}
            </article>
          ))}
        </section>
        <aside
          className="flex min-h-0 flex-col gap-4 overflow-auto border-l-2 border-ink bg-plate p-5 max-[900px]:border-t-2 max-[900px]:border-l-0"
          aria-label="Cards and what was shown"
          tabIndex={0}
        >
          <div>
            <h2 className="text-[24px]">Cards</h2>
            <p className="m-0 mb-2 text-[17px]">
              {of
                ? `${of.cardsDue} come back today, ${of.cardsNew} are new. One decision each.`
                : "One decision each."}
            </p>
            <CardsWaiting />
            <Link to="/practice/cards" className="btn-primary">
              Deal the cards
            </Link>
          </div>
          {of && of.runs.length > 0 && (
            <div>
              <h2 className="text-[24px]">Your runs</h2>
              {of.runs.map((r) => (
                <div
                  key={r.jobId}
                  className="flex flex-wrap items-center gap-2 border-t border-rule py-2 text-[17px]"
                >
                  <span className="min-w-[150px] flex-1">
                    <b>{r.title}</b>, {WAY[r.way].toLowerCase()}
                    <span className="block text-[15px] text-ink-2">
                      {r.on}, {duration(r.minutes)},{" "}
                      {r.harms === 0 ? "no harm" : r.harms === 1 ? "1 harm" : `${r.harms} harms`}
                    </span>
                  </span>
                  <Link className="btn" to={r.isEnded ? `/jobs/${r.jobId}/debrief` : `/jobs/${r.jobId}`}>
                    {r.isEnded ? "Talk it over" : "Go on"}
                  </Link>
                  <button
                    type="button"
                    className="btn"
                    aria-label={`Delete the run ${r.title}`}
                    disabled={remove.isPending}
                    onClick={() => remove.mutate(r.jobId)}
                  >
                    Delete
                  </button>
                </div>
              ))}
            </div>
          )}
          {of && <Shown cards={of.competences} title="Shown by you" />}
          {of?.team && <OwnScenario />}
          {of?.team && (
            <div>
              <h2 className="text-[24px]">Shown by everybody</h2>
              {of.team.map((t) => (
                <p key={t.name} className="m-0 border-t border-rule py-2 text-[17px]">
                  <b>{t.name}</b>:{" "}
                  {t.competences
                    .filter((c) => c.isShown)
                    .map((c) => `${c.says.toLowerCase()}, ${c.on ?? ""}`)
                    .join("; ") || "nothing yet"}
                </p>
              ))}
            </div>
          )}
        </aside>
      </div>
    </Shell>
  );
}

/** A competence is shown by two different scenarios, alone and without harm, within twelve months. */
function Shown({ cards, title }: { cards: Schemas["CompetenceCard"][]; title: string }) {
  return (
    <div>
      <h2 className="text-[24px]">{title}</h2>
      <p className="m-0 mb-1 text-[15px] text-ink-2">
        In two different scenarios alone, without harm, within twelve months.
      </p>
      <ul className="m-0 list-none p-0 text-[17px]">
        {cards.map((c) => (
          <li key={c.competence} className="flex justify-between gap-3 border-t border-rule py-1">
            <span className={c.isShown ? "font-bold" : ""}>{c.says}</span>
            <span className="whitespace-nowrap">
              {c.isShown ? `shown ${c.on ?? ""}` : c.scenarios === 1 ? "once" : ""}
            </span>
          </li>
        ))}
      </ul>
    </div>
  );
}
