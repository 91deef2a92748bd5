import type { Schemas } from "../../app/api";

export const SEEN: Record<Schemas["Seen"], string> = {
  yes: "Yes",
  no: "No",
  "not-known": "Not known",
  "hand-lever": "Hand lever",
  "foot-pedal": "Foot pedal",
  switch: "Switch",
  "plain-cup": "Plain cup",
  "two-notches": "Two notches",
  cross: "Cross",
  "three-lobes": "Three lobes",
  "v-shape": "V",
};

const NAME: Record<Schemas["Look"], [string, string]> = {
  "cabin-control": ["", ""],
  "brake-by-wire": ["Brake by wire", "Not by wire"],
  "puller-box": ["Puller box", "No puller box"],
  "caliper-lever": ["Cable lever", "No cable lever"],
  "caliper-motor": ["Motor on caliper", "No motor"],
  "plate-cable": ["Cable in plate", "No cable in plate"],
  "plate-motor": ["Motor on plate", "No motor on plate"],
  "second-caliper": ["Second caliper", "No second caliper"],
  "brake-hose": ["Hose is there", "No hose"],
  "hat-hole": ["Plug in the hat", "No plug"],
  "opposed-pistons": ["Opposed", "Not opposed"],
  "rear-hex-plug": ["Hex at back", "No hex"],
  "piston-face": ["", ""],
  "pad-pin": ["Pad pin", "No pad pin"],
  "pad-spring-clip": ["Pad clip", "No pad clip"],
  "push-moves": ["It slides", "It stays put"],
};

export const lookWords = (o: Schemas["Observation"]) =>
  o.seen === "yes" ? NAME[o.look][0] : o.seen === "no" ? NAME[o.look][1] : SEEN[o.seen];
