import { useEffect, useState } from "react";
import type { Schemas } from "../../app/api";

export type Live = Schemas["ElectricLive"];
type Point = Schemas["TracePoint"];

/** What is drawn of a motion while it runs: each side's currents so far. */
export interface Running {
  left: Point[];
  right: Point[];
}

const NONE: Running = { left: [], right: [] };

/** Listens to the car of a job. What it says last, and the currents since the motion began. */
export function useLive(jobId: string, serves: boolean): { live: Live | null; running: Running } {
  const [live, setLive] = useState<Live | null>(null);
  const [running, setRunning] = useState<Running>(NONE);
  useEffect(() => {
    if (!serves) return;
    const source = new EventSource(`/api/jobs/${jobId}/electric/live`);
    let last = -1;
    source.addEventListener("live", (e: MessageEvent<string>) => {
      const now = JSON.parse(e.data) as Live;
      setLive(now);
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
    source.addEventListener("error", () => setLive(null));
    return () => source.close();
  }, [jobId, serves]);
  return { live, running: live?.running ? running : NONE };
}
