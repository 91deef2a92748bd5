import type { Schemas } from "../../app/api";

export const PRECONDITION: Record<Schemas["RetractPrecondition"], string> = {
  "cable-slack": "cable slack",
  "lever-on-stop": "lever on its stop",
  "puller-in-service": "puller in its service position",
  "spindle-back": "spindle back",
  "room-in-reservoir": "room in the reservoir",
  "parts-compared": "new parts beside old",
  "boot-free": "boot free all round",
};
