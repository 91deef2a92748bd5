import { ApiError } from "../app/api";

/** What the server refused, in words, beside the action it belongs to. What was typed stays. */
export function ProblemNote({ error }: { error: unknown }) {
  if (!error) return null;
  if (!(error instanceof ApiError))
    return (
      <p role="alert" className="wrong m-0">
        No answer from the workshop's server. What you typed is still here: try again.
      </p>
    );
  const p = error.problem;
  return (
    <div role="alert" className="rounded border-2 border-outside bg-plate p-3 text-[15px]">
      <p className="m-0 font-bold text-outside">{p.title}</p>
      {p.because?.map((b) => (
        <p key={b} className="m-0 mt-1">
          {b}
        </p>
      ))}
      {p.errors && p.errors.length > 1 && (
        <ul className="m-0 mt-1 list-none p-0">
          {p.errors.slice(1).map((e) => (
            <li key={e.field + e.message}>{e.message}</li>
          ))}
        </ul>
      )}
      {p.since?.map((s) => (
        <p key={s.seq} className="m-0 mt-1">
          {s.by}: {s.what}.
        </p>
      ))}
      {/* What failed on our side is looked up by it; a refusal has said all there is to say. */}
      {p.traceId && p.status >= 500 && (
        <p className="m-0 mt-1">If you tell someone, say this: {p.traceId}.</p>
      )}
      {p.reason === "stale-version" && (
        <p className="m-0 mt-1">What you typed is still here. Look again, then click on.</p>
      )}
    </div>
  );
}
