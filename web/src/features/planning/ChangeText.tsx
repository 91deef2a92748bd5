import type { Schemas } from "../../app/api";

/** How a plan changed: why, what went out struck through, what came in, what is done once more. */
export function ChangeText({ change }: { change: Schemas["ChangeRow"] }) {
  return (
    <div className="text-[15px]">
      <p className="m-0 font-bold">{change.because}</p>
      {change.gone.length > 0 && (
        <p className="m-0 text-ink-2">
          Out: <s>{change.gone.join(", ").toLowerCase()}</s>
        </p>
      )}
      {change.added.length > 0 && (
        <p className="m-0">
          In: <ins className="no-underline">{change.added.join(", ").toLowerCase()}</ins>
        </p>
      )}
      {change.again.length > 0 && (
        <p className="m-0">
          Once more: <b>{change.again.join(", ").toLowerCase()}</b>
        </p>
      )}
    </div>
  );
}
