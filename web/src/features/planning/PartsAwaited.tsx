import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { api, take, type JobView } from "../../app/api";
import { useCommand } from "../../app/hooks";
import { ProblemNote } from "../../ui/Problem";

type Awaited = { what: string; from: string; expected: string | null };

/** The job waits for parts: for what, from where, and what makes the car safe meanwhile. */
export function AwaitForm({ job, back, done }: { job: JobView; back: () => void; done: () => void }) {
  const [what, setWhat] = useState("");
  const [from, setFrom] = useState("");
  const [expected, setExpected] = useState("");
  const wait = useCommand<Awaited>(job, (h, it) =>
    take(
      api.POST("/api/jobs/{id}/parts/awaited", {
        params: { path: { id: job.id } },
        body: { ...h, ...it },
      }),
    ),
  );
  const night = useQuery({
    queryKey: ["overnight", job.id, job.version],
    queryFn: () => take(api.GET("/api/jobs/{id}/overnight", { params: { path: { id: job.id } } })),
  });
  const first = night.data?.names ?? [];
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        wait.mutate(
          { what: what.trim(), from: from.trim(), expected: expected || null },
          { onSuccess: done },
        );
      }}
    >
      <div className="grid grid-cols-2 gap-2 max-[700px]:grid-cols-1">
        <label className="field">
          <span>For what</span>
          <input value={what} maxLength={120} onChange={(e) => setWhat(e.target.value)} />
        </label>
        <label className="field">
          <span>From where</span>
          <input value={from} maxLength={80} onChange={(e) => setFrom(e.target.value)} />
        </label>
        <label className="field">
          <span>Expected, if anybody knows</span>
          <input type="date" value={expected} onChange={(e) => setExpected(e.target.value)} />
        </label>
      </div>
      <p className="m-0 mt-3 text-[17px]">
        {first.length === 0
          ? "The car is safe to be left as it stands. What can be done without the parts is still offered."
          : `Until then it is made safe as for a night: ${first.map((n) => n.toLowerCase()).join(" · ")}. The hose stays shut.`}
      </p>
      <ProblemNote error={wait.error} />
      <div className="mt-3 flex gap-2">
        <button type="button" className="btn flex-1" onClick={back}>
          Something else
        </button>
        <button type="submit" className="btn-primary flex-[2]" disabled={wait.isPending}>
          Wait for parts
        </button>
      </div>
    </form>
  );
}

/** A corner that a stop sign holds, and the way to settle it, above the step at hand. */
export function HeldBar({ job }: { job: JobView }) {
  return (
    <>
      {[job.left, job.right].map(
        (c) =>
          c.stop && (
            <div
              key={c.side}
              role="status"
              className="flex flex-wrap items-center gap-3 border-b-2 border-outside px-4 py-2"
            >
              <span className="min-w-0 flex-1 text-[17px] font-bold text-outside">
                The {c.side} piston is held: {c.stopMeans?.name.toLowerCase()}.
              </span>
              <Link className="btn !min-h-12" to={`/jobs/${job.id}/retract/${c.side}`}>
                Settle it
              </Link>
            </div>
          ),
      )}
    </>
  );
}

/** What the job waits for, above the step at hand. */
export function WaitsBar({ job }: { job: JobView }) {
  const came = useCommand<null>(job, (h) =>
    take(api.POST("/api/jobs/{id}/parts/came", { params: { path: { id: job.id } }, body: h })),
  );
  const parts = job.sheet.awaits;
  if (!parts) return null;
  const since = new Date(parts.since).toLocaleDateString("en-GB", { day: "numeric", month: "short" });
  return (
    <div
      role="status"
      className="flex flex-wrap items-center gap-x-3 gap-y-1 border-b-2 border-ink bg-close/20 px-4 py-0.5"
    >
      <span className="min-w-0 flex-1 text-[15px] leading-[17px]">
        Waits for <b>{parts.what}</b> from {parts.from}, since {since}
        {parts.expected && `, expected ${parts.expected}`}
      </span>
      <button
        type="button"
        className="btn !min-h-12"
        disabled={came.isPending}
        onClick={() => came.mutate(null)}
      >
        Parts are here
      </button>
      <ProblemNote error={came.error} />
    </div>
  );
}
