import { useState } from "react";
import { api, ApiError, take, type JobView, type Schemas, type Side } from "../../app/api";
import { useDraft, useFigures } from "../../app/hooks";
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
  standing,
  useBench,
  useFacts,
  useJobBenches,
  useJobReadings,
  useJudgement,
  useQuickReadings,
  type Bench,
} from "../measuring/readings";
import { ForecastPlot, LeadingEnd, PadPicture } from "./drawings";

type Facts = Schemas["PadFacts"];
type Answer = Schemas["PadBenchAnswer"];
type Spec = Schemas["PadSpec"];

const NOTHING: Facts = {
  parts: {
    caliper: "behind-axle",
    indicator: true,
    pistonSpring: false,
    pistonPin: false,
    electricSensor: false,
    sensorWornThrough: "not-known",
  },
  frontLeastMm: null,
  answers: [],
  history: [],
  odometerKm: null,
  nextInspectionKm: null,
};

const ask = (body: Schemas["PadsRequest"]) => take(api.POST("/api/bench/pads", { body }));

/** Four pads, their wear and its causes, where new ones go and how long these last; with no job. */
export function QuickPads() {
  const [cleared, setCleared] = useState(0);
  return <QuickPadBench key={cleared} onCleared={() => setCleared(cleared + 1)} />;
}

function QuickPadBench({ onCleared }: { onCleared: () => void }) {
  const chosen = useBenchSheet();
  const [, , forgetSaid] = useDraft("pads said");
  const pads = chosen.sheet?.pads;
  const figures: SheetFigures | null = chosen.sheet && {
    code: chosen.sheet.code,
    of: {
      new: pads && Number((pads.newInnerTotalMm - pads.backingMm).toFixed(3)),
      least: pads?.minimumLiningMm,
    },
  };
  const { facts, change, clear } = useFacts<Facts>("pads", NOTHING, undefined, null);
  const { v: typed, set: setTyped, number: num } = useFigures("pad sheet", figures?.of);
  const fresh = num("new");
  // Typed, it is a lining and both pads alike; otherwise the sheet's pads as they are.
  const spec: Spec | null =
    pads && !typed.new
      ? { ...pads, minimumLiningMm: num("least") }
      : fresh === null
        ? null
        : { newInnerTotalMm: fresh, newOuterTotalMm: fresh, backingMm: 0, minimumLiningMm: num("least") };
  const source = useQuickReadings("pads", (side, readings) =>
    ask({
      left: side === "left" ? readings : standing(source, "left"),
      right: side === "right" ? readings : standing(source, "right"),
      facts,
      spec,
    }),
  );
  const bench = useBench("pads", source);
  return (
    <Pads
      job={null}
      bench={bench}
      facts={facts}
      change={change}
      spec={spec}
      picker={chosen.picker}
      sheet={
        <div className="grid grid-cols-3 gap-2">
          <FactField
            label="New lining, mm"
            value={typed.new || null}
            sheet={fromSheet(figures, "new")}
            onChange={(v) => setTyped("new", v ?? "")}
            index={8}
          />
          <FactField
            label="Least lining, mm"
            value={typed.least || null}
            sheet={fromSheet(figures, "least")}
            onChange={(v) => setTyped("least", v ?? "")}
            index={9}
          />
          <FrontField facts={facts} change={change} live />
        </div>
      }
      clear={() => {
        source.clear();
        clear();
        for (const key of ["new", "least"]) setTyped(key, "");
        forgetSaid();
        for (const key of Object.keys(bench.typing)) bench.type(key, "");
        onCleared();
      }}
      attach={
        <AttachDialog source={source} sided to={(jobId) => `/jobs/${jobId}/pads`} facts={{ pads: facts }} />
      }
    />
  );
}

/** The pad bench of a job: both corners of the axle. */
export function JobPads() {
  const job = useThisJob();
  const view = useJobBenches(job.id);
  const source = useJobReadings(job.id, view.data);
  const bench = useBench("pads", source);
  const { facts, change, error } = useFacts<Facts>("pads", NOTHING, view.data?.pads, async (next) => {
    await take(
      api.POST("/api/jobs/{id}/pads-looked", {
        params: { path: { id: job.id } },
        body: { ...header(), facts: next },
      }),
    );
    await source.changed();
  });
  return (
    <Pads
      job={job}
      bench={bench}
      facts={facts}
      change={change}
      factError={error}
      spec={view.data?.padSpec ?? null}
      sheet={
        <div className="grid grid-cols-3 gap-2">
          <FrontField facts={facts} change={change} live={false} />
        </div>
      }
      clear={() => {}}
      attach={null}
    />
  );
}

function FrontField({
  facts,
  change,
  live,
}: {
  facts: Facts;
  change: (patch: Partial<Facts>) => void;
  live: boolean;
}) {
  return (
    <FactField
      live={live}
      label="Thinnest front, mm"
      value={facts.frontLeastMm}
      onChange={(v) => change({ frontLeastMm: v === null ? null : Number(v) })}
      index={10}
    />
  );
}

const PLACES: [string, string][] = [
  ["inner-leading", "Inner, leading"],
  ["inner-trailing", "Inner, trailing"],
  ["outer-leading", "Outer, leading"],
  ["outer-trailing", "Outer, trailing"],
];

function Pads({
  job,
  bench,
  facts,
  change,
  factError = null,
  spec,
  sheet,
  picker,
  clear,
  attach,
}: {
  job: JobView | null;
  bench: Bench;
  facts: Facts;
  change: (patch: Partial<Facts>) => void;
  factError?: ApiError | null;
  spec: Spec | null;
  picker?: React.ReactNode;
  sheet: React.ReactNode;
  clear: () => void;
  attach: React.ReactNode;
}) {
  const [tab, setTab] = useState("wear");
  const [km, setKm] = useState<string | null>(null);
  const [mm, setMm] = useState<string | null>(null);
  const left = bench.live("left");
  const right = bench.live("right");
  const { answer, error } = useJudgement(
    "pads",
    { left, right, facts, spec },
    // In a job the core takes its own sheet, instruments and stored readings: what is shown is what is recorded.
    (b) =>
      job
        ? take(
            api.POST("/api/jobs/{id}/bench/pads", {
              params: { path: { id: job.id } },
              body: { left: bench.unsaved("left"), right: bench.unsaved("right"), facts },
            }),
          )
        : ask(b),
    bench.isTyping,
  );
  const wrong = (name: string) =>
    (error instanceof ApiError ? error.field(name) : undefined) ?? factError?.field(name);
  const unit = bench.unit === "mm" ? "mm" : "in";
  const live = !job;
  const parts = (patch: Partial<Facts["parts"]>) => change({ parts: { ...facts.parts, ...patch } });
  const wearTab = (
    <>
      {(["left", "right"] as const).map((side: Side, row) => (
        <fieldset key={side} className="m-0 border-0 p-0">
          <legend className="mb-1 text-[16px]">
            {side === "left" ? "Left" : "Right"}, lining without its backing, {unit}
          </legend>
          <div className="grid grid-cols-4 gap-2">
            {PLACES.map(([place, name], i) => (
              <ReadingField
                key={place}
                bench={bench}
                side={side}
                point={{ measurand: "pad-lining", place, directionDeg: null }}
                label={name}
                index={row * 4 + i}
              />
            ))}
          </div>
        </fieldset>
      ))}
      {sheet}
    </>
  );
  const yes: ["yes" | "no", string][] = [
    ["no", "No"],
    ["yes", "Yes"],
  ];
  const [said, say] = useDraft("pads said");
  const saidOf = (key: string) => job !== null || said[key] === "yes";
  const flag = (label: string, key: "indicator" | "pistonSpring" | "pistonPin" | "electricSensor") => (
    <Choice
      label={label}
      // What the indicator's sentence says is so wherever there is one: with no job nobody has said that there is.
      value={key === "indicator" && !saidOf(key) ? ("" as "yes") : facts.parts[key] ? "yes" : "no"}
      options={yes}
      onChange={(v) => {
        say(key, "yes");
        parts({ [key]: v === "yes" });
      }}
    />
  );
  // With no job nobody has looked yet: neither place is taken for granted.
  const placeSaid = saidOf("caliper");
  const placementTab = (
    <>
      <Choice
        label="The caliper sits"
        value={placeSaid ? facts.parts.caliper : ("" as Schemas["CaliperPlace"])}
        options={[
          ["behind-axle", "Behind the axle"],
          ["ahead-of-axle", "Ahead of the axle"],
        ]}
        onChange={(caliper) => {
          say("caliper", "yes");
          parts({ caliper });
        }}
      />
      <div className="grid grid-cols-2 gap-2">
        {flag("Wear indicator on a pad", "indicator")}
        {flag("Spring or clip into the piston", "pistonSpring")}
        {flag("Pin for the piston's slot", "pistonPin")}
        {flag("Electric wear sensor here", "electricSensor")}
      </div>
      {facts.parts.electricSensor && (
        <Choice
          label="Its contact is worn through"
          value={facts.parts.sensorWornThrough}
          options={[
            ["no", "No"],
            ["yes", "Yes"],
            ["not-known", "Not looked"],
          ]}
          onChange={(sensorWornThrough) => parts({ sensorWornThrough })}
        />
      )}
    </>
  );
  const forecastTab = (
    <>
      <div className="grid grid-cols-2 gap-2">
        <FactField
          live={live}
          label="Odometer now, km"
          value={facts.odometerKm}
          wrong={wrong("odometerKm")}
          onChange={(v) => change({ odometerKm: v === null ? null : Math.round(Number(v)) })}
        />
        <FactField
          live={live}
          label="Next inspection in, km"
          value={facts.nextInspectionKm}
          wrong={wrong("nextInspectionKm")}
          onChange={(v) => change({ nextInspectionKm: v === null ? null : Math.round(Number(v)) })}
        />
      </div>
      <h3 className="mt-2 text-[22px]">Earlier, since these pads were fitted</h3>
      {facts.history.map((h, i) => (
        <div key={i} className="flex items-center justify-between gap-2 border-t border-rule">
          <span>
            {h.odometerKm} km: <b>{figure(h.liningMm, 2)} mm</b>
          </span>
          <button
            type="button"
            className="btn"
            onClick={() => change({ history: facts.history.filter((_, k) => k !== i) })}
          >
            Take out
          </button>
        </div>
      ))}
      <div className="grid grid-cols-3 gap-2">
        <FactField label="Odometer, km" value={km} onChange={setKm} />
        <FactField label="Thinnest lining, mm" value={mm} onChange={setMm} />
        <button
          type="button"
          className="btn"
          disabled={km === null || mm === null}
          onClick={() => {
            change({
              history: [...facts.history, { odometerKm: Math.round(Number(km)), liningMm: Number(mm) }],
            });
            setKm(null);
            setMm(null);
          }}
        >
          Add it
        </button>
      </div>
    </>
  );
  return (
    <BenchPage
      title="Pad bench"
      job={job}
      side="left"
      other={null}
      bench={bench}
      tab={tab}
      onTab={setTab}
      clear={clear}
      sheet={picker}
      attach={attach}
      error={<ProblemNote error={error ?? factError} />}
      tabs={[
        {
          id: "wear",
          name: "Wear",
          measurand: "pad-lining",
          fields: wearTab,
          verdict: (
            <WearVerdict
              answer={answer}
              facts={facts}
              change={change}
              newest={spec ? spec.newInnerTotalMm - spec.backingMm : null}
            />
          ),
        },
        {
          id: "placement",
          name: "Placement",
          measurand: "pad-lining",
          fields: placementTab,
          verdict: !placeSaid ? (
            <Wanted
              title="How the pads go in"
              lacks={["Say where the caliper sits: the leading end follows from it."]}
            />
          ) : (
            answer && (
              <>
                <Headline>
                  <h2 className="text-[31px]">How the pads go in</h2>
                  <Why reasons={[answer.placement.reasons]} />
                </Headline>
                <p className="title m-0 text-[64px] leading-none">
                  {answer.placement.leadingEndAtBottom ? "Bottom leads" : "Top leads"}
                </p>
                <LeadingEnd parts={facts.parts} atBottom={answer.placement.leadingEndAtBottom} />
                {answer.placement.lines.map((l) => (
                  <p key={l} className="m-0 text-[17px]">
                    {l}
                  </p>
                ))}
              </>
            )
          ),
        },
        {
          id: "forecast",
          name: "Forecast",
          measurand: "pad-lining",
          fields: forecastTab,
          verdict: <Forecast answer={answer} facts={facts} />,
        },
      ]}
    />
  );
}

function WearVerdict({
  answer,
  facts,
  change,
  newest,
}: {
  answer: Answer | undefined;
  facts: Facts;
  change: (patch: Partial<Facts>) => void;
  newest: number | null;
}) {
  const pads = answer?.pads;
  if (!pads) return <Wanted title="Pads against their minimum" lacks={answer?.lacks ?? []} />;
  const thin = pads.thinnest;
  const say = (causeId: string, side: Side | null, a: Schemas["CheckAnswer"]) =>
    change({
      answers: [
        ...facts.answers.filter((x) => x.causeId !== causeId || x.side !== side),
        ...(a === "not-made" ? [] : [{ causeId, side, answer: a }]),
      ],
    });
  return (
    <>
      <Headline>
        <VerdictMark verdict={pads.verdict} />
        {pads.verdict !== "inside" && <NotPassed />}
        <Why reasons={[pads.reasons, thin.minimum.reasons]} />
      </Headline>
      <div className="flex items-end gap-4">
        <span className="huge">{thin.thinnestMm.toFixed(1)}</span>
        <span className="pb-2 text-[18px]">
          mm, thinnest: {thin.side} {thin.pad}
          <br />
          <b>{figure(thin.percentLeft, 0)} %</b> left, least {figure(thin.minimum.limitMm, 1)}
          {thin.minimum.reasons.lines.some(
            (l) => l.kind === "default" && l.sourceId === "practice-minimum-lining",
          ) && ", a default"}
        </span>
      </div>
      <NumberLine
        verdict={thin.minimum}
        limitName="LEAST"
        values={pads.pads.map((p) => ({ mm: p.thinnestMm, hollow: p.side === "right" }))}
      />
      <SettleNote ways={pads.settledBy} />
      <PadPicture pads={pads.pads} newest={newest ?? Math.max(...pads.pads.map((p) => p.thinnestMm))} />
      {pads.findings.map((f) => (
        <section key={f.says} className="border-t border-rule pt-1">
          <h3 className="text-[22px]">{f.says}</h3>
          {f.causes.map((c, i) => (
            <div
              key={c.id}
              className={`mt-1 flex items-center justify-between gap-2 ${c.answer === "rules-out" ? "text-ink-2 line-through" : ""}`}
            >
              <span className="text-[16px]">
                <b>
                  {i + 1}. {c.says}.
                </b>{" "}
                {c.check} {c.confirms}
              </span>
              <span className="flex gap-1">
                <button
                  type="button"
                  className="btn whitespace-nowrap !px-2"
                  aria-label={`${c.says}: it is so`}
                  aria-pressed={c.answer === "confirms"}
                  onClick={() => say(c.id, f.side, c.answer === "confirms" ? "not-made" : "confirms")}
                >
                  Yes, seen
                </button>
                <button
                  type="button"
                  className="btn whitespace-nowrap !px-2"
                  aria-label={`${c.says}: it is not so`}
                  aria-pressed={c.answer === "rules-out"}
                  onClick={() => say(c.id, f.side, c.answer === "rules-out" ? "not-made" : "rules-out")}
                >
                  No
                </button>
              </span>
            </div>
          ))}
        </section>
      ))}
      <p className="m-0 text-[15px] text-ink-2">{[...(answer.lacks ?? []), ...pads.notes].join(" ")}</p>
    </>
  );
}

function Forecast({ answer, facts }: { answer: Answer | undefined; facts: Facts }) {
  const f = answer?.forecast;
  if (!f)
    return (
      <Wanted
        title="How long they last"
        lacks={["The linings and the odometer now, or an earlier reading."]}
      />
    );
  const now = f.line[0]!;
  const points =
    answer.pads && facts.odometerKm !== null
      ? [...facts.history, { odometerKm: facts.odometerKm, liningMm: answer.pads.thinnest.thinnestMm }]
      : facts.history;
  return (
    <>
      <Headline>
        <h2 className="text-[31px]">To the least lining</h2>
        <Why reasons={[f.reasons]} />
      </Headline>
      <div className="flex items-end gap-4">
        <span className="huge huge-5">
          {f.toMinimumKm === null ? "none" : figure(f.toMinimumKm / 1000, 1)}
        </span>
        <span className="pb-2 text-[18px]">
          {f.toMinimumKm === null ? "" : "thousand km"}
          <br />
          {figure(f.wearPerThousandKmMm, 3)} mm a 1000 km{f.fromDefault ? ", a default" : ""}
        </span>
      </div>
      <ForecastPlot
        forecast={f}
        history={points.length > 0 ? points : [now]}
        leastMm={f.line[1]?.liningMm ?? 0}
      />
      <p className="m-0 text-[18px]">{f.says}</p>
      {f.lastsToNext !== null && facts.nextInspectionKm !== null && (
        <p className="m-0 text-[18px]">
          It lasts to the next inspection in {facts.nextInspectionKm} km with a chance of{" "}
          <b>{figure(f.lastsToNext * 100, 0)} %</b>.
        </p>
      )}
    </>
  );
}
