import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, ApiError, take, type Schemas } from "../../app/api";
import { useAnswer } from "../../app/hooks";
import { queries } from "../../app/queries";
import { TORQUE_UNIT_NAMES, TORQUE_UNITS, typedNumber, type TorqueUnit } from "../../app/units";
import { ProblemNote } from "../../ui/Problem";
import { Shell } from "../../ui/Shell";
import { Why } from "../../ui/Why";
import { figure } from "../jobs/words";
import { useBenchSheet } from "../measuring/bench/sheet";
import { Questions, TorqueWindow, useBothUnits } from "./TorqueRead";
import { WrenchDrawing } from "./Wrench";

const ROLES: [Schemas["FastenerRole"], string][] = [
  ["slide-pin", "Slide pin"],
  ["bracket", "Bracket"],
  ["rotor-screw", "Rotor screw"],
  ["actuator-screw", "Actuator screw"],
  ["banjo", "Banjo"],
  ["bleed-screw", "Bleed screw"],
  ["wheel", "Wheel"],
];
const CLASSES: [Schemas["PropertyClass"], string][] = [
  ["not-known", "not known"],
  ["c48", "4.8"],
  ["c58", "5.8"],
  ["c88", "8.8"],
  ["c98", "9.8"],
  ["c109", "10.9"],
  ["c129", "12.9"],
];

/** What do I set the wrench to, with no job. */
export function QuickTorque() {
  const wrenches = useQuery({ ...queries.wrenches, staleTime: Infinity });
  const { sheet, picker } = useBenchSheet();
  const [role, setRole] = useState<Schemas["FastenerRole"]>("bracket");
  const [unit, setUnit] = useState<TorqueUnit | "">("");
  const [cls, setCls] = useState<Schemas["PropertyClass"]>("not-known");
  const [wrenchId, setWrenchId] = useState("");
  const [t, setT] = useState({ value: "", high: "", diameter: "", pitch: "", extension: "", angle: "0" });
  const foot =
    typedNumber(t.extension) !== null
      ? { extensionMm: typedNumber(t.extension) ?? 0, angleFromInLineDeg: typedNumber(t.angle) ?? 0 }
      : null;
  const value = typedNumber(t.value);
  // The sheet's line counts while no figure is typed: its unit is known.
  const line = value === null ? sheet?.torques.find((x) => x.role === role) : undefined;
  const whole =
    (line || (value !== null && unit !== "")) &&
    Object.values(t).every((text) => !Number.isNaN(typedNumber(text)));
  const ask = useAnswer<Schemas["TorqueRequest"] | Schemas["TorqueLineRequest"], Schemas["TorqueAnswer"]>(
    "torque",
    !whole
      ? null
      : line
        ? { line, wrenchId: wrenchId || null, crowfoot: foot }
        : {
            role,
            value: value ?? 0,
            unit: unit || "nm",
            highValue: typedNumber(t.high),
            threadDiameterMm: typedNumber(t.diameter),
            threadPitchMm: typedNumber(t.pitch),
            class: cls,
            wrenchId: wrenchId || null,
            crowfoot: foot,
          },
    (body) =>
      "line" in body
        ? take(api.POST("/api/bench/torque-line", { body }))
        : take(api.POST("/api/bench/torque", { body })),
  );
  const field = (key: keyof typeof t, label: string, index: number, name: string) => {
    const wrong = Number.isNaN(typedNumber(t[key]))
      ? "A plain figure is wanted, such as 94."
      : ask.error instanceof ApiError
        ? ask.error.field(name)
        : undefined;
    return (
      <div>
        <label className="field">
          <span>{label}</span>
          <input
            data-reading={index}
            inputMode="decimal"
            value={t[key]}
            aria-invalid={!!wrong}
            onChange={(e) => setT({ ...t, [key]: e.target.value })}
            onKeyDown={(e) => {
              if (e.key !== "Enter") return;
              e.preventDefault();
              document.querySelector<HTMLElement>(`[data-reading="${index + 1}"]`)?.focus();
            }}
          />
        </label>
        {wrong && <p className="wrong m-0 mt-1">{wrong}</p>}
      </div>
    );
  };
  const a = ask.data;
  const both = useBothUnits();
  const atTheBolt = a && both(a.set.atTheBoltNm, a.set.atTheBoltLbfFt);
  const others = a?.wrenchesThatServe.filter((id) => id !== a.wrench?.id) ?? [];
  return (
    <Shell title="Torque bench" sub="with no job" keys={{ Enter: "Next field" }}>
      <div className="grid h-full grid-cols-[minmax(0,1fr)_588px] max-[1100px]:grid-cols-[minmax(0,1fr)_470px] max-[800px]:block max-[800px]:overflow-auto">
        <section className="flex min-h-0 flex-col gap-3 overflow-auto p-5" aria-label="What you know">
          {picker}
          <h2 className="text-[31px]">Which fastener</h2>
          <div className="grid grid-cols-4 gap-2 max-[1100px]:grid-cols-3">
            {ROLES.map(([key, name]) => (
              <button
                key={key}
                type="button"
                className="btn !px-2"
                aria-pressed={role === key}
                onClick={() => setRole(key)}
              >
                {name}
              </button>
            ))}
          </div>
          {sheet && value === null && (
            <p className="m-0 text-[18px]">
              {line ? (
                <>
                  <b className="text-measure">{sheet.code}:</b> {figure(line.lowNm, 1)}
                  {line.highNm !== null && ` to ${figure(line.highNm, 1)}`} N m, {line.perCorner} a side,{" "}
                  {line.drive}
                  {line.thenAngleDeg ? `, then ${line.thenAngleDeg}° further` : ""}
                  {line.singleUse && ", new bolts"}. {line.note}
                </>
              ) : (
                `${sheet.code} has no figure for it: type the maker's.`
              )}
            </p>
          )}
          <div className="grid grid-cols-2 gap-2">
            {field("value", "Torque at the bolt", 0, "value")}
            {field("high", "To, if the sheet gives a range", 1, "highValue")}
          </div>
          <fieldset className="m-0 grid grid-cols-4 gap-2 border-0 p-0">
            <legend className="mb-1 text-[15px] text-ink-2">The sheet's unit; it is never assumed</legend>
            {TORQUE_UNITS.map((u) => (
              <button
                key={u}
                type="button"
                className="btn"
                aria-pressed={unit === u}
                onClick={() => setUnit(u)}
              >
                {TORQUE_UNIT_NAMES[u]}
              </button>
            ))}
          </fieldset>
          <div className="grid grid-cols-3 gap-2">
            {field("diameter", "Thread, mm", 2, "torques.Bracket.threadDiameterMm")}
            {field("pitch", "Pitch, mm", 3, "torques.Bracket.threadPitchMm")}
            <label className="field">
              <span>Class</span>
              <select value={cls} onChange={(e) => setCls(e.target.value as Schemas["PropertyClass"])}>
                {CLASSES.map(([key, name]) => (
                  <option key={key} value={key}>
                    {name}
                  </option>
                ))}
              </select>
            </label>
            <label className="field">
              <span>Wrench</span>
              <select value={wrenchId} onChange={(e) => setWrenchId(e.target.value)}>
                <option value="">the one that serves best</option>
                {wrenches.data?.map((w) => (
                  <option key={w.id} value={w.id}>
                    {w.id}, to {w.maximumNm} N m
                  </option>
                ))}
              </select>
            </label>
            {field("extension", "Crowfoot length, mm", 4, "crowfoot.extensionMm")}
            {field("angle", "Its angle, 0 in line", 5, "crowfoot.angleFromInLineDeg")}
          </div>
          <p className="m-0 text-[15px] text-ink-2">
            The maker's figure for this vehicle outranks anything here.
          </p>
        </section>
        <section
          className="flex min-h-0 flex-col gap-3 border-l-2 border-ink bg-plate px-5 pt-4 pb-3 max-[800px]:border-l-0"
          aria-label="Answer"
        >
          <div className="flex min-h-0 flex-1 flex-col gap-3 overflow-auto">
            {a ? (
              <>
                <div className="flex items-start justify-between gap-2">
                  <h2 className="text-[31px]">
                    {atTheBolt?.[0].figure} {atTheBolt?.[0].unit} at the bolt, {atTheBolt?.[1].figure}{" "}
                    {atTheBolt?.[1].unit}
                  </h2>
                  <Why reasons={[a.set.reasons]} />
                </div>
                {a.wrench && (
                  <WrenchDrawing
                    gripMm={a.wrench.gripLengthMm}
                    extensionMm={foot?.extensionMm ?? null}
                    angleDeg={foot?.angleFromInLineDeg}
                  />
                )}
                <TorqueWindow
                  set={a.set}
                  name={a.wrench ? `Set ${a.wrench.id} to` : "Torque; no wrench here serves"}
                />
                <Questions set={a.set} />
                {!a.set.refusal && a.set.appliedLowNm !== null && a.set.appliedHighNm !== null && (
                  <p className="m-0 text-[16px]">
                    Applied: {figure(a.set.appliedLowNm, 1)} to {figure(a.set.appliedHighNm, 1)} N m, by what
                    the wrench may deviate.{others.length > 0 && ` Serves too: ${others.join(", ")}.`}
                  </p>
                )}
              </>
            ) : (
              <>
                <h2 className="text-[31px]">What to set the wrench to</h2>
                {!line && (value === null || !unit) && (
                  <p className="m-0 text-[22px]">
                    {value === null ? "Type the figure." : "Choose the unit: it is never assumed."}
                  </p>
                )}
              </>
            )}
          </div>
          <ProblemNote error={ask.error} />
        </section>
      </div>
    </Shell>
  );
}
