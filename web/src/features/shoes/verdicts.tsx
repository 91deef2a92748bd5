import { type Schemas } from "../../app/api";
import { VerdictMark } from "../../ui/marks";
import { Why } from "../../ui/Why";
import { figure } from "../jobs/words";
import { Headline, NotPassed, Wanted } from "../measuring/BenchPage";
import { NumberLine, SettleNote } from "../measuring/NumberLine";
import { type Reading } from "../measuring/readings";
import { ClicksPlot, DrumSection, StarWheel } from "./DrumSection";
import { Answer } from "./model";

export function DrumVerdict({
  answer,
  readings,
  measurand,
}: {
  answer: Answer | undefined;
  readings: Reading[];
  measurand: Schemas["Measurand"];
}) {
  const d = answer?.drum;
  if (!d) return <Wanted title="Drum against its maximum" lacks={answer?.lacks ?? []} />;
  return (
    <>
      <Headline>
        <VerdictMark verdict={d.maximum.verdict} />
        {d.maximum.verdict !== "inside" && <NotPassed />}
        <Why reasons={[d.reasons, d.maximum.reasons, d.outOfRoundVerdict.reasons]} />
      </Headline>
      <div className="flex items-end gap-4">
        <span className="huge huge-5">{d.largestMm.toFixed(2)}</span>
        <span className="pb-2 text-[18px]">
          mm, largest
          <br />
          <b>{figure(Math.abs(d.maximum.limitMm - d.largestMm), 2)}</b>{" "}
          {d.largestMm > d.maximum.limitMm ? "over" : "under"} the maximum
          {answer.stamp && <span className="block text-[14px] text-ink-2">{answer.stamp.understood}</span>}
        </span>
      </div>
      <NumberLine
        verdict={d.maximum}
        limitName="MAX DIA"
        values={readings
          .filter((r) => r.measurand === measurand)
          .map((r) => ({ mm: r.valueMm - d.correctionMm, hollow: r.place === "near-floor" }))}
      />
      <SettleNote ways={d.settledBy} />
      <p className="m-0 text-[16px]">
        Out of round <b>{figure(d.outOfRoundMm, 3)}</b>, limit {figure(d.outOfRoundLimitMm, 2)}:{" "}
        {d.outOfRoundVerdict.verdict.replaceAll("-", " ")}.
        {d.taperMm !== null && ` Taper ${figure(d.taperMm, 3)}.`}
        {d.correctionMm !== 0 && ` Corrected by ${figure(d.correctionMm, 3)} to 20 °C.`}{" "}
        {d.machine.possible
          ? `Room to machine, up to ${figure(d.machine.machineToMm, 2)}.`
          : "No room to machine."}
      </p>
      {answer.ridge && <p className="m-0 text-[18px] font-bold">{answer.ridge.says}</p>}
      <p className="m-0 text-[15px] text-ink-2">
        {[...answer.lacks.filter((l) => l.includes("differ")), ...d.notes].join(" ")}
      </p>
      <DrumSection
        drum={d}
        readings={readings
          .filter((r) => r.measurand === measurand && r.place === d.largestAt.depth)
          .map((r) => ({ directionDeg: r.directionDeg ?? 0, mm: r.valueMm }))}
        gap={answer.gap}
      />
    </>
  );
}

export function LiningVerdict({
  shoes,
  readings,
}: {
  shoes: Schemas["ShoesVerdict"] | null;
  readings: Reading[];
}) {
  if (!shoes)
    return (
      <Wanted title="Linings against their minimum" lacks={["Both ends and the middle of each shoe."]} />
    );
  return (
    <>
      <Headline>
        <VerdictMark verdict={shoes.verdict} />
        {shoes.verdict !== "inside" && <NotPassed />}
        <Why reasons={[shoes.reasons, shoes.lining.reasons]} />
      </Headline>
      <div className="flex items-end gap-4">
        <span className="huge">{shoes.thinnestMm.toFixed(2)}</span>
        <span className="pb-2 text-[18px]">
          mm, thinnest
          <br />
          {shoes.thinnestAt.shoe} shoe, {shoes.thinnestAt.point.replaceAll("-", " ")}
        </span>
      </div>
      <NumberLine
        verdict={shoes.lining}
        limitName="LEAST"
        values={readings.filter((r) => r.measurand === "shoe-lining").map((r) => ({ mm: r.valueMm }))}
      />
      <SettleNote ways={shoes.settledBy} />
      {shoes.notes.map((n) => (
        <p key={n} className="m-0 text-[16px]">
          {n}
        </p>
      ))}
    </>
  );
}

export function ClicksVerdict({
  answer,
  teeth,
  shown,
  onTurn,
  sides,
}: {
  answer: Answer | undefined;
  teeth: number | null;
  shown: number;
  onTurn: (by: number) => void;
  sides: Schemas["SidesVerdict"] | null;
}) {
  const c = answer?.clearance;
  if (!c)
    return (
      <Wanted
        title="Clicks to the target"
        lacks={[
          ...(answer?.lacks ?? []),
          "The diameter over the shoes, and the drum it goes into; the adjuster's figures.",
        ]}
      />
    );
  const left = c.clearanceMm - shown * c.perClickMm;
  return (
    <>
      <Headline>
        <span className="flex items-center gap-2">
          <VerdictMark verdict={c.verdict} /> <span className="text-[16px]">the band, as it stands now</span>
        </span>
        <Why reasons={[c.reasons, ...(answer.gap ? [answer.gap.reasons] : [])]} />
      </Headline>
      <div className="flex items-end gap-4">
        <span className="huge">{Math.abs(c.clicks)}</span>
        <h3 className="pb-3 text-[27px]">
          {c.clicks === 0
            ? "clicks: leave it"
            : `${Math.abs(c.clicks) === 1 ? "click" : "clicks"} ${c.clicks > 0 ? "out" : "back"}: ${figure(c.afterMm, 3)} mm left`}
        </h3>
      </div>
      <div className="flex items-center gap-3">
        <StarWheel teeth={teeth ?? 0} clicks={c.clicks} shown={shown} onTurn={onTurn} />
        <ClicksPlot clearance={c} shown={shown} />
      </div>
      <p className="m-0 text-[16px]">
        Clearance now <b>{figure(c.clearanceMm, 3)}</b>; {figure(c.perClickMm, 4)} a click
        {c.perClickFromReadingsMm !== null ? ", by two readings" : ""}; band {figure(c.targetLowMm, 2)} to{" "}
        {figure(c.targetHighMm, 2)}
        {c.reasons.lines.some((l) => l.label === "Target" && l.kind === "default") ? ", a default" : ""}.
        After {shown} {shown === 1 ? "click" : "clicks"}: <b>{figure(left, 3)} mm</b>.
        {c.countSchoolMm !== null && ` Count school: ${figure(c.countSchoolMm, 3)} mm.`}
      </p>
      {[...c.notes, ...(sides ? [sides.says] : [])].map((n) => (
        <p key={n} className="m-0 text-[16px] font-bold">
          {n}
        </p>
      ))}
      {answer.ridge && <p className="m-0 text-[16px]">{answer.ridge.says}</p>}
    </>
  );
}
