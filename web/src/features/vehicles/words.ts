import type { Schemas } from "../../app/api";

/** What a series is called over its plot. */
export const JUDGED: Record<Schemas["Judged"], string> = {
  "inner-lining": "Inner lining, mm",
  "outer-lining": "Outer lining, mm",
  "rotor-thickness": "Rotor, mm",
  "thickness-variation": "Thickness variation, mm",
  "total-runout": "Runout, mm",
  "drum-diameter": "Drum, mm",
  "drum-out-of-round": "Drum out of round, mm",
  "shoe-lining": "Shoe lining, mm",
};

/** A chance in whole per cent. */
export const chance = (of: number | null) => (of === null ? "not known" : `${Math.round(of * 100)} %`);

export const km = (of: number) => `${of.toLocaleString("en-GB").replaceAll(",", " ")} km`;
