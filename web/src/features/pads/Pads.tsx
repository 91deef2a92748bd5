import { useState } from "react";
import { api, ApiError, take, type JobView, type Schemas, type Side } from "../../app/api";
import { useDraft } from "../../app/hooks";
import { ProblemNote } from "../../ui/Problem";
import { Why } from "../../ui/Why";
import { figure } from "../jobs/words";
import { BenchPage, Headline, Wanted } from "../measuring/BenchPage";
import { Choice, FactField, ReadingField } from "../measuring/fields";
import { useJudgement, type Bench } from "../measuring/readings";
import { LeadingEnd } from "./drawings";
import { Facts, Spec, ask } from "./model";
import { Forecast, WearVerdict } from "./verdicts";

export function FrontField({
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

/** Fields and verdicts of the pad bench, of a job and of none. */
export function Pads({
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
          <div className="grid grid-cols-4 gap-2 max-[1100px]:grid-cols-2">
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
