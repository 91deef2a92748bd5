import { useState } from "react";
import { api, ApiError, take, type Schemas } from "../../app/api";
import { useAnswer, useDraft } from "../../app/hooks";
import { typedNumber } from "../../app/units";
import { ProblemNote } from "../../ui/Problem";
import { Shell } from "../../ui/Shell";
import { Why } from "../../ui/Why";
import { figure } from "../jobs/words";
import { kilonewtons } from "./words";
import { TracePlot } from "./TracePlot";

type Field = "supply" | "resistance" | "torqueConstant" | "gearRatio" | "lead" | "efficiency" | "cutOff";

const FIELDS: [Field, string, string][] = [
  ["supply", "Battery at rest, V", "motor.supplyV"],
  ["resistance", "Resistance to the motor, ohm", "motor.resistanceOhm"],
  ["torqueConstant", "Torque constant, N m/A", "motor.torqueConstant"],
  ["gearRatio", "Gear ratio", "motor.gearRatio"],
  ["lead", "Spindle lead, mm", "motor.leadMm"],
  ["efficiency", "Efficiency, if known", "motor.efficiency"],
  ["cutOff", "Cut-off, A, if known", "motor.cutOffA"],
];

interface Recording {
  name: string;
  text: string;
}

/** A motor's current, read with no job: one recording, or two beside each other. */
export function CurrentBench() {
  const [draft, keep] = useDraft("current");
  const [one, setOne] = useState<Recording | null>(null);
  const [stroke, setStroke] = useState(1);
  const [other, setOther] = useState<Recording | null>(null);
  const number = (f: Field) => typedNumber(draft[f] ?? "");
  const motor: Schemas["MotorConstants"] | null =
    number("supply") !== null &&
    number("resistance") !== null &&
    number("torqueConstant") !== null &&
    number("gearRatio") !== null &&
    number("lead") !== null
      ? {
          supplyV: number("supply")!,
          resistanceOhm: number("resistance")!,
          torqueConstant: number("torqueConstant")!,
          gearRatio: number("gearRatio")!,
          leadMm: number("lead")!,
          efficiency: number("efficiency"),
          cutOffA: number("cutOff"),
        }
      : null;
  const input = one && { text: one.text, other: other?.text ?? null, motor, direction: null, stroke };
  const answer = useAnswer("current", input, (body) => take(api.POST("/api/bench/current", { body })));
  const read = answer.data;
  const wrong = (name: string) => (answer.error instanceof ApiError ? answer.error.field(name) : undefined);
  const seconds = Math.max(read?.drawn.at(-1)?.atS ?? 0, read?.otherDrawn?.at(-1)?.atS ?? 0);
  const pick = (label: string, chosen: Recording | null, set: (r: Recording | null) => void) => (
    <label className="btn cursor-pointer focus-within:outline-3 focus-within:outline-measure">
      {chosen ? chosen.name : label}
      <input
        type="file"
        accept=".csv,text/csv,text/plain"
        className="sr-only"
        onChange={(e) => {
          const file = e.target.files?.[0];
          if (file)
            void file.text().then((text) => {
              set({ name: file.name, text });
              setStroke(1);
            });
          e.target.value = "";
        }}
      />
    </label>
  );
  return (
    <Shell title="Current bench" sub="with no job">
      <div className="grid h-full grid-cols-[minmax(0,1fr)_488px] max-[1100px]:grid-cols-[minmax(0,1fr)_400px] max-[900px]:block max-[900px]:overflow-auto">
        <section className="flex min-h-0 flex-col gap-3 overflow-auto p-4" aria-label="Recording">
          <div className="grid grid-cols-2 gap-2">
            {pick("Choose a recording", one, setOne)}
            {pick("Another beside it", other, setOther)}
          </div>
          {read && read.reading.strokes > 1 && (
            <div className="flex gap-2" role="group" aria-label="Stroke">
              {Array.from({ length: read.reading.strokes }, (_, i) => i + 1).map((n) => (
                <button
                  key={n}
                  type="button"
                  className="btn flex-1"
                  aria-pressed={stroke === n}
                  onClick={() => setStroke(n)}
                >
                  Stroke {n}
                </button>
              ))}
            </div>
          )}
          <div className="min-h-[180px] flex-1">
            <TracePlot
              points={read?.drawn ?? []}
              reading={read?.reading ?? null}
              cutOff={number("cutOff")}
              seconds={seconds}
              says={read?.reading.says ?? "No recording yet."}
            />
          </div>
          {read?.otherDrawn && (
            <div className="min-h-[180px] flex-1 border-t border-rule">
              <TracePlot
                points={read.otherDrawn}
                reading={read.other}
                cutOff={number("cutOff")}
                seconds={seconds}
                says={read.other?.says ?? ""}
              />
            </div>
          )}
          <details>
            <summary className="link flex items-center text-[16px]">
              The motor, where its figures are known: then travel and clamping force are given
            </summary>
            <div className="mt-2 grid grid-cols-2 gap-2">
              {FIELDS.map(([field, label, name]) => (
                <div key={field}>
                  <label className="field">
                    <span>{label}</span>
                    <input
                      inputMode="decimal"
                      value={draft[field] ?? ""}
                      aria-invalid={!!wrong(name)}
                      onChange={(e) => keep(field, e.target.value)}
                    />
                  </label>
                  {wrong(name) && <p className="wrong m-0 mt-1">{wrong(name)}</p>}
                </div>
              ))}
            </div>
          </details>
        </section>
        <section
          className="flex min-h-0 flex-col gap-3 overflow-auto border-l-2 border-ink bg-plate p-5 max-[900px]:border-l-0"
          aria-label="What it shows"
          tabIndex={0}
          aria-live="polite"
        >
          {read ? <Shown read={read} /> : <HowToClamp />}
          <ProblemNote error={answer.error} />
        </section>
      </div>
    </Shell>
  );
}

function Shown({ read }: { read: Schemas["TraceAnswer"] }) {
  const r = read.reading;
  return (
    <>
      <div className="flex items-start justify-between gap-2">
        <h2 className="text-[52px] leading-none">{r.name}</h2>
        <Why reasons={[r.reasons, ...(read.compared ? [read.compared.reasons] : [])]} />
      </div>
      {(r.contactS !== null || r.freeA !== null) && (
        <div className="window flex flex-wrap gap-x-8">
          {r.freeA !== null && <Number at={figure(r.freeA, 2)} unit="A running free" />}
          {r.contactS !== null && <Number at={figure(r.contactS, 2)} unit="s to contact" />}
          {r.travelMm !== null && <Number at={figure(r.travelMm, 2)} unit="mm of travel" />}
          {r.clampN !== null && <Number at={kilonewtons(r.clampN)} unit="kN clamped" />}
        </div>
      )}
      <p className="m-0 text-[18px]">{r.says}</p>
      {r.do && <p className="m-0 text-[18px] font-bold">{r.do}</p>}
      {r.notes.map((n) => (
        <p key={n} className="m-0 text-[16px] text-ink-2">
          {n}
        </p>
      ))}
      {read.compared && (
        <>
          <h3 className={`title m-0 text-[26px] ${read.compared.alike ? "text-inside" : "text-outside"}`}>
            {read.compared.says}
          </h3>
          {read.compared.differences.map((d) => (
            <p key={d.says} className="m-0 text-[17px]">
              <b>{d.says}</b> {d.check}
            </p>
          ))}
        </>
      )}
    </>
  );
}

const Number = ({ at, unit }: { at: string; unit: string }) => (
  <span className="flex flex-col">
    <span className="text-[56px] leading-none font-bold">{at}</span>
    <span className="text-[16px]">{unit}</span>
  </span>
);

const HowToClamp = () => (
  <div className="flex flex-col gap-3 text-[18px]">
    <h2 className="text-[30px]">How it is recorded</h2>
    <p className="m-0">
      One conductor of one side in the clamp: round both, the currents cancel. A shared feed shows both sides.
    </p>
    <p className="m-0">Zeroed, its arrow towards the motor, 100 readings a second or more.</p>
    <p className="m-0">Recording first, then the switch: the quiet before the start is the zero.</p>
    <p className="m-0">
      CSV with columns time_s and current_a, up to a minute. It stays on this page; a job keeps one on its
      electric bench.
    </p>
  </div>
);
