import { useState } from "react";
import { useParams } from "react-router";
import { api, ApiError, take, type JobView, type Schemas, type Side } from "../../app/api";
import { useDraft } from "../../app/hooks";
import { VerdictMark } from "../../ui/marks";
import { ProblemNote } from "../../ui/Problem";
import { Why } from "../../ui/Why";
import { useThisJob } from "../jobs/JobFrame";
import { figure } from "../jobs/words";
import { AttachDialog } from "../measuring/AttachDialog";
import { BenchPage, Headline, NotPassed, Wanted } from "../measuring/BenchPage";
import { fromSheet, useBenchSheet, type FromSheet } from "../measuring/bench/sheet";
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
import { RunoutCurve, ThicknessRing, VanePicture, VectorDial } from "./drawings";

type Facts = Schemas["RotorFacts"];
type Answer = Schemas["RotorBenchAnswer"];

const NOTHING: Facts = {
  stamp: null,
  condition: {
    cracks: "not-looked",
    scoringDepthMm: null,
    heatSpots: false,
    shook: false,
    vanes: "none",
    neverMachine: false,
  },
  movedByDeg: null,
  studs: 5,
  possible: null,
};

const ask = (body: Schemas["RotorRequest"]) => take(api.POST("/api/bench/rotor", { body }));

/** Thickness, variation, runout: keep, machine, replace, turn on the studs or clean the hub; with no job. */
export function QuickRotor() {
  const [cleared, setCleared] = useState(0);
  return <QuickRotorBench key={cleared} onCleared={() => setCleared(cleared + 1)} />;
}

function QuickRotorBench({ onCleared }: { onCleared: () => void }) {
  const { sheet, picker } = useBenchSheet();
  const spec = sheet?.rotor ?? null;
  const { facts, change, clear } = useFacts<Facts>("rotor", NOTHING, undefined, null);
  const [draft, setDraft] = useDraft("rotor side");
  const side: Side = draft.side === "right" ? "right" : "left";
  const source = useQuickReadings("rotor", (_, readings) => ask({ side, readings, facts, spec }));
  const bench = useBench("rotor", source);
  return (
    <Rotor
      job={null}
      side="left"
      corner={side}
      onCorner={(s) => setDraft("side", s)}
      bench={bench}
      facts={facts}
      change={change}
      spec={spec}
      picker={picker}
      stamped={fromSheet(
        sheet && { code: sheet.code, of: { stamp: sheet.rotor.minimumThicknessMm } },
        "stamp",
      )}
      clear={() => {
        source.clear();
        clear();
        for (const key of Object.keys(bench.typing)) bench.type(key, "");
        onCleared();
      }}
      attach={
        <AttachDialog
          source={source}
          sided={false}
          to={(jobId, s) => `/jobs/${jobId}/rotor/${s}`}
          facts={{ rotor: facts }}
        />
      }
    />
  );
}

/** The rotor bench of a corner of a job. */
export function JobRotor() {
  const { side } = useParams();
  const corner: Side = side === "right" ? "right" : "left";
  return <CornerRotor key={corner} side={corner} />;
}

function CornerRotor({ side }: { side: Side }) {
  const job = useThisJob();
  const view = useJobBenches(job.id);
  const source = useJobReadings(job.id, view.data);
  const bench = useBench(`rotor ${side}`, source);
  const { facts, change, error } = useFacts<Facts>(
    `rotor ${side}`,
    NOTHING,
    side === "left" ? view.data?.leftRotor : view.data?.rightRotor,
    async (next) => {
      await take(
        api.POST("/api/jobs/{id}/rotor-looked", {
          params: { path: { id: job.id } },
          body: { ...header(), side, facts: next },
        }),
      );
      await source.changed();
    },
  );
  return (
    <Rotor
      job={job}
      side={side}
      corner={side}
      bench={bench}
      facts={facts}
      change={change}
      factError={error}
      spec={view.data?.rotor ?? null}
      clear={() => {}}
      attach={null}
    />
  );
}

function Rotor({
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

function RulingLine({ answer }: { answer: Answer }) {
  if (!answer.ruling) return null;
  return (
    <div className="border-t border-rule pt-2">
      <h3 className="text-[27px]">{answer.ruling.says}</h3>
      <p className="m-0 text-[16px]">{answer.ruling.because.join(" ")}</p>
    </div>
  );
}

function ThicknessVerdict({ answer, readings }: { answer: Answer | undefined; readings: Reading[] }) {
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

function RunoutVerdict({
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

function Ruling({ answer }: { answer: Answer | undefined }) {
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
