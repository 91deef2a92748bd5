import { useDraft } from "../../app/hooks";
import type { Schemas } from "../../app/api";
import { useInstruments } from "../measuring/fields";

type Card = Schemas["ReadingCard"];

/** What each reading of a step is taken with: as last chosen on this device, or the usual one. What is shown is what is recorded. */
export function useStepInstruments() {
  const board = useInstruments().data ?? [];
  const [chosen, choose] = useDraft("step instruments");
  const serving = (card: Card) =>
    board.filter(({ instrument, inDate }) => inDate && card.serving?.includes(instrument.id));
  const of = (card: Card) => {
    if (!card.instrument) return null;
    const fit = serving(card).map((i) => i.instrument.id);
    return [chosen[card.kind], card.instrument].find((id) => id && fit.includes(id)) ?? fit[0] ?? null;
  };
  return { of, choose, serving };
}

/** The readings of a step, each with what it is taken with. */
export function ReadingFields({
  readings,
  values,
  from,
  instruments,
  wrong,
  onType,
  onLast,
}: {
  readings: Card[];
  values: Record<string, string>;
  /** Which bench a figure came from that was not typed here. */
  from: (kind: string) => string | undefined;
  instruments: ReturnType<typeof useStepInstruments>;
  wrong: (kind: string) => string | undefined;
  onType: (kind: string, text: string) => void;
  onLast: () => void;
}) {
  return (
    <div className="grid grid-cols-2 gap-2">
      {readings.map((r, i) => (
        <div key={r.kind} className={readings.length === 1 ? "col-span-2" : ""}>
          <label className="field">
            <span>
              {r.name}
              {r.optional ? ", if counted" : ""}
            </span>
            <span className="!flex items-baseline gap-2 !text-[20px] !text-ink">
              <input
                data-reading={i}
                inputMode="decimal"
                value={values[r.kind] ?? ""}
                aria-invalid={!!wrong(r.kind)}
                onChange={(e) => onType(r.kind, e.target.value)}
                onKeyDown={(e) => {
                  if (e.key !== "Enter") return;
                  // A gauge sends Enter: it moves on and never clicks the step.
                  e.preventDefault();
                  const next = document.querySelector<HTMLElement>(`[data-reading="${i + 1}"]`);
                  if (next) next.focus();
                  else onLast();
                }}
              />
              {r.unit}
            </span>
          </label>
          {wrong(r.kind) && <p className="wrong m-0 mt-1">{wrong(r.kind)}</p>}
          {r.instrument &&
            (from(r.kind) ? (
              <p className="m-0 text-[13px] text-ink-2">{from(r.kind)}</p>
            ) : (
              <select
                className="mt-1 min-h-9 w-full border-0 bg-transparent p-0 text-[14px] text-ink-2"
                aria-label={`${r.name}, measured with`}
                value={instruments.of(r) ?? ""}
                onChange={(e) => instruments.choose(r.kind, e.target.value)}
              >
                {instruments.serving(r).map(({ instrument }) => (
                  <option key={instrument.id} value={instrument.id}>
                    {instrument.name}, {instrument.resolutionMm}
                  </option>
                ))}
              </select>
            ))}
        </div>
      ))}
    </div>
  );
}
