import type { Schemas, Side } from "../../app/api";
import { figure } from "../jobs/words";

/** What may be asked of a car that is not there, as its fault is called. */
export const FAULT: Record<Schemas["CarFault"], string> = {
  "weak-battery": "Weak battery",
  "charger-off": "Charger gives nothing",
  "unplugged-left": "Left actuator unplugged",
  "unplugged-right": "Right actuator unplugged",
  seized: "Left spindle seized",
  dry: "Left spindle dry",
  "pads-drag": "Left pads drag",
  "one-slow": "Right motor slow",
  "fuse-blown": "Fuse blown",
  "pads-missing": "Right pads missing",
  "not-pumped": "Pedal not pumped",
  "on-the-spindle": "Left piston on its spindle",
  "door-opened": "A door opens",
  "clamps-again": "Clamps again by itself",
  "service-fails-right": "Service fails on the right",
  "link-lost": "Link lost in the middle",
  "wrong-brake": "Reports another brake",
  "code-stays": "A code that stays",
};

/** What a routine means while it runs. */
export const MOVING: Record<Schemas["ElectricAct"], string> = {
  "read-codes": "Reading codes",
  release: "Releasing",
  "into-service": "Going into service",
  close: "Closing, both sides",
  apply: "Applying",
  cycle: "Cycling",
  "clear-codes": "Clearing codes",
};

/** A clamping force. */
export const kilonewtons = (newtons: number, decimals = 0) => figure(newtons / 1000, decimals);

export const SIDES: [Side, string][] = [
  ["left", "Left"],
  ["right", "Right"],
];
