import { Dialog } from "radix-ui";
import type { Schemas } from "../app/api";
import { Overlay } from "./Overlay";

const KIND: Record<Schemas["ReasonKind"], string> = {
  input: "given",
  default: "default",
  formula: "worked out",
  evidence: "seen",
  conclusion: "so",
};

/** Opens an engine's reasoning: inputs, formulas with their numbers, sources, and which values are defaults. */
export function Why({ reasons, label = "Why" }: { reasons: Schemas["Reasons"][]; label?: string }) {
  return (
    <Dialog.Root>
      <Dialog.Trigger className="btn flex-shrink-0">{label}</Dialog.Trigger>
      <Overlay title="Why" wide>
        {reasons.map((r, k) => (
          <div key={k} className="mb-6">
            <table className="w-full border-collapse text-[15px]">
              <caption className="pb-1 text-left text-ink-2">
                {r.engine}, version {r.version}
              </caption>
              <tbody>
                {r.lines.map((l, i) => (
                  <tr
                    key={i}
                    className={`border-t border-rule align-top ${l.kind === "conclusion" ? "font-bold" : ""}`}
                  >
                    <td
                      className={`w-[90px] py-2 pr-2 ${l.kind === "default" ? "font-bold text-undecided" : "text-ink-2"}`}
                    >
                      {KIND[l.kind]}
                    </td>
                    <td className="w-[150px] py-2 pr-2">{l.kind === "conclusion" ? "" : l.label}</td>
                    <td className="py-2">
                      {l.result}
                      {l.formula && (
                        <div className="text-ink-2">
                          {l.formula} = {l.substituted}
                        </div>
                      )}
                      {l.sourceId && (
                        <a className="block text-[14px] text-measure" href={`/sources#${l.sourceId}`}>
                          source: {l.sourceId}
                        </a>
                      )}
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
            {r.wouldChange.length > 0 && (
              <p className="mt-2 text-[15px]">What would change it: {r.wouldChange.join(" ")}</p>
            )}
          </div>
        ))}
      </Overlay>
    </Dialog.Root>
  );
}
