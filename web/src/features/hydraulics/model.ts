import { type Schemas } from "../../app/api";
import { OPENING, type TabId } from "./words";

export type CircuitSplit = NonNullable<Schemas["CircuitSplit"]>;

/** What stands in the fields of the quick fluid bench, read as figures. */
export interface Typed {
  v: Record<string, string>;
  number: (key: string) => number | null;
  sheet: Schemas["SpecSheet"] | null;
}

export const splitOf = ({ v, sheet }: Typed) =>
  (v.split || sheet?.hydraulics?.split || "by-axle") as CircuitSplit;
export const roomRuleOf = ({ v }: Typed) => (v.room ?? "draw-off") as Schemas["FluidRoomRule"];
export const pumpRuleOf = ({ v }: Typed) => (v.pump ?? "half-strokes") as Schemas["PumpRule"];
export const cornerOf = ({ v }: Typed) => (v.corner ?? "left") as "left" | "right" | "both";
export const isMeasured = ({ v }: Typed) => v.from === "sides";

/** Both rear calipers, alike: with no job there is nothing that tells one from the other. */
function corners({ number }: Typed): Schemas["CornerFluid"][] {
  const [bore, travel, need] = [number("bore"), number("travel"), number("need")];
  if (bore === null || travel === null || need === null) return [];
  const pistons = Math.max(Math.trunc(number("pistons") ?? 1), 1);
  return (["left", "right"] as const).map((side) => ({
    side,
    boresMm: Array.from({ length: pistons }, () => bore),
    travelMm: travel,
    needMm: need,
    marginMm: null,
  }));
}

const sheetReservoir = ({ number }: Typed) => ({
  bandMl: number("band") ?? 0,
  headspaceMl: number("head") ?? 0,
});

function reservoir(typed: Typed): Schemas["FluidRequest"]["reservoir"] {
  const { number } = typed;
  const both = corners(typed);
  const level = number("level");
  const measured = isMeasured(typed);
  const wanted = measured ? ["length", "height"] : ["band", "head"];
  if (level === null || both.length === 0 || wanted.some((key) => number(key) === null)) return null;
  return {
    reservoir: measured ? null : sheetReservoir(typed),
    sides: measured
      ? {
          lengthMm: number("length") ?? 0,
          widthMm: number("width"),
          minToMaxMm: number("height") ?? 0,
          maxToBrimMm: number("brim") ?? 0,
          wallMm: number("wall"),
        }
      : null,
    levelPercent: level,
    corners: both,
    room: roomRuleOf(typed),
  };
}

function strokes(typed: Typed, counted: number, firm: boolean): Schemas["FluidRequest"]["strokes"] {
  const { v, number } = typed;
  const both = corners(typed);
  const [master, stroke] = [number("master"), number("stroke")];
  if (master === null || stroke === null || both.length === 0) return null;
  return {
    masterDiameterMm: master,
    masterStrokeMm: stroke,
    split: splitOf(typed),
    rule: pumpRuleOf(typed),
    corners: both,
    simulated: v.simulated === "yes",
    counted: counted === 0 && !firm ? null : counted,
    firm,
  };
}

/** What is asked for a tab: nothing while what it needs is not whole. */
export function fluidRequest(tab: TabId, typed: Typed, counted: number, firm: boolean) {
  const { v, number, sheet } = typed;
  const body: Schemas["FluidRequest"] = {
    reservoir: tab === "reservoir" ? reservoir(typed) : null,
    fluid:
      tab === "fluid"
        ? {
            cap: (v.cap || sheet?.hydraulics?.fluid || "dot4") as NonNullable<Schemas["FluidGrade"]>,
            bottle: (v.bottle || null) as Schemas["FluidGrade"],
            waterPercent: number("water"),
            hottestCelsius: number("hottest"),
          }
        : null,
    strokes: tab === "pedal" ? strokes(typed, counted, firm) : null,
  };
  return body;
}

/** What is asked of the bleeding: what was opened and where, and the draws so far. */
export function bleedRequest(typed: Typed, draws: Schemas["BleedDraw"][]) {
  const { v, number } = typed;
  const corner = cornerOf(typed);
  const sides = corner === "both" ? (["left", "right"] as const) : ([corner] as const);
  const opened = (Object.keys(OPENING) as Schemas["CircuitOpening"][]).filter(
    (what) => v[`open ${what}`] === "yes",
  );
  const level = number("level");
  const body: Schemas["BleedRequest"] = {
    openings: opened.flatMap((what): Schemas["Opening"][] =>
      what === "reservoir-dry" || what === "fluid-shown"
        ? [{ what, side: null }]
        : sides.map((side) => ({ what, side })),
    ),
    order: null,
    rule: (v.bleeding ?? "when-opened") as Schemas["BleedRule"],
    bleed:
      number("band") !== null && level !== null
        ? {
            method: (v.method ?? "two-person") as Schemas["BleedMethod"],
            draws,
            reservoir: sheetReservoir(typed),
            levelPercent: level,
            drawVolumeMl: null,
          }
        : null,
  };
  return body;
}
