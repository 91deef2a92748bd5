import { useQuery } from "@tanstack/react-query";
import { Dialog } from "radix-ui";
import { useState } from "react";
import { useNavigate } from "react-router";
import { api, take, type Side } from "../../app/api";
import { useKeys, useSession } from "../../app/hooks";
import { Overlay } from "../../ui/Overlay";
import { ProblemNote } from "../../ui/Problem";
import { header, type ReadingSource } from "./readings";

/** Puts a quick bench's readings into a job. What was struck out here stays here. */
export function AttachDialog({
  source,
  to,
  facts,
  sided,
}: {
  source: ReadingSource;
  to: (jobId: string, side: Side) => string;
  facts: (jobId: string, side: Side) => Promise<unknown>;
  sided: boolean;
}) {
  const [open, setOpen] = useState(false);
  const [side, setSide] = useState<Side>("left");
  const [error, setError] = useState<unknown>(null);
  const session = useSession();
  const navigate = useNavigate();
  const signedIn = !!session.data?.me;
  const good = source.all.filter((t) => t.struck === null);
  useKeys({ Space: () => good.length > 0 && setOpen(true) });
  const attach = async (jobId: string) => {
    try {
      for (const corner of ["left", "right"] as const) {
        const readings = good.filter((t) => !sided || t.side === corner).map((t) => t.reading);
        if ((sided || corner === side) && readings.length > 0)
          await take(
            api.POST("/api/jobs/{id}/readings", {
              params: { path: { id: jobId } },
              body: { ...header(), side: corner, readings },
            }),
          );
      }
      await facts(jobId, side);
      source.clear();
      void navigate(to(jobId, side));
    } catch (e) {
      setError(e);
    }
  };
  return (
    <Dialog.Root open={open} onOpenChange={setOpen}>
      <Dialog.Trigger className="btn-primary" disabled={good.length === 0}>
        <span>{good.length === 0 ? "Enter the readings" : "Attach to a job"}</span>
        <span className="keycap">Space</span>
      </Dialog.Trigger>
      <Overlay title="Attach to a job">
        {!signedIn && (
          <p className="m-0">Sign in on the bay board first. The readings stay in this browser until then.</p>
        )}
        {signedIn && !sided && <CornerChoice side={side} choose={setSide} />}
        {signedIn && <OpenJobs choose={(jobId) => void attach(jobId)} />}
        <ProblemNote error={error} />
      </Overlay>
    </Dialog.Root>
  );
}

/** Which corner it belongs to. */
export function CornerChoice({ side, choose }: { side: Side; choose: (side: Side) => void }) {
  return (
    <div className="mb-3 grid grid-cols-2 gap-2">
      {(["left", "right"] as const).map((s) => (
        <button
          key={s}
          type="button"
          className="btn capitalize"
          aria-pressed={side === s}
          onClick={() => choose(s)}
        >
          {s} corner
        </button>
      ))}
    </div>
  );
}

/** The jobs that are not finished, as buttons. */
export function OpenJobs({ choose }: { choose: (jobId: string) => void }) {
  const board = useQuery({ queryKey: ["board"], queryFn: () => take(api.GET("/api/board")) });
  return (
    <div className="flex flex-col gap-2">
      {board.data
        ?.filter((b) => b.status !== "finished")
        .map((b) => (
          <button key={b.jobId} type="button" className="btn" onClick={() => choose(b.jobId)}>
            Bay {b.bay}: {b.vehicle.model}, {b.vehicle.plate}
          </button>
        ))}
    </div>
  );
}
