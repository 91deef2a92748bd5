import { Dialog } from "radix-ui";
import { useState } from "react";
import { useNavigate } from "react-router";
import { api, take, type Side } from "../../app/api";
import { useSession } from "../../app/hooks";
import { Overlay } from "../../ui/Overlay";
import { ProblemNote } from "../../ui/Problem";
import { CornerChoice, OpenJobs } from "../measuring/AttachDialog";
import { header } from "../measuring/readings";
import type { Kept } from "./QuickLog";

/** Puts a quick log into a job, line by line in its order. What was struck out here stays here. */
export function AttachLog({ lines, drop }: { lines: Kept[]; drop: (ids: string[]) => void }) {
  const [open, setOpen] = useState(false);
  const [side, setSide] = useState<Side>("left");
  const [error, setError] = useState<unknown>(null);
  const session = useSession();
  const navigate = useNavigate();
  const signedIn = !!session.data?.me;
  const attach = async (jobId: string) => {
    const sent: string[] = [];
    try {
      for (const { point, instrumentId } of lines) {
        await take(
          api.POST("/api/jobs/{id}/retraction/points", {
            params: { path: { id: jobId } },
            body: { ...header(), side, point, instrumentId },
          }),
        );
        sent.push(point.id);
      }
      drop(sent);
      void navigate(`/jobs/${jobId}/retract/${side}`);
    } catch (e) {
      // What is in the job already is not offered again.
      drop(sent);
      setError(e);
    }
  };
  return (
    <Dialog.Root open={open} onOpenChange={setOpen}>
      <Dialog.Trigger className="btn" disabled={lines.length === 0}>
        Attach to a job
      </Dialog.Trigger>
      <Overlay title="Attach to a job">
        {!signedIn && (
          <p className="m-0">Sign in on the bay board first. The log stays in this browser until then.</p>
        )}
        {signedIn && (
          <>
            <CornerChoice side={side} choose={setSide} />
            <OpenJobs choose={(jobId) => void attach(jobId)} />
          </>
        )}
        <ProblemNote error={error} />
      </Overlay>
    </Dialog.Root>
  );
}
