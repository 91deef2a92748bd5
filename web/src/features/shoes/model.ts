import { api, take, type Schemas } from "../../app/api";

export type Facts = Schemas["ShoeFacts"];
export type Answer = Schemas["ShoeBenchAnswer"];
export type Spec = Schemas["DrumSpec"];

export const DIRECTIONS = [0, 45, 90, 135];
export const DEPTHS: ["open-edge" | "near-floor", string][] = [
  ["open-edge", "Open edge"],
  ["near-floor", "Near floor"],
];
export const LININGS: [string, string][] = [
  ["anchor-end", "Anchor end"],
  ["middle", "Middle"],
  ["adjuster-end", "Adjuster end"],
];
export const NOTHING: Facts = {
  stamp: null,
  drumCelsius: null,
  gaugeCelsius: null,
  differenceDoubtKelvin: 0,
  condition: { bondLifted: "not-known", contaminated: "not-known", springsSound: "not-known" },
  clicksBetween: null,
  clicksLeft: null,
};
export const NO_SPEC: Spec = {
  nominalMm: null,
  maximumMm: null,
  outOfRoundLimitMm: null,
  machineToMm: null,
  minimumLiningMm: null,
  targetLowMm: null,
  targetHighMm: null,
  lockAndBackOff: null,
  anchorDistanceMm: null,
  adjusterDistanceMm: null,
  pitchMm: null,
  teeth: null,
  leftRightPair: false,
};
export const SPEC_FIELDS: [keyof Omit<Spec, "leftRightPair">, string][] = [
  ["anchorDistanceMm", "To anchor, mm"],
  ["adjusterDistanceMm", "To adjuster, mm"],
  ["pitchMm", "Pitch, mm"],
  ["teeth", "Teeth"],
  ["targetLowMm", "Target from, mm"],
  ["targetHighMm", "Target to, mm"],
  ["lockAndBackOff", "Lock, clicks"],
  ["nominalMm", "New drum, mm"],
];

export const ask = (body: Schemas["ShoesRequest"]) => take(api.POST("/api/bench/shoes", { body }));
