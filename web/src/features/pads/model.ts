import { api, take, type Schemas } from "../../app/api";

export type Facts = Schemas["PadFacts"];
export type Answer = Schemas["PadBenchAnswer"];
export type Spec = Schemas["PadSpec"];

export const NOTHING: Facts = {
  parts: {
    caliper: "behind-axle",
    indicator: true,
    pistonSpring: false,
    pistonPin: false,
    electricSensor: false,
    sensorWornThrough: "not-known",
  },
  frontLeastMm: null,
  answers: [],
  history: [],
  odometerKm: null,
  nextInspectionKm: null,
};

export const ask = (body: Schemas["PadsRequest"]) => take(api.POST("/api/bench/pads", { body }));
