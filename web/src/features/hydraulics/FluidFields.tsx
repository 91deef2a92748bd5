import { ApiError, type Schemas } from "../../app/api";
import { fromSheet, type SheetFigures } from "../measuring/bench/sheet";
import { Choice, FactField } from "../measuring/fields";
import { cornerOf, isMeasured, pumpRuleOf, roomRuleOf, splitOf, type Typed } from "./model";
import { GRADE, METHOD, OPENING, type TabId } from "./words";

/** What one knows, tab by tab: figures from the sheet are marked, and what is wrong stands under its field. */
export function FluidFields({
  tab,
  typed,
  set,
  figures,
  error,
  decision,
  beginAnew,
}: {
  tab: TabId;
  typed: Typed;
  set: (key: string, value: string) => void;
  figures: SheetFigures | null;
  error: Error | null;
  /** Whether it is bled, and why. */
  decision: string[];
  beginAnew: () => void;
}) {
  const { v, sheet } = typed;
  const measured = isMeasured(typed);
  const wrong = (...names: string[]) =>
    error instanceof ApiError ? names.map((n) => error.field(n)).find((m) => m) : undefined;
  const field = (key: string, label: string, index: number, ...names: string[]) => (
    <FactField
      key={key}
      label={label}
      index={index}
      value={v[key] || null}
      wrong={wrong(...names)}
      sheet={fromSheet(figures, key)}
      onChange={(t) => set(key, t ?? "")}
    />
  );
  const select = <T extends string>(
    key: string,
    label: string,
    words: Record<T, string>,
    none?: string,
    said?: string | null,
  ) => (
    <label className="field">
      <span>{!v[key] && said ? `${label}, ${sheet!.code}` : label}</span>
      <select
        value={v[key] || said || (none ? "" : Object.keys(words)[0])}
        onChange={(e) => set(key, e.target.value)}
      >
        {none && <option value="">{none}</option>}
        {(Object.entries(words) as [T, string][]).map(([id, name]) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
      </select>
    </label>
  );
  const pistons = (
    <>
      {field("bore", "Piston diameter, mm", 0, "boresMm")}
      {field("pistons", "Pistons a caliper; 1 if empty", 1)}
      {field("travel", "They go back by, mm", 2, "travelMm")}
      {field("need", "New parts need, mm", 3, "needMm")}
    </>
  );
  return (
    <>
      {tab === "reservoir" && (
        <>
          <Choice
            label="Its volume"
            value={measured ? "sides" : "sheet"}
            options={[
              ["sheet", "from the sheet"],
              ["sides", "measure its sides"],
            ]}
            onChange={(t) => set("from", t)}
          />
          <div className="grid grid-cols-2 gap-2">
            {measured ? (
              <>
                {field("length", "Length or diameter, mm", 4, "lengthMm")}
                {field("width", "Width, mm; empty when round", 5, "widthMm")}
                {field("height", "MIN to MAX, mm", 6, "minToMaxMm")}
                {field("brim", "MAX to the brim, mm", 7, "maxToBrimMm")}
                {field("wall", "Wall, mm", 8, "wallMm")}
              </>
            ) : (
              <>
                {field("band", "MIN to MAX, mL", 4, "reservoir.bandMl")}
                {field("head", "MAX to the brim, mL", 5, "reservoir.headspaceMl")}
              </>
            )}
            {field("level", "Level now, % of MIN to MAX", 9, "levelPercent")}
            {pistons}
          </div>
          <Choice
            label="House rule"
            value={roomRuleOf(typed)}
            options={[
              ["draw-off", "draw off the excess"],
              ["open-bleeder", "bleed screw open"],
            ]}
            onChange={(t) => set("room", t)}
          />
        </>
      )}
      {tab === "pedal" && (
        <>
          <div className="grid grid-cols-2 gap-2">
            {field("master", "Master cylinder bore, mm", 4, "masterDiameterMm")}
            {field("stroke", "Its piston's stroke, mm", 5, "masterStrokeMm")}
            {pistons}
          </div>
          <Choice
            label="Circuits"
            value={splitOf(typed)}
            options={[
              ["by-axle", "both rears on one"],
              ["diagonal", "one rear each"],
            ]}
            onChange={(t) => set("split", t)}
          />
          <Choice
            label="House rule"
            value={pumpRuleOf(typed)}
            options={[
              ["half-strokes", "slow half strokes"],
              ["full-strokes", "full strokes"],
            ]}
            onChange={(t) => set("pump", t)}
          />
          <button
            type="button"
            className="btn"
            aria-pressed={v.simulated === "yes"}
            onClick={() => set("simulated", v.simulated === "yes" ? "no" : "yes")}
          >
            The pedal's feel is simulated
          </button>
        </>
      )}
      {tab === "fluid" && (
        <div className="grid grid-cols-2 gap-2">
          {select("cap", "The cap says", GRADE, "DOT 4 until you say", sheet?.hydraulics?.fluid)}
          {select("bottle", "In the bottle", GRADE, "nothing goes in")}
          {field("water", "Water by test pen, %", 0, "waterPercent")}
          {field("hottest", "Hottest it gets, °C", 1, "hottestCelsius")}
        </div>
      )}
      {tab === "bleed" && (
        <>
          <p className="m-0 text-[15px] text-ink-2">What was opened</p>
          <div className="grid grid-cols-2 gap-2">
            {(Object.entries(OPENING) as [Schemas["CircuitOpening"], string][]).map(([k, name]) => (
              <button
                key={k}
                type="button"
                className="btn"
                aria-pressed={v[`open ${k}`] === "yes"}
                onClick={() => set(`open ${k}`, v[`open ${k}`] === "yes" ? "no" : "yes")}
              >
                {name}
              </button>
            ))}
          </div>
          <Choice
            label="Where"
            value={cornerOf(typed)}
            options={[
              ["left", "left"],
              ["right", "right"],
              ["both", "both"],
            ]}
            onChange={(t) => set("corner", t)}
          />
          <div className="grid grid-cols-2 gap-2">
            {select("method", "How", METHOD)}
            {field("band", "MIN to MAX, mL", 0, "reservoir.bandMl")}
            {field("level", "Level at the first draw, %", 1, "levelPercent")}
            <button type="button" className="btn" onClick={beginAnew}>
              Begin anew
            </button>
          </div>
          {decision.map((s, i) => (
            <p key={s} className={`m-0 text-[18px] ${i === 0 ? "font-bold" : ""}`}>
              {s}
            </p>
          ))}
        </>
      )}
      {tab === "leaks" && (
        <p className="m-0 text-[18px]">
          Corroded pipes and cracked hoses are looked for before the pedal is pressed hard. Hold it hard,
          against the clock; then wash the bleed screw and banjo down, wait, and look again.
        </p>
      )}
    </>
  );
}
