import { useEffect, useState } from "react";
import type { Schemas } from "../../app/api";
import { isSilent } from "./silence";

export type Live = Schemas["ElectricLive"];
type Point = Schemas["TracePoint"];

/** What is drawn of a motion while it runs: each side's currents so far. */
export interface Running {
  left: Point[];
  right: Point[];
}

const NONE: Running = { left: [], right: [] };

// Looked at as often as a motor's state is sent at rest.
const LOOK_MS = 250;

/** What is heard of the car of a job. */
export interface Heard {
  /** What it said last. */
  live: Live | null;
  /** The currents since the motion began. */
  running: Running;
  /** True where it has been silent for too long: what it said last is not known to hold. */
  lost: boolean;
  /** When it was heard last, by this device's clock; null before. */
  heardAt: Date | null;
}

/** Listens to the car of a job. */
export function useLive(jobId: string, serves: boolean): Heard {
  const [live, setLive] = useState<Live | null>(null);
  const [lost, setLost] = useState(false);
  const [heardAt, setHeardAt] = useState<Date | null>(null);
  const [running, setRunning] = useState<Running>(NONE);
  useEffect(() => {
    if (!serves) return;
    const source = new EventSource(`/api/jobs/${jobId}/electric/live`);
    let last = -1;
    let heard = performance.now();
    let mayRun = false;
    const watch = setInterval(() => setLost(isSilent(heard, performance.now(), mayRun)), LOOK_MS);
    source.addEventListener("live", (e: MessageEvent<string>) => {
      const now = JSON.parse(e.data) as Live;
      heard = performance.now();
      mayRun = now.running !== null || now.mayRun;
      setLive(now);
      setLost(false);
      setHeardAt(new Date());
      const at = now.elapsedS;
      if (now.running === null || at === null) return;
      const add = (points: Point[], currentA: number | null) =>
        currentA === null ? points : [...points, { atS: at, currentA }];
      setRunning((before) => {
        // A new stroke begins at its own zero.
        const from = at < last ? NONE : before;
        last = at;
        return { left: add(from.left, now.leftCurrentA), right: add(from.right, now.rightCurrentA) };
      });
    });
    // A motor that may be running is not forgotten because the line to it was cut.
    source.addEventListener("error", () => (mayRun ? (heard = -Infinity) : setLive(null)));
    return () => {
      clearInterval(watch);
      source.close();
    };
  }, [jobId, serves]);
  return { live, running: live?.running ? running : NONE, lost, heardAt };
}
