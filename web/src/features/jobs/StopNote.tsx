import { Dialog } from "radix-ui";
import { useState } from "react";
import { api, take, type JobView, type Schemas } from "../../app/api";
import { useCommand } from "../../app/hooks";
import { ProblemNote } from "../../ui/Problem";
import { LiftForm } from "../planning/LiftDialog";

/** A stop sign that holds its corner. Where the log condemns the caliper anyway, that stands beside it. */
export function StopNote({
  job,
  corner,
  condemned = false,
}: {
  job: JobView;
  corner: Schemas["CornerView"];
  condemned?: boolean;
}) {
  const [open, setOpen] = useState(false);
  // Where the log condemns it, that is the answer, and what speaks against it is asked for.
  const [asked, setAsked] = useState(false);
  if (!corner.stop || !corner.stopEventId) return null;
  const full = !condemned || asked;
  return (
    <div className="rounded border-2 border-outside p-3">
      <p className="m-0 font-bold text-outside">
        The {corner.side} piston is held: {corner.stopMeans?.name.toLowerCase()}.
      </p>
      {full && (
        <p className="m-0 mt-1 text-[16px]">
          {corner.stopMeans?.means} {corner.stopMeans?.do}
        </p>
      )}
      {corner.stop.note && <p className="m-0 mt-1 text-[16px]">Noted: {corner.stop.note}</p>}
      {full && corner.stopMeans?.goesOn && (
        <SettleStop job={job} corner={corner} goesOn={corner.stopMeans.goesOn} condemned={condemned} />
      )}
      <div className="mt-2 flex flex-wrap gap-2">
        {!full && (
          <button type="button" className="btn" onClick={() => setAsked(true)}>
            It goes on after all
          </button>
        )}
        <Dialog.Root open={open} onOpenChange={setOpen}>
          <Dialog.Trigger className="btn">It was not so: undo it</Dialog.Trigger>
          {open && (
            <LiftForm
              eventId={corner.stopEventId}
              name="stop sign"
              detail=""
              job={job}
              done={() => setOpen(false)}
            />
          )}
        </Dialog.Root>
      </div>
    </div>
  );
}

/** The same caliper goes on, or a new one takes its place: both with what was done. */
function SettleStop({
  job,
  corner,
  goesOn,
  condemned,
}: {
  job: JobView;
  corner: Schemas["CornerView"];
  goesOn: string;
  condemned: boolean;
}) {
  const [what, setWhat] = useState("");
  const settle = useCommand<string>(job, (h, it) =>
    take(
      api.POST("/api/jobs/{id}/stop-signs/settled", {
        params: { path: { id: job.id } },
        body: { ...h, side: corner.side, what: it },
      }),
    ),
  );
  const condemn = useCommand<string>(job, (h, it) =>
    take(
      api.POST("/api/jobs/{id}/findings", {
        params: { path: { id: job.id } },
        body: { ...h, kind: "stuck-piston", side: corner.side, note: it || null },
      }),
    ),
  );
  const busy = settle.isPending || condemn.isPending;
  return (
    <>
      <label className="field mt-2">
        <span>What was done</span>
        <input value={what} maxLength={200} onChange={(e) => setWhat(e.target.value)} />
      </label>
      <ProblemNote error={settle.error ?? condemn.error} />
      <div className="mt-2 flex flex-wrap gap-2">
        <button
          type="button"
          className="btn flex-1"
          disabled={busy}
          onClick={() => settle.mutate(what.trim())}
        >
          {goesOn}
        </button>
        {!condemned && (
          <button
            type="button"
            className="btn flex-1"
            disabled={busy}
            onClick={() => condemn.mutate(what.trim())}
          >
            Condemned: new caliper
          </button>
        )}
      </div>
    </>
  );
}
