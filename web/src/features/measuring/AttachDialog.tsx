import { useQuery } from "@tanstack/react-query";
import { Dialog } from "radix-ui";
import { useRef, useState } from "react";
import { useNavigate } from "react-router";
import { api, take, type Schemas, type Side } from "../../app/api";
import { useKeys, useSession } from "../../app/hooks";
import { queries } from "../../app/queries";
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
  facts: Partial<Pick<Schemas["AttachBench"], "shoes" | "rotor" | "pads">>;
  sided: boolean;
}) {
  const [open, setOpen] = useState(false);
  const [side, setSide] = useState<Side>("left");
  const session = useSession();
  const navigate = useNavigate();
  const signedIn = !!session.data?.me;
  const good = source.all.filter((t) => t.struck === null);
  useKeys({ Space: () => good.length > 0 && setOpen(true) });
  const { attach, error } = useAttach();
  const corners = (["left", "right"] as const)
    .map((corner) => ({
      side: sided ? corner : side,
      readings: good.filter((t) => (sided ? t.side === corner : corner === side)).map((t) => t.reading),
    }))
    .filter((c) => c.readings.length > 0);
  const put = (jobId: string) =>
    attach(jobId, { side, readings: corners, ...facts }, () => {
      source.clear();
      void navigate(to(jobId, side));
    });
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
        {signedIn && <OpenJobs choose={(jobId) => void put(jobId)} />}
        <ProblemNote error={error} />
      </Overlay>
    </Dialog.Root>
  );
}

/** Puts all of it into a job at once, or nothing. Sent again after an answer that was lost, it is still the same. */
export function useAttach() {
  const [error, setError] = useState<unknown>(null);
  const sent = useRef<{ key: string; header: ReturnType<typeof header> } | null>(null);
  const attach = async (
    jobId: string,
    what: Partial<Schemas["AttachBench"]> & { side: Side },
    done: () => void,
  ) => {
    const key = JSON.stringify([jobId, what]);
    if (sent.current?.key !== key) sent.current = { key, header: header() };
    setError(null);
    try {
      await take(
        api.POST("/api/jobs/{id}/attached", {
          params: { path: { id: jobId } },
          body: {
            readings: [],
            points: [],
            shoes: null,
            rotor: null,
            pads: null,
            ...what,
            ...sent.current.header,
          },
        }),
      );
      done();
    } catch (e) {
      setError(e);
    }
  };
  return { attach, error };
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
  const board = useQuery(queries.board);
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
