import { useState } from "react";
import { ApiError, type Schemas } from "../../app/api";
import { typedNumber } from "../../app/units";
import { ProblemNote } from "../../ui/Problem";
import { figure } from "../jobs/words";
import { FactField } from "../measuring/fields";
import { BANKS } from "./OpposedSeen";

type Proud = Schemas["PistonProud"];

const name = (p: { bank: string; number: number }) => `${p.bank === "inner" ? "Inner" : "Outer"} ${p.number}`;

/** Every piston of an opposed caliper, measured again after each push: the round is stored as one. */
export function RoundPanel({
  pistons,
  rounds,
  active,
  done,
  note,
  error,
}: {
  pistons: number;
  rounds: Proud[][];
  active: boolean;
  /** All home: what comes next is the run sheet. */
  done: boolean;
  note: (round: Proud[]) => Promise<unknown>;
  error: unknown;
}) {
  const [typed, setTyped] = useState<Record<string, string>>({});
  const all = Array.from({ length: Math.trunc(pistons / BANKS.length) }, (_, i) => i + 1).flatMap((number) =>
    BANKS.map((bank) => ({ bank, number })),
  );
  const key = (p: { bank: string; number: number }) => `${p.bank} ${p.number}`;
  const value = (p: { bank: string; number: number }) => typedNumber(typed[key(p)] ?? "");
  const missing = all.find((p) => value(p) === null);
  const go = () => {
    if (missing) return;
    void note(all.map((p) => ({ ...p, proudMm: value(p) ?? 0 }))).then(
      () => setTyped({}),
      () => undefined,
    );
  };
  const wrong = error instanceof ApiError ? error.field("nowMm") : undefined;
  return (
    <>
      {rounds.length > 0 && (
        <div
          className="max-h-[170px] min-h-[70px] overflow-auto"
          tabIndex={0}
          role="group"
          aria-label="Rounds so far"
        >
          <table className="w-full border-collapse text-[16px]">
            <caption className="sr-only">Rounds so far, mm proud</caption>
            <thead>
              <tr>
                <th className="text-left font-normal text-ink-2">Round</th>
                {all.map((p) => (
                  <th key={key(p)} className="text-right font-normal text-ink-2">
                    {name(p)}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {rounds
                .map((round, i) => ({ round, i }))
                .reverse()
                .map(({ round, i }) => (
                  <tr key={i} className="border-t border-rule">
                    <td>{i + 1}</td>
                    {all.map((p) => (
                      <td key={key(p)} className="text-right">
                        {figure(round.find((r) => key(r) === key(p))?.proudMm ?? Number.NaN)}
                      </td>
                    ))}
                  </tr>
                ))}
            </tbody>
          </table>
        </div>
      )}
      {active && (
        <form
          className="bench-action mt-auto flex flex-col gap-2"
          onSubmit={(e) => {
            e.preventDefault();
            go();
          }}
        >
          <p className="m-0 text-[15px] text-ink-2">
            {rounds.length === 0
              ? "Before the first push: how far each stands proud, mm. Pair 1 is at the leading end."
              : "After the push: every one of them again, mm."}
          </p>
          <div className="grid grid-cols-4 gap-2">
            {all.map((p, i) => (
              <FactField
                key={key(p)}
                label={name(p)}
                index={i}
                value={typed[key(p)] ?? null}
                onChange={(t) => setTyped({ ...typed, [key(p)]: t ?? "" })}
              />
            ))}
          </div>
          {wrong && <p className="wrong m-0">{wrong}</p>}
          <ProblemNote error={wrong ? null : error} />
          <button type="button" className={done ? "btn" : "btn-primary"} disabled={!!missing} onClick={go}>
            {missing ? "Measure every one" : rounds.length === 0 ? "Note the first round" : "Note this round"}
          </button>
        </form>
      )}
    </>
  );
}
