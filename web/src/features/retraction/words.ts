import type { Schemas } from "../../app/api";

export const PRECONDITION: Record<Schemas["RetractPrecondition"], string> = {
  "cable-slack": "cable slack",
  "lever-on-stop": "lever on its stop",
  "puller-in-service": "puller in its service position",
  "spindle-back": "spindle back",
  "room-in-reservoir": "room in the reservoir",
  "parts-compared": "new parts compared with old",
  "boot-free": "boot free all round",
};

export const BOOT: Record<Schemas["BootState"], string> = {
  free: "free all round",
  wound: "winds up",
  torn: "torn",
  wet: "wet behind",
  bulged: "bulges",
};

/** By feel, where no wrench tells. */
export const FELT: [Schemas["FeltEffort"], string][] = [
  ["easy", "easy"],
  ["firm", "firm"],
  ["hard", "hard"],
];
