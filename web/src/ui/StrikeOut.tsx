import { useState } from "react";
import { ProblemNote } from "./Problem";

/** Strikes a line out with its reason: nothing noted is ever taken away. */
export function StrikeOut({ strike }: { strike: (reason: string) => Promise<unknown> }) {
  const [asked, setAsked] = useState(false);
  const [reason, setReason] = useState("");
  const [error, setError] = useState<unknown>(null);
  if (!asked)
    return (
      <button type="button" className="btn" onClick={() => setAsked(true)}>
        Strike out
      </button>
    );
  return (
    <form
      className="flex flex-1 flex-wrap gap-2"
      onSubmit={(e) => {
        e.preventDefault();
        strike(reason.trim()).then(() => setAsked(false), setError);
      }}
    >
      <label className="field min-w-[140px] flex-1">
        <span>Why it is wrong</span>
        <input value={reason} onChange={(e) => setReason(e.target.value)} maxLength={200} autoFocus />
      </label>
      <button type="submit" className="btn" disabled={reason.trim() === ""}>
        Strike it out
      </button>
      <ProblemNote error={error} />
    </form>
  );
}
