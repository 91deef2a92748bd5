import type { Schemas } from "../../app/api";

export const GRADE: Record<Schemas["FluidGrade"] & string, string> = {
  dot3: "DOT 3",
  dot4: "DOT 4",
  class6: "ISO 4925 class 6",
  dot51: "DOT 5.1",
  dot5: "DOT 5 silicone",
  "mineral-oil": "mineral oil",
};

export const METHOD: Record<Schemas["BleedMethod"], string> = {
  "two-person": "two people",
  vacuum: "vacuum",
  gravity: "gravity",
  pressure: "pressure",
  "tube-in-fluid": "tube in fluid",
};

export const OPENING: Record<Schemas["CircuitOpening"], string> = {
  "hose-off": "hose or banjo off",
  "caliper-renewed": "caliper renewed",
  "bleed-screw-opened": "bleed screw opened",
  "pedal-with-piston-out": "pedal pressed, piston out",
  "reservoir-dry": "reservoir ran dry",
  "fluid-shown": "fluid showed somewhere",
};

export const TABS = [
  ["reservoir", "Reservoir"],
  ["pedal", "Pedal"],
  ["fluid", "Fluid"],
  ["bleed", "Bleed"],
  ["leaks", "Leaks"],
] as const;
export type TabId = (typeof TABS)[number][0];
