import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { api, ApiError, take, type JobView, type Schemas } from "../../app/api";
import { useAnswer, useCommand, useFigures, useKeys } from "../../app/hooks";
import { ProblemNote } from "../../ui/Problem";
import { Shell } from "../../ui/Shell";
import { Why } from "../../ui/Why";
import { JobBenchShell } from "../jobs/JobBenchShell";
import { useThisJob } from "../jobs/JobFrame";
import { figure } from "../jobs/words";
import { BedInPlot } from "./BedInPlot";
import { useProof } from "./proof";
import { Field, Toggle } from "./fields";

type Facts = Schemas["BedInFacts"];

const BAND: Record<Schemas["BedInBand"], string> = {
  "out-of-reach": "The usual band is out of reach",
  "not-reached": "Under the usual band",
  reached: "Within the usual band",
  "too-hot": "Too hot",
};

/** The bed-in series with no job. */
export function QuickBedIn() {
  const usual = useQuery({
    queryKey: ["usual bed-in"],
    queryFn: () => take(api.GET("/api/bench/bed-in")),
    staleTime: Infinity,
  });
  return (
    <Shell title="Bed-in" sub="with no job">
      {usual.data && <BedInBench name="bed-in" usual={usual.data} />}
      <ProblemNote error={usual.error} />
    </Shell>
  );
}

/** The bed-in of a job: what was driven is noted, and stands in its record. */
export function JobBedIn() {
  const job = useThisJob();
  const proof = useProof(job);
  return (
    <JobBenchShell title="Bed-in" keys={{ Space: "Note the stops that were driven" }}>
      {proof.data && (
        <BedInBench name={`${job.id} bed-in`} usual={proof.data.usual} job={job} proof={proof.data} />
      )}
      <ProblemNote error={proof.error} />
    </JobBenchShell>
  );
}

function BedInBench({
  name,
  usual,
  job,
  proof,
}: {
  name: string;
  usual: Schemas["BedInSeries"];
  job?: JobView;
  proof?: Schemas["JobProof"];
}) {
  const noted = proof?.bedIn?.facts ?? null;
  const series = noted?.series ?? usual;
  const { v, set, number } = useFigures(name, {
    stops: series.stops,
    from: series.fromKmh,
    to: series.toKmh,
    gap: series.gapS,
    vehicle: noted?.vehicleKg,
    rotor: noted?.rotorKg,
    air: noted?.ambientCelsius,
    rear: noted?.rearPercent,
    cooling: noted?.coolingTimeS,
    limit: noted?.localLimitKmh,
  });
  const yes = (key: string, before: boolean) =>
    v[key] === undefined || v[key] === "" ? before : v[key] === "yes";
  const maker = yes("maker", noted?.fromMaker ?? false);
  const motor = yes("motor", noted?.regenerates ?? false);
  const shoes = yes("shoes", noted?.hatShoes ?? proof?.hatShoes ?? false);
  const [stops, from, to, gap] = [number("stops"), number("from"), number("to"), number("gap")];
  const [vehicle, rotor, air] = [number("vehicle"), number("rotor"), number("air")];
  const facts: Facts | null =
    stops === null ||
    from === null ||
    to === null ||
    gap === null ||
    vehicle === null ||
    rotor === null ||
    air === null
      ? null
      : {
          series: { stops: Math.round(stops), fromKmh: from, toKmh: to, gapS: gap },
          fromMaker: maker,
          vehicleKg: vehicle,
          rotorKg: rotor,
          ambientCelsius: air,
          rearPercent: number("rear"),
          coolingTimeS: number("cooling"),
          localLimitKmh: number("limit"),
          regenerates: motor,
          hatShoes: shoes,
        };
  const answer = useAnswer("bed-in", facts, (body) => take(api.POST("/api/bench/bed-in", { body })));
  const wrong = (field: string) => (answer.error instanceof ApiError ? answer.error.field(field) : undefined);
  const field = (key: string, label: string, at: string, hint?: string | number | null) => (
    <Field
      label={label}
      value={v[key] ?? ""}
      hint={hint}
      wrong={wrong(at)}
      onChange={(text) => set(key, text)}
    />
  );
  const a = answer.data;
  return (
    <div className="grid h-full grid-cols-[minmax(0,1fr)_488px] max-[1100px]:grid-cols-[minmax(0,1fr)_420px] max-[900px]:block max-[900px]:overflow-auto max-[900px]:pb-24">
      <section className="flex min-h-0 flex-col gap-3 overflow-auto p-4" aria-label="The series" tabIndex={0}>
        <div className="grid grid-cols-4 gap-2 max-[1100px]:grid-cols-2">
          {field("stops", "Stops", "series.stops", series.stops)}
          {field("from", "From, km/h", "series.fromKmh", series.fromKmh)}
          {field("to", "To, km/h", "series.toKmh", series.toKmh)}
          {field("gap", "Apart, s", "series.gapS", series.gapS)}
          {field("vehicle", "Car as driven, kg", "vehicleKg", noted?.vehicleKg)}
          {field("rotor", "One rear rotor, kg", "rotorKg", noted?.rotorKg)}
          {field("air", "Air, °C", "ambientCelsius", noted?.ambientCelsius)}
          {field("limit", "Local limit, km/h", "localLimitKmh", noted?.localLimitKmh)}
        </div>
        <div className="grid grid-cols-3 gap-2 max-[640px]:grid-cols-1">
          <Toggle on={maker} onChange={(on) => set("maker", on ? "yes" : "no")}>
            Pad maker's series
          </Toggle>
          <Toggle on={motor} onChange={(on) => set("motor", on ? "yes" : "no")}>
            Brakes with its motor
          </Toggle>
          <Toggle on={shoes} onChange={(on) => set("shoes", on ? "yes" : "no")}>
            Parking shoes
          </Toggle>
        </div>
        {a && <BedInPlot answer={a} air={air ?? 0} />}
        <details>
          <summary className="link flex items-center text-[16px]">
            What is not known of the car, and taken as usual
          </summary>
          <div className="mt-2 grid grid-cols-2 gap-2">
            {field("rear", "Rear axle's share, %", "rearPercent", noted?.rearPercent)}
            {field("cooling", "Cooling time constant, s", "coolingTimeS", noted?.coolingTimeS)}
          </div>
        </details>
      </section>
      <section
        className="flex min-h-0 flex-col gap-3 border-l-2 border-ink bg-plate p-5 max-[900px]:border-l-0"
        aria-label="What it does"
      >
        <div
          className="flex min-h-0 flex-1 flex-col gap-3 overflow-auto"
          tabIndex={0}
          role="group"
          aria-label="Answer"
        >
          {a ? (
            <Shown answer={a} />
          ) : (
            !answer.error && (
              <p className="m-0 text-[20px]">
                Mass of the car as it is driven, of one rear rotor, and the air: then what the stops do to it
                is reckoned. The pad maker's series goes in where there is one.
              </p>
            )
          )}
          {proof?.instead && <p className="m-0 text-[18px] font-bold">{proof.instead}</p>}
          <ProblemNote error={answer.error} />
        </div>
        {job && facts && a && (
          <Driven
            key={proof?.bedIn?.driven}
            job={job}
            facts={facts}
            noted={proof?.bedIn ?? null}
            name={name}
          />
        )}
      </section>
    </div>
  );
}

function Shown({ answer: a }: { answer: Schemas["BedInAnswer"] }) {
  return (
    <>
      <div className="flex items-start justify-between gap-2">
        <h2 className={`text-[30px] ${a.band === "too-hot" ? "text-outside" : ""}`}>{BAND[a.band]}</h2>
        <Why reasons={[a.reasons]} />
      </div>
      <div className="window">
        <span className="text-[18px]">Rear rotors after the last stop</span>
        <div className="flex items-end gap-4">
          <span className="huge">{figure(a.stops.at(-1)!.afterCelsius, 0)}</span>
          <span className="pb-2 text-[18px]">
            °C
            <br />
            {figure(a.riseKelvin, 1)} K a stop
          </span>
        </div>
      </div>
      <p className="m-0 text-[18px]">
        <b>
          {figure((a.totalS ?? 0) / 60, 0)} min and {figure(a.distanceMetres / 1000, 1)} km
        </b>{" "}
        with the drive that cools. {a.says}
      </p>
      <ul className="m-0 flex list-none flex-col gap-1 p-0 text-[17px]">
        {a.cautions.map((c) => (
          <li key={c} className="border-t border-rule pt-1">
            {c}
          </li>
        ))}
      </ul>
    </>
  );
}

/** Each stop is ticked by a passenger, or all of them afterwards. */
function Driven({
  job,
  facts,
  noted,
  name,
}: {
  job: JobView;
  facts: Facts;
  noted: Schemas["BedInDriven"] | null;
  name: string;
}) {
  const { v, set } = useFigures(`${name} driven`);
  const driven = v.driven === undefined || v.driven === "" ? (noted?.driven ?? 0) : Number(v.driven);
  const all = facts.series.stops;
  const note = useCommand<number>(job, (header, count) =>
    take(
      api.POST("/api/jobs/{id}/bed-in", {
        params: { path: { id: job.id } },
        body: { eventId: header.eventId, occurredAt: header.occurredAt, facts, driven: count },
      }),
    ),
  );
  const kept = noted !== null && noted.driven === driven;
  const send = () => note.mutate(Math.min(driven, all), { onSuccess: () => set("driven", "") });
  useKeys({ Space: () => !note.isPending && !kept && send() });
  return (
    <div className="bench-action flex flex-col gap-2">
      <ProblemNote error={note.error} />
      <div className="flex items-center gap-2">
        <button
          type="button"
          className="btn !min-h-16 flex-1 justify-center !text-[22px]"
          disabled={driven >= all}
          onClick={() => set("driven", String(driven + 1))}
        >
          One more stop
        </button>
        <button
          type="button"
          className="btn !min-h-16"
          disabled={driven === 0}
          aria-label="One stop less"
          onClick={() => set("driven", String(driven - 1))}
        >
          −1
        </button>
      </div>
      {kept ? (
        <Link className="btn-primary" to={`/jobs/${job.id}`}>
          {driven} of {all} noted: to the run sheet
        </Link>
      ) : (
        <button type="button" className="btn-primary" disabled={note.isPending} onClick={send}>
          Note {Math.min(driven, all)} of {all} stops <span className="keycap">Space</span>
        </button>
      )}
    </div>
  );
}
