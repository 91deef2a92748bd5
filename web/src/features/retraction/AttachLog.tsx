import { Dialog } from "radix-ui";
import { useState } from "react";
import { useNavigate } from "react-router";
import type { Side } from "../../app/api";
import { useSession } from "../../app/hooks";
import { Overlay } from "../../ui/Overlay";
import { ProblemNote } from "../../ui/Problem";
import { CornerChoice, OpenJobs, useAttach } from "../measuring/AttachDialog";
import type { Kept } from "./QuickLog";

/** Puts a quick log into a job, line by line in its order. What was struck out here stays here. */
export function AttachLog({ lines, drop }: { lines: Kept[]; drop: (ids: string[]) => void }) {
  const [open, setOpen] = useState(false);
  const [side, setSide] = useState<Side>("left");
  const session = useSession();
  const navigate = useNavigate();
  const signedIn = !!session.data?.me;
  const { attach, error } = useAttach();
  const put = (jobId: string) =>
    attach(jobId, { side, points: lines.map(({ point, instrumentId }) => ({ point, instrumentId })) }, () => {
      drop(lines.map((l) => l.point.id));
      void navigate(`/jobs/${jobId}/retract/${side}`);
    });
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
            <OpenJobs choose={(jobId) => void put(jobId)} />
          </>
        )}
        <ProblemNote error={error} />
      </Overlay>
    </Dialog.Root>
  );
}
