import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, ApiError, take, type Schemas } from "../../app/api";
import { useSession } from "../../app/hooks";
import { queries } from "../../app/queries";
import { ProblemNote } from "../../ui/Problem";
import { Shell } from "../../ui/Shell";
import { FactField } from "../measuring/fields";

/** Each rule with its schools, why the first is the default, and what a change makes of a sample plan. */
export function HouseRules() {
  const session = useSession();
  const client = useQueryClient();
  const rules = useQuery(queries.houseRules);
  const [draft, setDraft] = useState<Schemas["HouseRules"] | null>(null);
  const now = draft ?? rules.data?.rules;
  const preview = useQuery({
    queryKey: ["house-rules", "preview", now],
    queryFn: () => take(api.POST("/api/workshop/house-rules/preview", { body: now! })),
    enabled: !!now,
    placeholderData: (old) => old,
  });
  const save = useMutation({
    mutationFn: () => take(api.PUT("/api/workshop/house-rules", { body: now! })),
    onSuccess: (v) => {
      client.setQueryData(queries.houseRules.queryKey, v);
      setDraft(null);
    },
  });
  const isLead = session.data?.me?.isLead ?? false;
  const before = rules.data?.samplePlan ?? [];
  const after = preview.data?.samplePlan ?? [];
  const gone = before.filter((s) => !after.includes(s));
  const added = after.filter((s) => !before.includes(s)).length;
  const kept = after.filter((s) => before.includes(s));
  const moved = kept.join() !== before.filter((s) => after.includes(s)).join();
  return (
    <Shell title="House rules" sub="They go into jobs opened from now on">
      <div className="grid h-full grid-cols-[minmax(0,1fr)_400px] max-[800px]:block max-[800px]:overflow-auto">
        <section className="flex min-h-0 flex-col gap-4 overflow-auto p-6" aria-label="Rules">
          {rules.data?.cards.map(({ card }) => {
            const key = card.key as keyof Schemas["HouseRules"];
            return (
              <fieldset key={card.key} className="m-0 border-0 border-t-2 border-ink p-0 pt-2">
                <legend className="sr-only">{card.title}</legend>
                <h2 className="text-[24px]">{card.title}</h2>
                <p className="m-0 mb-2 text-[15px] text-ink-2">
                  {card.changesPlan
                    ? "Changes the order of the work. "
                    : "Changes a ruling, a tool or a consumable. "}
                  {card.whyDefault}
                </p>
                <div className="grid grid-cols-2 gap-2">
                  {card.schools.map((s, i) => (
                    <button
                      key={s.key}
                      type="button"
                      className="btn flex-col !items-start !justify-start py-2"
                      aria-pressed={now?.[key] === s.key}
                      disabled={!isLead}
                      onClick={() => now && setDraft({ ...now, [key]: s.key } as Schemas["HouseRules"])}
                    >
                      <span>
                        {s.says}
                        {i === 0 ? " Default." : ""}
                      </span>
                      <span className="font-sans text-[14px]">{s.changes}</span>
                    </button>
                  ))}
                </div>
                {key === "alignment" && now?.alignment === "back-off-allowed" && isLead && (
                  <div className="mt-2 w-[300px]">
                    <FactField
                      label="Most back-off, degrees; 90 until you say"
                      value={now.backOffLimitDeg ?? null}
                      live={false}
                      wrong={[save.error, preview.error]
                        .map((e) => (e instanceof ApiError ? e.field("backOffLimitDeg") : undefined))
                        .find((m) => m)}
                      onChange={(v) => setDraft({ ...now, backOffLimitDeg: v === null ? null : Number(v) })}
                    />
                  </div>
                )}
              </fieldset>
            );
          })}
          {!isLead && <p className="m-0">The lead sets the house rules.</p>}
        </section>
        <section
          className="flex min-h-0 flex-col gap-2 border-l-2 border-ink bg-plate p-5"
          aria-label="Sample plan"
        >
          <h2 className="text-[24px]">Pads and rotors on a cable caliper</h2>
          <p className="m-0 text-[15px] text-ink-2">With these rules. What comes in is bold.</p>
          <ol tabIndex={0} className="m-0 min-h-0 flex-1 list-decimal overflow-auto pl-9 text-[16px]">
            {preview.data?.samplePlan.map((s, i) => (
              <li key={`${s}-${i}`} className={draft && !before.includes(s) ? "font-bold" : ""}>
                {s}
              </li>
            ))}
          </ol>
          {draft && (
            <p className="m-0 text-[15px]">
              {gone.length > 0 && (
                <>
                  Out: <s>{gone.join(", ").toLowerCase()}</s>.{" "}
                </>
              )}
              {moved && "The order changes. "}
              {gone.length === 0 && !moved && added === 0 && "This plan stays as it is."}
            </p>
          )}
          <ProblemNote error={save.error} />
          <button
            type="button"
            className="btn-primary"
            disabled={!draft || save.isPending}
            onClick={() => save.mutate()}
          >
            {draft ? "Set these rules" : "As they stand"}
          </button>
        </section>
      </div>
    </Shell>
  );
}
