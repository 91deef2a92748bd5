import { useState } from "react";
import { api, ApiError, take, type JobView, type Schemas, type Side } from "../../app/api";
import { ProblemNote } from "../../ui/Problem";
import { BenchPage } from "../measuring/BenchPage";
import { type FromSheet } from "../measuring/bench/sheet";
import { Choice, FactField, ReadingField } from "../measuring/fields";
import { useJudgement, type Bench } from "../measuring/readings";
import { RunoutCurve, VanePicture } from "./drawings";
import { Facts, ask } from "./model";
import { Ruling, RunoutVerdict, ThicknessVerdict } from "./verdicts";

/** Fields and verdicts of the rotor bench, of a job's corner and of none. */
export function Rotor({
  job,
  side,
  corner,
  onCorner,
  bench,
  facts,
  change,
  factError = null,
  spec,
  picker,
  stamped,
  clear,
  attach,
}: {
  job: JobView | null;
  side: Side;
  corner: Side;
  onCorner?: (side: Side) => void;
  bench: Bench;
  facts: Facts;
  change: (patch: Partial<Facts>) => void;
  factError?: ApiError | null;
  spec: Schemas["RotorSpec"] | null;
  picker?: React.ReactNode;
  /** The least thickness of the chosen sheet: it counts while no stamp is typed. */
  stamped?: FromSheet | undefined;
  clear: () => void;
  attach: React.ReactNode;
}) {
  const [tab, setTab] = useState("thickness");
  const [points, setPoints] = useState("8");
  const [run, setRun] = useState<"run-1" | "run-2">("run-1");
  const [turned, setTurned] = useState<number | null>(null);
  const readings = bench.live(side);
  const { answer, error } = useJudgement(
    "rotor",
    { side: corner, readings, facts, spec },
    // In a job the core takes its own sheet, instruments and stored readings: what is shown is what is recorded.
    (b) =>
      job
        ? take(
            api.POST("/api/jobs/{id}/bench/rotor", {
              params: { path: { id: job.id } },
              body: { side, unsaved: bench.unsaved(side), facts },
            }),
          )
        : ask(b),
    bench.isTyping,
  );
  const wrong = (name: string) =>
    (error instanceof ApiError ? error.field(name) : undefined) ?? factError?.field(name);
  const num = (v: string | null) => (v === null ? null : Number(v));
  const unit = bench.unit === "mm" ? "mm" : "in";
  const live = !job;
  const of = (measurand: string, place: string) =>
    readings
      .filter((r) => r.measurand === measurand && r.place === place)
      .map((r) => ({ deg: r.directionDeg ?? 0, mm: r.valueMm }));
  const condition = (patch: Partial<Facts["condition"]>) =>
    change({ condition: { ...facts.condition, ...patch } });
  const ring = Array.from({ length: Number(points) }, (_, i) => (360 / Number(points)) * i);
  const thicknessTab = (
    <>
      <div className="grid grid-cols-[minmax(0,1fr)_minmax(0,200px)] items-end gap-2">
        <FactField
          text
          live={live}
          index={0}
          label="Stamped, such as MIN TH 8.4 MM"
          value={facts.stamp}
          wrong={wrong("stamp")}
          sheet={stamped}
          onChange={(stamp) => change({ stamp })}
        />
        <Choice
          label="Points round the ring"
          value={points}
          options={[
            ["4", "4"],
            ["8", "8"],
            ["12", "12"],
          ]}
          onChange={setPoints}
        />
      </div>
      <p className="m-0 text-[15px] text-ink-2">
        About 10 mm in from the edge, angles from stud 1. Thickness, {unit}.
      </p>
      <div className="grid grid-cols-4 gap-2">
        {ring.map((d, i) => (
          <ReadingField
            key={d}
            bench={bench}
            side={side}
            point={{ measurand: "rotor-thickness", place: "ring", directionDeg: d }}
            label={`${d}°`}
            index={1 + i}
          />
        ))}
      </div>
    </>
  );
  const runoutTab = (
    <>
      <div className="grid grid-cols-[minmax(0,1fr)_110px_150px] items-end gap-2">
        <Choice
          label="Run of the dial"
          value={run}
          options={[
            ["run-1", "1, as it was"],
            ["run-2", "2, turned on the studs"],
          ]}
          onChange={setRun}
        />
        <FactField
          live={live}
          label="Studs"
          value={facts.studs}
          wrong={wrong("studs")}
          onChange={(v) => v !== null && change({ studs: Number(v) })}
        />
        <FactField
          live={live}
          label="Turned by, °"
          value={facts.movedByDeg}
          wrong={wrong("movedByDeg")}
          onChange={(v) => change({ movedByDeg: num(v) })}
        />
      </div>
      <p className="m-0 text-[15px] text-ink-2">
        All nuts on with flat washers, gear in neutral, bearing play first. Angles from stud 1 on the hub, the
        same way round both times. Dial, {unit}.
      </p>
      <div className="grid grid-cols-6 gap-2 max-[1100px]:grid-cols-4">
        {Array.from({ length: 12 }, (_, i) => 30 * i).map((d, i) => (
          <ReadingField
            key={`${run} ${d}`}
            bench={bench}
            side={side}
            point={{ measurand: "rotor-runout", place: run, directionDeg: d }}
            label={`${d}°`}
            index={1 + i}
          />
        ))}
      </div>
      {(run === "run-1" ? answer?.first : answer?.second) && (
        <RunoutCurve
          run={(run === "run-1" ? answer!.first : answer!.second)!}
          readings={of("rotor-runout", run)}
        />
      )}
      <Choice
        label="A locating screw leaves"
        value={facts.possible === null ? "all" : "one"}
        options={[
          ["all", "Every position"],
          ["one", "Only this one"],
        ]}
        onChange={(v) => change({ possible: v === "all" ? null : [0] })}
      />
    </>
  );
  const yes: ["yes" | "no", string][] = [
    ["no", "No"],
    ["yes", "Yes"],
  ];
  const seenTab = (
    <>
      {onCorner && (
        <Choice
          label="Which side"
          value={corner}
          options={[
            ["left", "Left"],
            ["right", "Right"],
          ]}
          onChange={onCorner}
        />
      )}
      <Choice
        label="Cracks"
        value={facts.condition.cracks}
        options={[
          ["not-looked", "Not looked"],
          ["none", "None"],
          ["crazing", "Fine crazing"],
          ["to-edge-or-hat", "To edge or hat"],
        ]}
        onChange={(cracks) => condition({ cracks })}
      />
      <div className="grid grid-cols-3 gap-2">
        <FactField
          live={live}
          label="Deepest groove, mm"
          value={facts.condition.scoringDepthMm}
          wrong={wrong("scoringDepthMm")}
          onChange={(v) => condition({ scoringDepthMm: num(v) })}
        />
        <Choice
          label="Blue or hard spots"
          value={facts.condition.heatSpots ? "yes" : "no"}
          options={yes}
          onChange={(v) => condition({ heatSpots: v === "yes" })}
        />
        <Choice
          label="It shook when braking"
          value={facts.condition.shook ? "yes" : "no"}
          options={yes}
          onChange={(v) => condition({ shook: v === "yes" })}
        />
      </div>
      <Choice
        label="Curved inner vanes, going outward, seen from outside the car"
        value={facts.condition.vanes}
        options={[
          ["none", "Straight, or none"],
          ["clockwise", "Lean clockwise"],
          ["anticlockwise", "Lean anticlockwise"],
        ]}
        onChange={(vanes) => condition({ vanes })}
      />
      <Choice
        label="A rotor that shook"
        value={facts.condition.neverMachine ? "never" : "may"}
        options={[
          ["may", "May be machined"],
          ["never", "Is never machined"],
        ]}
        onChange={(v) => condition({ neverMachine: v === "never" })}
      />
      <div className="flex items-center gap-4">
        <VanePicture side={corner} />
        <p className="m-0 text-[16px]">
          Seen from outside, rolling forward: these vanes suit the {corner} side.
          {answer && ` ${answer.vanes.says}`}
        </p>
      </div>
    </>
  );
  return (
    <BenchPage
      title={`Rotor bench${job ? `, ${side} corner` : ""}`}
      job={job}
      side={side}
      other={job ? `/jobs/${job.id}/rotor/${side === "left" ? "right" : "left"}` : null}
      bench={bench}
      tab={tab}
      onTab={setTab}
      clear={clear}
      sheet={picker}
      attach={attach}
      error={<ProblemNote error={error ?? factError} />}
      tabs={[
        {
          id: "thickness",
          name: "Thickness",
          measurand: "rotor-thickness",
          fields: thicknessTab,
          verdict: <ThicknessVerdict answer={answer} readings={readings} />,
        },
        {
          id: "runout",
          name: "Runout",
          measurand: "rotor-runout",
          fields: runoutTab,
          verdict: (
            <RunoutVerdict
              answer={answer}
              studs={facts.studs}
              shown={turned ?? answer?.apart?.best.studs ?? 0}
              onTurn={setTurned}
            />
          ),
        },
        {
          id: "seen",
          name: "Seen",
          measurand: "rotor-thickness",
          fields: seenTab,
          verdict: <Ruling answer={answer} />,
        },
      ]}
    />
  );
}
