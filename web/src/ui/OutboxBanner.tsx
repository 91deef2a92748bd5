import { useEffect, useState } from "react";
import { Link } from "react-router";
import { api, occurredAt, take } from "../app/api";
import { newId } from "../app/ids";
import { useOutbox, waiting, type Kept } from "../app/kept";
import { forget, probe, tryAgain } from "../app/outbox";

/** Says that the server is silent, what it has not had yet, and what it refused. Nothing waits unseen. */
export function OutboxBanner() {
  const { reachable, heardAt, kept, people } = useOutbox();
  const wait = waiting(kept);
  const refused = kept.filter((k) => k.state === "refused");
  if (reachable && wait.length === 0 && refused.length === 0) return null;
  const others = wait.filter((k) => k.by && people.length > 0 && !people.some((p) => p.id === k.by!.id));
  return (
    <div role="status" className="no-print border-b-2 border-outside bg-plate px-4 py-2 text-[16px]">
      {!reachable && (
        <p className="m-0 flex flex-wrap items-center gap-3 font-bold text-outside">
          <span>
            The workshop&apos;s server does not answer.{" "}
            <span aria-hidden="true">
              <Heard at={heardAt} />
            </span>{" "}
            What you do stays on this device.
          </span>
          <button type="button" className="btn" onClick={() => void probe()}>
            Ask it now
          </button>
        </p>
      )}
      {wait.length > 0 && (
        <p className="m-0">
          <b>Not sent yet, {wait.length}:</b>{" "}
          {wait
            .slice(0, 4)
            .map((k) => k.what)
            .join("; ")}
          {wait.length > 4 && `; and ${wait.length - 4} more`}.{" "}
          {others.length > 0
            ? `What ${others[0]!.by!.name} did waits for them to sign in on this device.`
            : "In this order, as soon as it answers."}
        </p>
      )}
      {refused.map((k) => (
        <Refused key={k.order} entry={k} />
      ))}
    </div>
  );
}

function Heard({ at }: { at: number }) {
  const [now, setNow] = useState(Date.now);
  useEffect(() => {
    const tick = setInterval(() => setNow(Date.now()), 1000);
    return () => clearInterval(tick);
  }, []);
  return <>Last heard {Math.max(0, Math.round((now - at) / 1000))} s ago.</>;
}

/** What was done here and cannot count: it is kept as a note, tried again or let go. It never counts by itself. */
function Refused({ entry }: { entry: Kept }) {
  const [busy, setBusy] = useState(false);
  const asNote = async () => {
    setBusy(true);
    try {
      const job = await take(api.GET("/api/jobs/{id}", { params: { path: { id: entry.jobId } } }));
      await take(
        api.POST("/api/jobs/{id}/notes", {
          params: { path: { id: entry.jobId } },
          body: {
            eventId: newId(),
            expectedVersion: job.version,
            occurredAt: occurredAt(),
            text: `Done while the server was silent, not counted: ${entry.what}. ${entry.says ?? ""}`.slice(
              0,
              500,
            ),
          },
        }),
      );
      await forget(entry.order);
    } finally {
      setBusy(false);
    }
  };
  return (
    <p className="m-0 mt-1 flex flex-wrap items-center gap-2">
      <span className="flex-1">
        <b className="text-outside">Does not count:</b> {entry.what}. {entry.says}
      </span>
      <Link className="btn" to={`/jobs/${entry.jobId}`}>
        Its job
      </Link>
      <button type="button" className="btn" disabled={busy} onClick={() => void tryAgain(entry.order)}>
        Try again
      </button>
      <button type="button" className="btn" disabled={busy} onClick={() => void asNote()}>
        Keep it as a note
      </button>
      <button type="button" className="btn" disabled={busy} onClick={() => void forget(entry.order)}>
        Drop it
      </button>
    </p>
  );
}
