import type { Schemas } from "../../app/api";
import { PRECONDITION } from "./words";

/** Everything a ruling says beside its headline. */
export function RulingText({ ruling }: { ruling: Schemas["Ruling"] }) {
  const line = (name: string, words: string[]) =>
    words.length > 0 && (
      <div className="border-t border-rule py-2">
        <h3 className="text-[18px]">{name}</h3>
        {words.map((w) => (
          <p key={w} className="m-0 text-[16px]">
            {w}
          </p>
        ))}
      </div>
    );
  return (
    <div>
      {line("First", [ruling.preconditions.map((p) => PRECONDITION[p]).join(", ") + "."])}
      {line("How, in order", ruling.procedure ?? [])}
      {line("Tool", [ruling.tool + "."])}
      {line("Watch for", ruling.watchFor)}
      {line(
        "When to stop",
        ruling.stops.map((s) => `${s.name}. ${s.do}`),
      )}
      {line("Condemns the caliper", ruling.condemns)}
      {line("Never", ruling.never)}
    </div>
  );
}
