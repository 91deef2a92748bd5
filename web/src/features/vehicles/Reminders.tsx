import { useMutation, useQueryClient } from "@tanstack/react-query";
import { Link } from "react-router";
import { api, take, type Schemas } from "../../app/api";
import { ProblemNote } from "../../ui/Problem";

/** A sentence whose days stay whole where its line breaks. */
const whole = (says: string) =>
  says.split(/(\d{4}-\d{2}-\d{2})/).map((part, i) =>
    i % 2 ? (
      <span key={i} className="whitespace-nowrap">
        {part}
      </span>
    ) : (
      part
    ),
  );

/** What comes due, each with its tick. */
export function Reminders({ of, linked = true }: { of: Schemas["Reminder"][]; linked?: boolean }) {
  const client = useQueryClient();
  const tick = useMutation({
    mutationFn: (id: string) => take(api.POST("/api/reminders/done", { body: { id } })),
    onSuccess: (left) => {
      client.setQueryData(["reminders"], left);
      void client.invalidateQueries({ queryKey: ["story"] });
    },
  });
  return (
    <>
      {of.length === 0 && <p className="m-0 text-[17px] text-ink-2">Nothing comes due that is known of.</p>}
      <ul className="m-0 flex list-none flex-col p-0" aria-label="What comes due">
        {of.map((r) => (
          <li key={r.id} className="flex items-center gap-3 border-t border-rule py-2">
            <span className="min-w-0 flex-1 text-[17px]">
              {linked && (
                <span className="step-name block font-semibold">
                  {r.plate ? <Link to={`/vehicles/${encodeURIComponent(r.plate)}`}>{r.about}</Link> : r.about}
                </span>
              )}
              {r.overdue && <b className="text-outside">Overdue. </b>}
              {whole(r.says)}
            </span>
            <button
              type="button"
              className="btn flex-shrink-0"
              disabled={tick.isPending}
              aria-label={`Done: ${r.says}`}
              onClick={() => tick.mutate(r.id)}
            >
              Done
            </button>
          </li>
        ))}
      </ul>
      <ProblemNote error={tick.error} />
    </>
  );
}
