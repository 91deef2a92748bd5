import { useState } from "react";
import { api, ApiError, take, type JobView, type Schemas, type Side } from "../../app/api";
import { ProblemNote } from "../../ui/Problem";
import { BenchPage } from "../measuring/BenchPage";
import { fromSheet, type SheetFigures } from "../measuring/bench/sheet";
import { Choice, FactField, ReadingField } from "../measuring/fields";
import { useJudgement, type Bench } from "../measuring/readings";
import { GapPlot } from "./DrumSection";
import { DEPTHS, DIRECTIONS, Facts, LININGS, SPEC_FIELDS, Spec, ask } from "./model";
import { ClicksVerdict, DrumVerdict, LiningVerdict } from "./verdicts";

/** Fields and verdicts of the shoe bench, of a job's corner and of none. */
export function Shoes({
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
          label="Uncertain by, K"
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
