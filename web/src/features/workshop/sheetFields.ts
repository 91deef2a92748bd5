import { type Schemas } from "../../app/api";
import { type TorqueUnit } from "../../app/units";

export type Sheet = Schemas["SpecSheet"];
type Kind = "text" | "words" | "figure" | "yes" | readonly string[];
const ARCHITECTURES = [
  "",
  "cable-screw",
  "puller-screw",
  "lever-push",
  "motor-push",
  "motor-turn",
  "hat-shoes",
  "puller-hat",
  "motor-hat",
  "fixed-hat",
  "spot-caliper",
  "rear-hex",
  "plain",
  "electric-only",
] as const;
const TURNS = ["", "clockwise", "anticlockwise"] as const;
export const KNOWN = ["not-known", "yes", "no"] as const;
const PAD_ENDS = ["", "leading", "trailing"] as const;
const SENSOR_SIDES = ["", "left", "right", "both"] as const;
const FLUIDS = ["", "dot3", "dot4", "class6", "dot51", "dot5", "mineral-oil"] as const;
const SPLITS = ["", "by-axle", "diagonal"] as const;
export const ROLES = [
  "slide-pin",
  "bracket",
  "rotor-screw",
  "actuator-screw",
  "banjo",
  "bleed-screw",
  "wheel",
  "spot-caliper",
] as const;
export const CLASSES = ["not-known", "c48", "c58", "c88", "c98", "c109", "c129"] as const;

/** Every field of a sheet: where it stands in the format, what it is called, what kind it is. */
export const GROUPS: [string, [string, string, Kind][]][] = [
  [
    "The sheet",
    [
      ["code", "Code", "text"],
      ["title", "What it covers", "text"],
      ["source", "Where the figures come from", "text"],
      ["architecture", "Parking brake", ARCHITECTURES],
    ],
  ],
  [
    "Piston",
    [
      ["piston.diameterMm", "Bore, mm", "figure"],
      ["piston.pistonsPerCaliper", "Pistons a caliper", "figure"],
      ["piston.leadMm", "Travel a turn, mm", "figure"],
      ["piston.homeProtrusionMm", "Proud when home, mm", "figure"],
      ["piston.directionLeft", "Turns home, left", TURNS],
      ["piston.directionRight", "Turns home, right", TURNS],
      ["piston.slots", "Slots in the face", "figure"],
      ["piston.protrusionLimitMm", "Furthest proud, mm", "figure"],
      ["piston.turnsFreelyAtHome", "Turns freely at home", KNOWN],
      ["piston.resealAllowed", "Reseal allowed", KNOWN],
      ["piston.twoStage", "Two stages", "yes"],
      ["piston.otherWayAllowed", "Other direction may be tried", "yes"],
    ],
  ],
  [
    "Pads",
    [
      ["pads.newInnerTotalMm", "New inner, total, mm", "figure"],
      ["pads.newOuterTotalMm", "New outer, total, mm", "figure"],
      ["pads.backingMm", "Backing with shims, mm", "figure"],
      ["pads.minimumLiningMm", "Least lining, mm", "figure"],
    ],
  ],
  [
    "What the pad set carries",
    [
      ["padSet.indicator", "Wear indicator at the", PAD_ENDS],
      ["padSet.pin", "Inner pad has a pin", KNOWN],
      ["padSet.springClip", "Spring into the piston", KNOWN],
      ["padSet.notch", "Notch or arrow", KNOWN],
      ["padSet.sensorAt", "Wear sensor at", SENSOR_SIDES],
    ],
  ],
  [
    "Rotor",
    [
      ["rotor.newThicknessMm", "New, mm", "figure"],
      ["rotor.minimumThicknessMm", "Minimum, mm", "figure"],
      ["rotor.variationLimitMm", "Variation limit, mm", "figure"],
      ["rotor.runoutLimitMm", "Runout limit, mm", "figure"],
      ["rotor.jackingThread", "Jacking thread", "words"],
      ["rotor.hasScrews", "Held by screws", "yes"],
      ["rotor.comesOffWithBracketOn", "Off with bracket on", "yes"],
    ],
  ],
  [
    "Reservoir",
    [
      ["reservoir.bandMl", "MIN to MAX, mL", "figure"],
      ["reservoir.headspaceMl", "MAX to brim, mL", "figure"],
    ],
  ],
  [
    "Fluid and master cylinder",
    [
      ["hydraulics.fluid", "Fluid, by the cap", FLUIDS],
      ["hydraulics.masterDiameterMm", "Master cylinder bore, mm", "figure"],
      ["hydraulics.masterStrokeMm", "Its piston's stroke, mm", "figure"],
      ["hydraulics.split", "Circuits", SPLITS],
      ["hydraulics.bleedOrder", "Order of bleeding", "words"],
    ],
  ],
  [
    "Electric parking brake",
    [
      ["electric.spindleTool", "Spindle drive", "text"],
      ["electric.batteryFloorV", "Battery floor, V", "figure"],
      ["electric.serviceOnGround", "Service on its wheels", "yes"],
      ["electric.noManualRelease", "No manual release", "yes"],
    ],
  ],
  [
    "Drum in the hat",
    [
      ["drum.nominalMm", "New, mm", "figure"],
      ["drum.maximumMm", "Maximum, mm", "figure"],
      ["drum.outOfRoundLimitMm", "Out of round, mm", "figure"],
      ["drum.machineToMm", "Machine to, mm", "figure"],
      ["drum.minimumLiningMm", "Least shoe lining, mm", "figure"],
      ["drum.targetLowMm", "Clearance from, mm", "figure"],
      ["drum.targetHighMm", "Clearance to, mm", "figure"],
      ["drum.lockAndBackOff", "Clicks from lock", "figure"],
      ["drum.anchorDistanceMm", "Centre to anchor, mm", "figure"],
      ["drum.adjusterDistanceMm", "Centre to adjuster, mm", "figure"],
      ["drum.pitchMm", "Adjuster pitch, mm", "figure"],
      ["drum.teeth", "Star wheel teeth", "figure"],
      ["drum.holeAt", "Hole at, o'clock", "figure"],
      ["drum.leftRightPair", "Left and right thread", "yes"],
    ],
  ],
];
export const FITTINGS = ["wear-sensor", "rattle-spring", "hose-bracket", "pin-caps", "hat-plug"] as const;
export const WHOLE = new Set(["electric", "drum", "hydraulics", "padSet"]);

export interface Line {
  role: string;
  perCorner: string;
  d: string;
  p: string;
  cls: string;
  drive: string;
  low: string;
  high: string;
  unit: TorqueUnit | "";
  singleUse: boolean;
  socketReaches: boolean;
  holdingSpanner: boolean;
  then: string;
  reuse: boolean;
  note: string;
  locker: string;
  partNumber: string;
  boltNotes: string;
}

export const at = (sheet: unknown, path: string) =>
  path.split(".").reduce<unknown>((o, k) => (o as Record<string, unknown> | null | undefined)?.[k], sheet);
export const typed = (v: unknown) =>
  v === null || v === undefined ? "" : typeof v === "boolean" ? (v ? "yes" : "no") : String(v);
