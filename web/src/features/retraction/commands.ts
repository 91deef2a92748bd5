import { api, take, type JobView, type Schemas, type Side } from "../../app/api";
import { useCommand } from "../../app/hooks";

/** What is done at a corner's piston: readings kept and struck out, rounds, looks, half turns tried, a piston given up. */
export function useRetractCommands(job: JobView, side: Side) {
  const note = useCommand<{ point: Schemas["LogPoint"]; instrumentId: string }>(job, (h, body) =>
    take(
      api.POST("/api/jobs/{id}/retraction/points", {
        params: { path: { id: job.id } },
        body: { eventId: h.eventId, occurredAt: h.occurredAt, side, ...body },
      }),
    ),
  );
  const strike = useCommand<{ pointId: string; reason: string }>(job, (h, body) =>
    take(
      api.POST("/api/jobs/{id}/retraction/points/strike", {
        params: { path: { id: job.id } },
        body: { eventId: h.eventId, occurredAt: h.occurredAt, side, ...body },
      }),
    ),
  );
  const round = useCommand<Schemas["PistonProud"][]>(job, (h, pistons) =>
    take(
      api.POST("/api/jobs/{id}/retraction/pistons", {
        params: { path: { id: job.id } },
        body: { eventId: h.eventId, occurredAt: h.occurredAt, side, pistons },
      }),
    ),
  );
  const look = useCommand<Schemas["RetractionFacts"]>(job, (h, facts) =>
    take(
      api.POST("/api/jobs/{id}/retraction/looked", {
        params: { path: { id: job.id } },
        body: { eventId: h.eventId, occurredAt: h.occurredAt, side, facts },
      }),
    ),
  );
  const tries = useCommand<{ turns: number; passes: boolean }>(job, (h, body) =>
    take(
      api.POST("/api/jobs/{id}/retraction/tries", {
        params: { path: { id: job.id } },
        body: { eventId: h.eventId, occurredAt: h.occurredAt, side, ...body },
      }),
    ),
  );
  const stuck = useCommand<string>(job, (h, words) =>
    take(
      api.POST("/api/jobs/{id}/findings", {
        params: { path: { id: job.id } },
        body: { ...h, kind: "stuck-piston", side, note: words },
      }),
    ),
  );
  return { note, strike, round, look, tries, stuck };
}
