import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { forget, sendAgain, useUnsent, type Unsent } from "../app/unsent";

/** Says that the server is silent and what it has not had yet. Nothing waits unseen. */
export function UnsentBanner() {
  const { reachable, unsent } = useUnsent();
  const [said, setSaid] = useState<string | null>(null);
  if (reachable && unsent.length === 0 && !said) return null;
  return (
    <div role="status" className="no-print border-b-2 border-outside bg-plate px-4 py-2 text-[16px]">
      {!reachable && (
        <p className="m-0 font-bold text-outside">
          The workshop's server does not answer. What you type stays on this device.
        </p>
      )}
      {unsent.map((u) => (
        <Row key={u.eventId} unsent={u} say={setSaid} />
      ))}
      {said && (
        <p className="m-0 flex items-center gap-3">
          {said}
          <button type="button" className="btn !min-h-9 !py-0" onClick={() => setSaid(null)}>
            OK, understood
          </button>
        </p>
      )}
    </div>
  );
}

function Row({ unsent, say }: { unsent: Unsent; say: (text: string | null) => void }) {
  const client = useQueryClient();
  const [busy, setBusy] = useState(false);
  const again = async () => {
    setBusy(true);
    const answer = await sendAgain(unsent);
    setBusy(false);
    if (!answer) return;
    say(answer.ok ? null : `Not recorded: ${unsent.what}. ${answer.title}`);
    await client.invalidateQueries();
  };
  return (
    <p className="m-0 mt-1 flex flex-wrap items-center gap-3">
      <span>
        <b>Not sent:</b> {unsent.what}.
      </span>
      <button type="button" className="btn !min-h-9 !py-0" disabled={busy} onClick={() => void again()}>
        Send again
      </button>
      {unsent.jobId && (
        <Link className="link" to={`/jobs/${unsent.jobId}`}>
          Its job
        </Link>
      )}
      <button type="button" className="btn !min-h-9 !py-0" onClick={() => forget(unsent.eventId)}>
        Drop it
      </button>
    </p>
  );
}
