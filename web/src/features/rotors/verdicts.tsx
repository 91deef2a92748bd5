import { api, take } from "../../app/api";
import { useDraft } from "../../app/hooks";
import { VerdictMark } from "../../ui/marks";
import { ProblemNote } from "../../ui/Problem";
import { Why } from "../../ui/Why";
import { figure } from "../jobs/words";
import { Headline, NotPassed, Wanted } from "../measuring/BenchPage";
import { FactField } from "../measuring/fields";
import { NumberLine, SettleNote } from "../measuring/NumberLine";
import { useJudgement, type Reading } from "../measuring/readings";
import { ThicknessRing, VectorDial } from "./drawings";
import { Answer } from "./model";

function RulingLine({ answer }: { answer: Answer }) {
  if (!answer.ruling) return null;
  return (
    <div className="border-t border-rule pt-2">
      <h3 className="text-[27px]">{answer.ruling.says}</h3>
      <p className="m-0 text-[16px]">{answer.ruling.because.join(" ")}</p>
    </div>
  );
}

export function ThicknessVerdict({ answer, readings }: { answer: Answer | undefined; readings: Reading[] }) {
  const t = answer?.thickness;
  if (!t) return <Wanted title="Rotor against its minimum" lacks={answer?.lacks ?? []} />;
  // What becomes of the rotor leads: a thickness that passes passes no rotor.
  const verdict = answer.ruling?.verdict ?? t.minimum.verdict;
  return (
    <>
      <Headline>
        <VerdictMark verdict={verdict} />
        {verdict !== "inside" && <NotPassed />}
        <Why reasons={[t.reasons, t.minimum.reasons, t.variationVerdict.reasons]} />
      </Headline>
      <div className="flex items-end gap-4">
        <span className="huge huge-5">{t.smallestMm.toFixed(3)}</span>
        <span className="pb-2 text-[18px]">
          mm, thinnest
          <br />
          at {figure(t.smallestAtDeg, 0)}°
          {answer.stamp && <span className="block text-[14px] text-ink-2">{answer.stamp.understood}</span>}
        </span>
      </div>
      <NumberLine
        verdict={t.minimum}
        limitName="MIN TH"
        values={readings.filter((r) => r.measurand === "rotor-thickness").map((r) => ({ mm: r.valueMm }))}
      />
      <SettleNote ways={t.settledBy} />
      <p className="m-0 text-[16px]">
        Varies by <b>{figure(t.variationMm, 4)}</b>, limit {figure(t.variationVerdict.limitMm, 3)}:{" "}
        {t.variationVerdict.verdict.replaceAll("-", " ")}.{" "}
        {t.machine.possible ? "Room to machine." : "No room to machine."} {t.notes.join(" ")}
      </p>
      <SettleNote ways={t.variationSettledBy.filter((s) => s.wouldSettle)} />
      <RulingLine answer={answer} />
      <ThicknessRing
        thickness={t}
        readings={readings
          .filter((r) => r.measurand === "rotor-thickness")
          .map((r) => ({ deg: r.directionDeg ?? 0, mm: r.valueMm }))}
      />
    </>
  );
}

export function RunoutVerdict({
  answer,
  studs,
  shown,
  onTurn,
}: {
  answer: Answer | undefined;
  studs: number;
  shown: number;
  onTurn: (studs: number) => void;
}) {
  const run = answer?.first;
  if (!run)
    return (
      <Wanted
        title="Runout: hub or rotor"
        lacks={[
          "Three angles at least, better twelve. Then turn the rotor half a turn on its studs and run the dial again.",
        ]}
      />
    );
  const apart = answer.apart;
  const position = apart?.positions[shown];
  return (
    <>
      <Headline>
        <VerdictMark verdict={position?.verdict ?? run.totalVerdict.verdict} />
        {(position?.verdict ?? run.totalVerdict.verdict) !== "inside" && <NotPassed />}
        <Why reasons={[run.reasons, run.totalVerdict.reasons, ...(apart ? [apart.reasons] : [])]} />
      </Headline>
      <div className="flex items-end gap-4">
        <span className="huge huge-5">{(position?.oncePerTurnMm ?? run.totalMm).toFixed(3)}</span>
        <span className="pb-2 text-[18px]">
          {position ? (
            <>
              mm once per turn
              <br />
              {position.studs === 0
                ? "as it stood"
                : `${position.studs} ${position.studs === 1 ? "stud" : "studs"} on`}
            </>
          ) : (
            <>
              mm, total
              <br />
              limit {figure(run.totalVerdict.limitMm, 3)}
            </>
          )}
        </span>
      </div>
      {apart ? (
        <>
          <div className="flex items-center gap-4">
            <VectorDial apart={apart} studs={studs} shown={shown} onTurn={onTurn} />
            <div className="min-w-0 text-[16px]">
              <p className="m-0">
                Hub <b>{figure(apart.hub.oncePerTurnMm, 3)}</b>, rotor{" "}
                <b>{figure(apart.rotor.oncePerTurnMm, 3)}</b> mm, each in doubt by {figure(apart.doubtMm, 4)}.
              </p>
              <ul className="m-0 mt-2 list-none p-0">
                {apart.positions.map((p) => (
                  <li key={p.studs} className={p.studs === shown ? "font-bold" : ""}>
                    {p.studs} on: {figure(p.oncePerTurnMm, 3)}, {p.verdict.replaceAll("-", " ")}
                    {p.possible ? "" : ", not possible"}
                  </li>
                ))}
              </ul>
            </div>
          </div>
          <h3 className="text-[27px]">{apart.says}</h3>
          <p className="m-0 text-[15px] text-ink-2">{apart.notes.join(" ")}</p>
        </>
      ) : (
        <>
          <p className="m-0 text-[16px]">
            Once per turn <b>{figure(run.oncePerTurnMm, 3)}</b>, high at {figure(run.highAtDeg, 0)}°; the
            rest, {figure(run.residualMm, 3)}, is {run.residualJudged ? "its own shape" : "not judged"}.
          </p>
          <SettleNote ways={run.settledBy} />
          <p className="m-0 text-[16px]">{run.notes.join(" ")}</p>
          {answer.lacks
            .filter((l) => l.includes("second run"))
            .map((l) => (
              <p key={l} className="m-0 font-bold">
                {l}
              </p>
            ))}
        </>
      )}
      <RulingLine answer={answer} />
    </>
  );
}

export function Ruling({ answer }: { answer: Answer | undefined }) {
  const ruling = answer?.ruling;
  if (!ruling) return <Wanted title="What becomes of it" lacks={["The thickness first, then the ruling."]} />;
  return (
    <>
      <Headline>
        <VerdictMark verdict={ruling.verdict} />
        {ruling.verdict !== "inside" && <NotPassed />}
        <Why reasons={[ruling.reasons]} />
      </Headline>
      <p className="title m-0 text-[48px] leading-tight">{ruling.says}</p>
      {ruling.because.map((b) => (
        <p key={b} className="m-0 text-[18px]">
          {b}
        </p>
      ))}
      <SpeckNote />
    </>
  );
}

/** A speck on the hub, and what it makes at the rotor. */
function SpeckNote() {
  const [v, set] = useDraft("speck");
  const body = {
    thicknessMm: Number(v.speck ?? "0.05"),
    hubRadiusMm: Number(v.hub ?? "70"),
    rotorRadiusMm: Number(v.rotor ?? "125"),
  };
  const { answer, error } = useJudgement(
    "speck",
    body,
    (b) => take(api.POST("/api/bench/speck", { body: b })),
    false,
  );
  return (
    <div className="mt-auto border-t border-rule pt-2">
      <h3 className="text-[22px]">A speck on the hub</h3>
      <div className="mt-1 grid grid-cols-3 gap-2">
        {(
          [
            ["speck", "Speck, mm", "0.05"],
            ["hub", "Hub radius, mm", "70"],
            ["rotor", "Rotor radius, mm", "125"],
          ] as const
        ).map(([key, label, usual]) => (
          <FactField key={key} label={label} value={v[key] ?? usual} onChange={(t) => set(key, t ?? "")} />
        ))}
      </div>
      <p className="m-0 mt-1 text-[16px]">{answer?.says}</p>
      <ProblemNote error={error} />
    </div>
  );
}
