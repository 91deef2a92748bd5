import type { Schemas } from "../../app/api";
import { FactField } from "../measuring/fields";
import { figure } from "../jobs/words";
import { CaliperSeen } from "./CaliperSeen";
import { BOOT, FELT } from "./words";

type View = Schemas["JobRetractionView"];
type Facts = Schemas["RetractionFacts"];

/** Slot, boot and what was tried: stored as one leaves each. */
export function RetractLooks({
  view,
  turned,
  save,
  at,
  tried,
}: {
  view: View;
  turned: boolean;
  save: (facts: Facts) => void;
  at: number;
  /** Notes a try of the caliper over its pads; null where it cannot be tried now. */
  tried: ((passes: boolean) => void) | null;
}) {
  const facts = view.facts;
  const set = (patch: Partial<Facts>) => save({ ...facts, ...patch });
  const trouble = view.bench.log.findings.some((f) =>
    ["spinning-free", "stopped-short", "stuck"].includes(f.kind),
  );
  const last = view.tries.at(-1);
  const number = (v: string | null) => (v === null ? null : Number(v));
  return (
    <div className="flex flex-col gap-2">
      <div className="flex flex-wrap items-center gap-2">
        {turned && view.piston.slots > 0 && (
          <>
            <div className="w-[116px]">
              <FactField
                label="Slot now, °"
                value={facts.slotAtDeg}
                live={false}
                onChange={(v) => set({ slotAtDeg: number(v), slotAtTurns: v === null ? null : at })}
              />
            </div>
            <div className="w-[132px]">
              <FactField
                label="Slot needed, °"
                value={facts.wantedDeg}
                live={false}
                onChange={(v) => set({ wantedDeg: number(v) })}
              />
            </div>
          </>
        )}
        <label className="field min-w-[176px] flex-1">
          <span>Boot</span>
          <select
            value={facts.boot ?? ""}
            onChange={(e) => set({ boot: (e.target.value || null) as Facts["boot"] })}
          >
            <option value="">not looked at</option>
            {view.boots.map((b) => (
              <option key={b.state} value={b.state}>
                {BOOT[b.state]}
              </option>
            ))}
          </select>
        </label>
        <label className="field w-[124px]">
          <span>It goes</span>
          <select
            value={facts.felt ?? ""}
            onChange={(e) => set({ felt: (e.target.value || null) as Facts["felt"] })}
          >
            <option value="">not felt</option>
            {FELT.map(([felt, word]) => (
              <option key={felt} value={felt}>
                {word}
              </option>
            ))}
          </select>
        </label>
        <div className="flex items-center gap-1">
          <CaliperSeen view={view.bench.view} size={84} />
          <button
            type="button"
            className="btn !px-2"
            onClick={() => set({ place: facts.place === "ahead-of-axle" ? "behind-axle" : "ahead-of-axle" })}
          >
            {facts.place === "ahead-of-axle" ? "Ahead of axle" : "Behind axle"}
          </button>
        </div>
      </div>
      {view.triesOffered && (
        <div className="flex flex-wrap items-center gap-2" role="group" aria-label="Caliper over its pads">
          <p className="m-0 flex-1 text-[17px]">
            <b>Over the pads.</b>{" "}
            {last
              ? `${last.passes ? "It passed" : "It did not pass"} at ${figure(last.turns)} ${turned ? "turns" : "strokes"}.`
              : "A little in, try it, a little more."}
          </p>
          <button type="button" className="btn" disabled={!tried} onClick={() => tried?.(false)}>
            Does not pass
          </button>
          <button type="button" className="btn" disabled={!tried} onClick={() => tried?.(true)}>
            Passes over
          </button>
        </div>
      )}
      {trouble && (
        <div className="flex flex-wrap gap-2">
          <button
            type="button"
            className="btn"
            aria-pressed={facts.pressedHarder}
            onClick={() => set({ pressedHarder: !facts.pressedHarder })}
          >
            More pressure tried
          </button>
          {turned && (
            <button
              type="button"
              className="btn"
              aria-pressed={facts.otherWayTried}
              onClick={() => set({ otherWayTried: !facts.otherWayTried })}
            >
              Direction proved
            </button>
          )}
          <button
            type="button"
            className="btn"
            aria-pressed={facts.roomForFluid === "yes"}
            onClick={() => set({ roomForFluid: facts.roomForFluid === "yes" ? "not-known" : "yes" })}
          >
            Fluid can leave
          </button>
        </div>
      )}
    </div>
  );
}
