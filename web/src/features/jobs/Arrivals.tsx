import { useEffect, useRef, useState } from "react";
import type { JobView } from "../../app/api";
import { useSession } from "../../app/hooks";
import { initials } from "../../ui/WhoIsHere";

/** Says aloud what somebody else has done on the job meanwhile: whoever looks sees the sheet move, whoever listens hears it. */
export function Arrivals({ job }: { job: JobView }) {
  const session = useSession().data;
  const known = useRef<Set<string> | null>(null);
  const [says, setSays] = useState("");
  const done = job.sheet.done;
  useEffect(() => {
    const before = known.current;
    known.current = new Set(done.map((d) => d.eventId));
    if (!before) return;
    const here = [session?.me, session?.with].map((p) => p && initials(p.name));
    const fresh = done.filter((d) => !before.has(d.eventId) && !here.includes(d.by));
    if (fresh.length === 0) return;
    // Where two share their initials, these are all that is known here.
    const name = (by: string) => {
      const meant = session?.technicians.filter((t) => initials(t.name) === by) ?? [];
      return meant.length === 1 ? meant[0]!.name : by;
    };
    setSays(fresh.map((d) => `${name(d.by)}: ${d.name}.`).join(" "));
  }, [done, session]);
  return (
    <p role="status" className="sr-only">
      {says}
    </p>
  );
}
