import type { Schemas } from "../../app/api";
import { VerdictMark } from "../../ui/marks";
import { Why } from "../../ui/Why";
import { figure } from "./words";

/** Verdicts as rows, each with its why. */
export function Verdicts({ verdicts }: { verdicts: Schemas["LimitVerdict"][] }) {
  return (
    <div>
      {verdicts.map((v) => (
        <div key={v.what} className="flex items-center justify-between gap-2 border-t border-rule py-1">
          <span>
            {v.what}: <b>{figure(v.valueMm, 3)}</b> mm, {v.kind === "minimum" ? "least" : "most"}{" "}
            {figure(v.limitMm, 3)}
          </span>
          <span className="flex items-center gap-2">
            <VerdictMark verdict={v.verdict} />
            <Why reasons={[v.reasons]} />
          </span>
        </div>
      ))}
    </div>
  );
}
