import { Link } from "react-router";
import { api, ApiError, take, type JobView, type Schemas } from "../../app/api";
import { useAnswer, useCommand, useFigures, useKeys } from "../../app/hooks";
import { ProblemNote } from "../../ui/Problem";
import { Shell } from "../../ui/Shell";
import { VerdictMark } from "../../ui/marks";
import { Why } from "../../ui/Why";
import { JobBenchShell } from "../jobs/JobBenchShell";
import { useThisJob } from "../jobs/JobFrame";
import { figure } from "../jobs/words";
import { Choice } from "../measuring/fields";
import { useProof } from "./proof";
import { Field } from "./fields";

type Facts = Schemas["ParkingHoldFacts"];
type Tried = "yes" | "no" | "";

const HELD: [Tried, string][] = [
  ["yes", "Held"],
  ["no", "Did not"],
  ["", "Not tried"],
];

/** Whether a parking brake is proved, with no job. */
export function QuickProve() {
  return (
    <Shell title="Parking brake" sub="with no job">
      <ProveBench name="prove" />
    </Shell>
  );
}

/** What proves the parking brake of a job: it stands in its record, and a failure holds the car. */
export function JobProve() {
  const job = useThisJob();
  const proof = useProof(job);
  return (
    <JobBenchShell title="Parking brake" keys={{ Space: "Note what was tried" }}>
      {proof.data && <ProveBench name={`${job.id} prove`} job={job} noted={proof.data.hold?.facts ?? null} />}
      <ProblemNote error={proof.error} />
    </JobBenchShell>
  );
}

function ProveBench({ name, job, noted = null }: { name: string; job?: JobView; noted?: Facts | null }) {
  const { v, set, number } = useFigures(name, {
    mass: noted?.maximumMassKg,
    hill: noted?.hillPercent,
    there: noted?.massOnHillKg,
    left: noted?.leftN,
    right: noted?.rightN,
    sides: noted?.sidesPercent,
    leftC: noted?.leftCelsius,
    rightC: noted?.rightCelsius,
    air: noted?.airCelsius,
  });
  const tried = (key: string, before: boolean | null | undefined): Tried =>
    v[key] !== undefined ? (v[key] as Tried) : before === true ? "yes" : before === false ? "no" : "";
  const approved = (v.approved || noted?.approved || "car") as Facts["approved"];
  const up = tried("up", noted?.heldUp);
  const down = tried("down", noted?.heldDown);
  const mass = number("mass");
  const held = (t: Tried) => (t === "" ? null : t === "yes");
  const facts: Facts | null =
    mass === null
      ? null
      : {
          approved,
          maximumMassKg: mass,
          hillPercent: number("hill"),
          massOnHillKg: number("there"),
          heldUp: held(up),
          heldDown: held(down),
          leftN: number("left"),
          rightN: number("right"),
          sidesPercent: number("sides"),
          leftCelsius: number("leftC"),
          rightCelsius: number("rightC"),
          airCelsius: number("air"),
        };
  const answer = useAnswer("parking-hold", facts, (body) =>
    take(api.POST("/api/bench/parking-hold", { body })),
  );
  const wrong = (field: string) => (answer.error instanceof ApiError ? answer.error.field(field) : undefined);
  const field = (key: string, label: string, at: keyof Facts) => (
    <Field
      label={label}
      value={v[key] ?? ""}
      hint={noted?.[at] as number | null | undefined}
      wrong={wrong(at)}
      onChange={(text) => set(key, text)}
    />
  );
  const a = answer.data;
  return (
    <div className="grid h-full grid-cols-[minmax(0,1fr)_488px] max-[1100px]:grid-cols-[minmax(0,1fr)_420px] max-[900px]:block max-[900px]:overflow-auto max-[900px]:pb-24">
      <section
        className="flex min-h-0 flex-col gap-3 overflow-auto p-4"
        aria-label="What was tried"
        tabIndex={0}
      >
        <div className="grid grid-cols-2 items-end gap-2">
          {field("mass", "Maximum authorised mass, kg", "maximumMassKg")}
          <Choice
            label="Approved as"
            value={approved}
            options={[
              ["car", "Car"],
              ["van-or-minibus", "Van, minibus"],
            ]}
            onChange={(x) => set("approved", x)}
          />
        </div>
        <h2 className="mt-1 border-t border-rule pt-2 text-[24px]">On a hill</h2>
        <div className="grid grid-cols-2 gap-2">
          {field("hill", "Grade, %", "hillPercent")}
          {field("there", "Mass there, kg, if less", "massOnHillKg")}
          <Choice label="Nose up" value={up} options={HELD} onChange={(x) => set("up", x)} />
          <Choice label="Nose down" value={down} options={HELD} onChange={(x) => set("down", x)} />
        </div>
        <h2 className="mt-1 border-t border-rule pt-2 text-[24px]">On a roller bench</h2>
        <div className="grid grid-cols-3 gap-2">
          {field("left", "Left, N", "leftN")}
          {field("right", "Right, N", "rightN")}
          {field("sides", "Local rule, apart, %", "sidesPercent")}
        </div>
        <h2 className="mt-1 border-t border-rule pt-2 text-[24px]">Rotors after the drive</h2>
        <div className="grid grid-cols-3 gap-2">
          {field("leftC", "Left, °C", "leftCelsius")}
          {field("rightC", "Right, °C", "rightCelsius")}
          {field("air", "Air, °C", "airCelsius")}
        </div>
      </section>
      <section
        className="flex min-h-0 flex-col gap-3 border-l-2 border-ink bg-plate p-5 max-[900px]:border-l-0"
        aria-label="What it proves"
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
                A hill both ways, or the forces of a roller bench, with the maximum authorised mass from the
                car's plate.
              </p>
            )
          )}
          <ProblemNote error={answer.error} />
        </div>
        {job && facts && a && a.proofs.length > 0 && <Note job={job} facts={facts} noted={noted} />}
      </section>
    </div>
  );
}

const HEADING: Record<Schemas["Verdict"], [string, string]> = {
  inside: ["It holds", "text-inside"],
  "too-close-to-call": ["Too close to call", "text-close"],
  "not-yet-enough": ["Not proved yet", "text-ink"],
  outside: ["Not proved", "text-outside"],
};

function Shown({ answer: a }: { answer: Schemas["ParkingHoldAnswer"] }) {
  const [heading, colour] = HEADING[a.verdict];
  return (
    <>
      <div className="flex items-start justify-between gap-2">
        <h2 className={`text-[44px] leading-none ${colour}`}>{heading}</h2>
        <Why reasons={[a.reasons]} />
      </div>
      <div className="window">
        {a.ratioPercent === null ? (
          <>
            <span className="text-[18px]">{figure(a.askedGradePercent, 0)} % asks for</span>
            <div className="flex items-end gap-4">
              <span className="huge">{figure(a.askedN ?? 0, 0)}</span>
              <span className="pb-2 text-[18px]">N, laden</span>
            </div>
          </>
        ) : (
          <>
            <span className="text-[18px]">Both wheels, of the weight</span>
            <div className="flex items-end gap-4">
              <span className="huge">{figure(a.ratioPercent, 1)}</span>
              <span className="pb-2 text-[18px]">%</span>
            </div>
          </>
        )}
      </div>
      {a.verdict !== "outside" && <p className="m-0 text-[18px]">{a.says}</p>}
      {a.proofs.map((p) => (
        <div key={p.what} className="flex flex-col gap-1 border-t border-rule pt-2 text-[17px]">
          <div className="flex items-center justify-between gap-2">
            <b>{p.what}</b>
            <VerdictMark verdict={p.verdict} />
          </div>
          <span>{p.says}</span>
          {p.check && <b>{p.check}</b>}
        </div>
      ))}
    </>
  );
}

function Note({ job, facts, noted }: { job: JobView; facts: Facts; noted: Facts | null }) {
  const note = useCommand<Facts>(job, (header, body) =>
    take(
      api.POST("/api/jobs/{id}/parking-hold", {
        params: { path: { id: job.id } },
        body: { eventId: header.eventId, occurredAt: header.occurredAt, facts: body },
      }),
    ),
  );
  const kept = noted !== null && (Object.keys(facts) as (keyof Facts)[]).every((k) => noted[k] === facts[k]);
  useKeys({ Space: () => !note.isPending && !kept && note.mutate(facts) });
  return (
    <div className="bench-action flex flex-col gap-2">
      <ProblemNote error={note.error} />
      {kept ? (
        <Link className="btn-primary" to={`/jobs/${job.id}`}>
          Noted: to the run sheet
        </Link>
      ) : (
        <button
          type="button"
          className="btn-primary"
          disabled={note.isPending}
          onClick={() => note.mutate(facts)}
        >
          Note it <span className="keycap">Space</span>
        </button>
      )}
    </div>
  );
}
