import { api, take, type Schemas } from "../../app/api";

export type Facts = Schemas["RotorFacts"];
export type Answer = Schemas["RotorBenchAnswer"];

export const NOTHING: Facts = {
  stamp: null,
  condition: {
    cracks: "not-looked",
    scoringDepthMm: null,
    heatSpots: false,
    shook: false,
    vanes: "none",
    neverMachine: false,
  },
  movedByDeg: null,
  studs: 5,
  possible: null,
};

export const ask = (body: Schemas["RotorRequest"]) => take(api.POST("/api/bench/rotor", { body }));
