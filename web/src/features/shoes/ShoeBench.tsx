import { useState } from "react";
import { useParams } from "react-router";
import { api, ApiError, take, type JobView, type Schemas, type Side } from "../../app/api";
import { useDraft } from "../../app/hooks";
import { typedNumber } from "../../app/units";
import { VerdictMark } from "../../ui/marks";
import { ProblemNote } from "../../ui/Problem";
import { Why } from "../../ui/Why";
import { useThisJob } from "../jobs/JobFrame";
import { figure } from "../jobs/words";
import { AttachDialog } from "../measuring/AttachDialog";
import { BenchPage, Headline, NotPassed, Wanted } from "../measuring/BenchPage";
import { fromSheet, useBenchSheet, type SheetFigures } from "../measuring/bench/sheet";
import { Choice, FactField, ReadingField } from "../measuring/fields";
import { NumberLine, SettleNote } from "../measuring/NumberLine";
import {
  header,
  useBench,
  useFacts,
  useJobBenches,
  useJobReadings,
  useJudgement,
  useQuickReadings,
  type Bench,
  type Reading,
} from "../measuring/readings";
import { ClicksPlot, DrumSection, GapPlot, StarWheel } from "./DrumSection";

type Facts = Schemas["ShoeFacts"];
type Answer = Schemas["ShoeBenchAnswer"];
type Spec = Schemas["DrumSpec"];

const DIRECTIONS = [0, 45, 90, 135];
const DEPTHS: ["open-edge" | "near-floor", string][] = [
  ["open-edge", "Open edge"],
  ["near-floor", "Near floor"],
];
const LININGS: [string, string][] = [
  ["anchor-end", "Anchor end"],
  ["middle", "Middle"],
  ["adjuster-end", "Adjuster end"],
];
const NOTHING: Facts = {
  stamp: null,
  drumCelsius: null,
  gaugeCelsius: null,
  differenceDoubtKelvin: 0,
  condition: { bondLifted: "not-known", contaminated: "not-known", springsSound: "not-known" },
  clicksBetween: null,
  clicksLeft: null,
};
const NO_SPEC: Spec = {
  nominalMm: null,
  maximumMm: null,
  outOfRoundLimitMm: null,
  machineToMm: null,
  minimumLiningMm: null,
  targetLowMm: null,
  targetHighMm: null,
  lockAndBackOff: null,
  anchorDistanceMm: null,
  adjusterDistanceMm: null,
  pitchMm: null,
  teeth: null,
  leftRightPair: false,
};
const SPEC_FIELDS: [keyof Omit<Spec, "leftRightPair">, string][] = [
  ["anchorDistanceMm", "To anchor, mm"],
  ["adjusterDistanceMm", "To adjuster, mm"],
  ["pitchMm", "Pitch, mm"],
  ["teeth", "Teeth"],
  ["targetLowMm", "Target from, mm"],
  ["targetHighMm", "Target to, mm"],
  ["lockAndBackOff", "Lock, clicks"],
  ["nominalMm", "New drum, mm"],
];

const ask = (body: Schemas["ShoesRequest"]) => take(api.POST("/api/bench/shoes", { body }));

/** Drum against its maximum, shoes against the drum, and the clicks to the target; with no job. */
export function QuickShoes() {
  const [cleared, setCleared] = useState(0);
  return <QuickShoeBench key={cleared} onCleared={() => setCleared(cleared + 1)} />;
}

function QuickShoeBench({ onCleared }: { onCleared: () => void }) {
  const { sheet, picker } = useBenchSheet();
  const figures: SheetFigures | null = sheet && {
    code: sheet.code,
    of: {
      ...Object.fromEntries(SPEC_FIELDS.map(([k]) => [k, sheet.drum?.[k]])),
      stamp: sheet.drum?.maximumMm,
    },
  };
  const { facts, change, clear } = useFacts<Facts>("shoes", NOTHING, undefined, null);
  const [typedSpec, setSpec, clearSpec] = useDraft("shoe sheet");
  const spec: Spec = {
    ...(sheet?.drum ?? NO_SPEC),
    ...Object.fromEntries(
      SPEC_FIELDS.map(([k]) => {
        const n = typedNumber(typedSpec[k] ?? "");
        return [k, n === null || Number.isNaN(n) ? (sheet?.drum?.[k] ?? null) : n];
      }),
    ),
  };
  const body = (readings: Reading[]): Schemas["ShoesRequest"] => ({
    readings,
    facts,
    spec,
    newDrum: false,
    tryClicks: null,
  });
  const source = useQuickReadings("shoes", (_, readings) => ask(body(readings)));
  const bench = useBench("shoes", source);
  return (
    <Shoes
      job={null}
      side="left"
      bench={bench}
      facts={facts}
      change={change}
      spec={spec}
      setSpec={(k, v) => setSpec(k, v ?? "")}
      typedSpec={typedSpec}
      figures={figures}
      picker={picker}
      clear={() => {
        source.clear();
        clear();
        clearSpec();
        for (const key of Object.keys(bench.typing)) bench.type(key, "");
        onCleared();
      }}
      attach={
        <AttachDialog
          source={source}
          sided={false}
          to={(jobId, side) => `/jobs/${jobId}/shoes/${side}`}
          facts={{ shoes: facts }}
        />
      }
    />
  );
}

/** The shoe bench of a corner of a job. */
export function JobShoes() {
  const { side } = useParams();
  const corner: Side = side === "right" ? "right" : "left";
  return <CornerShoes key={corner} side={corner} />;
}

function CornerShoes({ side }: { side: Side }) {
  const job = useThisJob();
  const view = useJobBenches(job.id);
  const source = useJobReadings(job.id, view.data);
  const bench = useBench(`shoes ${side}`, source);
  const path = { params: { path: { id: job.id } } };
  const { facts, change, error } = useFacts<Facts>(
    `shoes ${side}`,
    NOTHING,
    side === "left" ? view.data?.leftShoes : view.data?.rightShoes,
    async (next) => {
      await take(
        api.POST("/api/jobs/{id}/shoes-looked", { ...path, body: { ...header(), side, facts: next } }),
      );
      await source.changed();
    },
  );
  const wheel = side === "left" ? view.data?.leftWheel : view.data?.rightWheel;
  const note = async (loosens: Schemas["WheelWay"]) => {
    await take(
      api.POST("/api/jobs/{id}/star-wheel", { ...path, body: { ...header(), side, loosens, holeAt: 6 } }),
    );
    await source.changed();
  };
  return (
    <Shoes
      job={job}
      side={side}
      bench={bench}
      facts={facts}
      change={change}
      factError={error}
      spec={view.data?.drum ?? NO_SPEC}
      newRotors={view.data?.newRotors ?? false}
      sides={view.data?.sides ?? null}
      wheel={wheel ?? null}
      onWheel={(way) => void note(way)}
      clear={() => {}}
      attach={null}
    />
  );
}

function Shoes({
  job,
  side,
  bench,
  facts,
  change,
  factError = null,
  spec,
  setSpec,
  typedSpec = {},
  figures = null,
  picker,
  newRotors = false,
  sides = null,
  wheel = null,
  onWheel,
  clear,
  attach,
}: {
  job: JobView | null;
  side: Side;
  bench: Bench;
  facts: Facts;
  change: (patch: Partial<Facts>) => void;
  factError?: ApiError | null;
  spec: Spec;
  setSpec?: (key: string, value: string | null) => void;
  typedSpec?: Record<string, string>;
  figures?: SheetFigures | null;
  picker?: React.ReactNode;
  newRotors?: boolean;
  sides?: Schemas["SidesVerdict"] | null;
  wheel?: Schemas["StarWheelNoted"] | null;
  onWheel?: (way: Schemas["WheelWay"]) => void;
  clear: () => void;
  attach: React.ReactNode;
}) {
  const [tab, setTab] = useState("drum");
  const [newDrum, setNewDrum] = useState(false);
  const [tried, setTried] = useState<number | null>(null);
  const readings = bench.live(side);
  const shown = tried === null ? null : Math.round(tried);
  const { answer, error } = useJudgement(
    "shoes",
    { readings, facts, spec, newDrum, tryClicks: shown },
    // In a job the core takes its own sheet, instruments and stored readings: what is shown is what is recorded.
    (b) =>
      job
        ? take(
            api.POST("/api/jobs/{id}/bench/shoes", {
              params: { path: { id: job.id } },
              body: { side, unsaved: bench.unsaved(side), facts, newDrum, tryClicks: shown },
            }),
          )
        : ask(b),
    bench.isTyping,
  );
  const wrong = (name: string) =>
    (error instanceof ApiError ? error.field(name) : undefined) ?? factError?.field(name);
  const measurand = newDrum ? ("new-drum-diameter" as const) : ("drum-diameter" as const);
  const num = (v: string | null) => (v === null ? null : Number(v));
  const unit = bench.unit === "mm" ? "mm" : "in";
  const live = !job;
  const drumTab = (
    <>
      <div className="grid grid-cols-[minmax(0,1fr)_minmax(0,150px)] gap-2">
        <FactField
          text
          live={live}
          index={0}
          label="Stamped, such as MAX DIA 191.00 MM"
          value={facts.stamp}
          wrong={wrong("stamp")}
          sheet={fromSheet(figures, "stamp")}
          onChange={(stamp) => change({ stamp })}
        />
        <ReadingField
          bench={bench}
          side={side}
          point={{ measurand: "ridge", place: "open-edge", directionDeg: null }}
          label={`Ridge, radial, ${unit}`}
          index={9}
        />
      </div>
      {newRotors && (
        <Choice
          label="Which drum"
          value={newDrum ? "new" : "old"}
          options={[
            ["old", "The one that came"],
            ["new", "The new one"],
          ]}
          onChange={(v) => setNewDrum(v === "new")}
        />
      )}
      {DEPTHS.map(([place, name], row) => (
        <fieldset key={place} className="m-0 border-0 p-0">
          <legend className="mb-1 text-[16px]">
            <svg width="14" height="11" viewBox="0 0 14 11" aria-hidden="true" className="mr-1 inline-block">
              <path
                d="M7 11 L1 1 H13 Z"
                fill={place === "open-edge" ? "var(--ink)" : "var(--plate)"}
                stroke="var(--ink)"
                strokeWidth="1.4"
              />
            </svg>
            {name}, {unit}
          </legend>
          <div className="grid grid-cols-4 gap-2">
            {DIRECTIONS.map((d, i) => (
              <ReadingField
                key={`${measurand} ${d}`}
                bench={bench}
                side={side}
                point={{ measurand, place, directionDeg: d }}
                label={`${d}°`}
                index={1 + row * 4 + i}
                celsius={facts.drumCelsius}
              />
            ))}
          </div>
        </fieldset>
      ))}
      <div className="grid grid-cols-3 gap-2">
        <FactField
          live={live}
          index={10}
          label="Drum, °C"
          value={facts.drumCelsius}
          wrong={wrong("drumCelsius")}
          onChange={(v) => change({ drumCelsius: num(v) })}
        />
        <FactField
          live={live}
          index={11}
          label="Gauge, °C"
          value={facts.gaugeCelsius}
          wrong={wrong("gaugeCelsius")}
          onChange={(v) => change({ gaugeCelsius: num(v) })}
        />
        <FactField
          live={live}
          index={12}
          label="Temperature uncertain by, K"
          value={facts.differenceDoubtKelvin === 0 ? null : facts.differenceDoubtKelvin}
          wrong={wrong("differenceDoubtKelvin")}
          onChange={(v) => change({ differenceDoubtKelvin: num(v) ?? 0 })}
        />
      </div>
    </>
  );
  const yesNo: ["yes" | "no" | "not-known", string][] = [
    ["no", "No"],
    ["yes", "Yes"],
    ["not-known", "Not looked"],
  ];
  const condition = (patch: Partial<Facts["condition"]>) =>
    change({ condition: { ...facts.condition, ...patch } });
  const liningTab = (
    <>
      {(["front", "rear"] as const).map((shoe, row) => (
        <fieldset key={shoe} className="m-0 border-0 p-0">
          <legend className="mb-1 text-[16px]">
            {shoe === "front" ? "Front" : "Rear"} shoe, lining, {unit}
          </legend>
          <div className="grid grid-cols-3 gap-2">
            {LININGS.map(([p, name], i) => (
              <ReadingField
                key={p}
                bench={bench}
                side={side}
                point={{ measurand: "shoe-lining", place: `${shoe}-${p}`, directionDeg: null }}
                label={name}
                index={row * 3 + i}
              />
            ))}
          </div>
        </fieldset>
      ))}
      <Choice
        label="Does an edge lift under a pick?"
        value={facts.condition.bondLifted}
        options={yesNo}
        onChange={(bondLifted) => condition({ bondLifted })}
      />
      <Choice
        label="Oil, grease or fluid on a lining?"
        value={facts.condition.contaminated}
        options={yesNo}
        onChange={(contaminated) => condition({ contaminated })}
      />
      <Choice
        label="Springs and pins sound?"
        value={facts.condition.springsSound}
        options={[
          ["yes", "Yes"],
          ["no", "No"],
          ["not-known", "Not looked"],
        ]}
        onChange={(springsSound) => condition({ springsSound })}
      />
      <p className="m-0 border-l-4 border-undecided pl-3 text-[16px]">
        Lining dust: wet or vacuum, never blown off. Springs fly: eye protection.
      </p>
    </>
  );
  const clicksTab = (
    <>
      <div className="grid grid-cols-4 gap-2">
        {(["now", "after"] as const).map((place, i) => (
          <ReadingField
            key={place}
            bench={bench}
            side={side}
            point={{ measurand: "over-shoes", place, directionDeg: null }}
            label={place === "now" ? `Over shoes, ${unit}` : `Again, ${unit}`}
            index={i}
          />
        ))}
        <FactField
          live={live}
          index={2}
          label="Clicks between"
          value={facts.clicksBetween}
          wrong={wrong("after.clicks")}
          onChange={(v) => change({ clicksBetween: num(v) })}
        />
        <FactField
          live={live}
          index={3}
          label="Clicks left"
          value={facts.clicksLeft}
          wrong={wrong("clicksLeft")}
          onChange={(v) => change({ clicksLeft: num(v) })}
        />
      </div>
      {setSpec ? (
        <div className="grid grid-cols-4 gap-2">
          {SPEC_FIELDS.map(([key, label], i) => (
            <FactField
              key={key}
              index={4 + i}
              label={label}
              value={typedSpec[key] || null}
              wrong={wrong(key)}
              sheet={fromSheet(figures, key)}
              onChange={(v) => setSpec(key, v)}
            />
          ))}
        </div>
      ) : (
        <p className="m-0 text-[15px] text-ink-2">
          From the sheet: anchor {spec.anchorDistanceMm ?? "not given"}, adjuster{" "}
          {spec.adjusterDistanceMm ?? "not given"}, pitch {spec.pitchMm ?? "not given"} mm,{" "}
          {spec.teeth ?? "no"} teeth; band {spec.targetLowMm ?? "0.3, a default,"} to{" "}
          {spec.targetHighMm ?? "0.6, a default,"} mm of diameter.
        </p>
      )}
      {onWheel && (
        <Choice
          label={
            wheel
              ? `${wheel.loosens === "up" ? "Up" : "Down"} loosened this wheel, hole at ${wheel.holeAt} o'clock`
              : "Which way loosened it, seen through the hole at 6 o'clock?"
          }
          value={wheel?.loosens ?? ("none" as Schemas["WheelWay"])}
          options={[
            ["up", "Up"],
            ["down", "Down"],
          ]}
          onChange={onWheel}
        />
      )}
      {answer?.gap && <GapPlot gap={answer.gap} />}
      {answer?.gap && <p className="m-0 text-[15px] text-ink-2">{answer.gap.says}</p>}
    </>
  );
  const clicks = shown ?? answer?.clearance?.clicks ?? 0;
  return (
    <BenchPage
      title={`Shoe bench${job ? `, ${side} corner` : ""}`}
      job={job}
      side={side}
      other={job ? `/jobs/${job.id}/shoes/${side === "left" ? "right" : "left"}` : null}
      bench={bench}
      tab={tab}
      onTab={setTab}
      clear={clear}
      sheet={picker}
      attach={attach}
      error={<ProblemNote error={error ?? factError} />}
      tabs={[
        {
          id: "drum",
          name: "Drum",
          measurand,
          fields: drumTab,
          verdict: <DrumVerdict answer={answer} readings={readings} measurand={measurand} />,
        },
        {
          id: "linings",
          name: "Linings",
          measurand: "shoe-lining",
          fields: liningTab,
          verdict: <LiningVerdict shoes={answer?.shoes ?? null} readings={readings} />,
        },
        {
          id: "clicks",
          name: "Clicks",
          measurand: "over-shoes",
          fields: clicksTab,
          verdict: (
            <ClicksVerdict
              answer={answer}
              teeth={spec.teeth}
              shown={clicks}
              onTurn={(by) => setTried((t) => (t ?? answer?.clearance?.clicks ?? 0) + by)}
              sides={sides}
            />
          ),
        },
      ]}
    />
  );
}

function DrumVerdict({
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

function LiningVerdict({ shoes, readings }: { shoes: Schemas["ShoesVerdict"] | null; readings: Reading[] }) {
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

function ClicksVerdict({
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
