import { useState } from "react";
import { api, ApiError, take, type Schemas, type Side } from "../../app/api";
import { useAnswer, useCatalogue, useFigures } from "../../app/hooks";
import { typedNumber, useLength } from "../../app/units";
import { ProblemNote } from "../../ui/Problem";
import { Why } from "../../ui/Why";
import { fromSheet, useBenchSheet, type SheetFigures } from "../measuring/bench/sheet";
import { Choice, FactField } from "../measuring/fields";
import { PistonFace } from "./PistonFace";
import { Reservoir } from "./Reservoir";
import { RetractWindow } from "./RetractSummary";
import { RulingText } from "./RulingText";

const FIELDS = [
  ["oldInner", "Old inner pad", "old.innerMm"],
  ["newInner", "New inner pad", "new.innerMm"],
  ["oldOuter", "Old outer pad", "old.outerMm"],
  ["newOuter", "New outer pad", "new.outerMm"],
  ["oldRotor", "Old rotor", "old.rotorMm"],
  ["newRotor", "New rotor", "new.rotorMm"],
  ["protrusion", "Piston stands proud", "protrusionMm"],
  ["home", "Proud when home", "homeProtrusionMm"],
  ["diameter", "Piston diameter", "pistonDiameterMm"],
  ["lead", "Travel a turn", "leadMm"],
  ["limit", "Furthest proud allowed", "protrusionLimitMm"],
  ["backing", "Backing with shims", "backingMm"],
  ["outer", "Outer pistons proud", "protrusionOuterMm"],
  ["pistons", "Pistons in the caliper", "pistonsPerCaliper"],
] as const;
type Key = (typeof FIELDS)[number][0];

const figuresOf = (s: Schemas["SpecSheet"] | null): SheetFigures | null =>
  s && {
    code: s.code,
    of: {
      newInner: s.pads.newInnerTotalMm,
      newOuter: s.pads.newOuterTotalMm,
      newRotor: s.rotor.newThicknessMm,
      home: s.piston.homeProtrusionMm,
      diameter: s.piston.diameterMm,
      lead: s.piston.leadMm,
      limit: s.piston.protrusionLimitMm,
      backing: s.pads.backingMm,
      pistons: s.piston.pistonsPerCaliper,
      band: s.reservoir.bandMl,
    },
  };

/** Which way and how far, with no job. */
export function WayAndDistance({ tabs }: { tabs: React.ReactNode }) {
  const length = useLength();
  const catalogue = useCatalogue();
  const { sheet, picker } = useBenchSheet();
  const figures = figuresOf(sheet);
  const { v, set: setV, number: num } = useFigures("quick retraction", figures?.of);
  // The brake as it was chosen here, or as the sheet's maker names it; nobody's guess.
  const architecture = (v.architecture || sheet?.architecture || null) as Schemas["Architecture"] | null;
  const side = (v.side || null) as Side | null;
  // The sheet's piston is that of the sheet's brake.
  const piston = sheet && (!sheet.architecture || sheet.architecture === architecture) ? sheet.piston : null;
  const directions = [piston?.directionLeft, piston?.directionRight];
  const asksSide = !!directions[0] && !!directions[1] && directions[0] !== directions[1];
  const [depth, setDepth] = useState<Schemas["RetractDepthRule"]>("all-the-way-home");
  const [lining, setLining] = useState(false);
  // Opposed pistons are a form of the service caliper, whatever does the parking.
  const [bothSides, setBothSides] = useState(false);
  const card = catalogue.data?.architectures.find((c) => c.architecture === architecture);
  const opposed = !!card?.isOpposed || (!!card?.mayBeOpposed && bothSides);
  const shown = FIELDS.filter(
    ([k]) =>
      (k !== "backing" || lining) &&
      ((k !== "outer" && k !== "pistons") || opposed) &&
      (k !== "lead" || !opposed),
  );
  const all = (
    [
      "oldInner",
      "oldOuter",
      "oldRotor",
      "newInner",
      "newOuter",
      "newRotor",
      "diameter",
      ...(opposed ? ["pistons"] : []),
    ] as Key[]
  ).every((k) => num(k) !== null);
  const bad = shown.filter(([k]) => Number.isNaN(typedNumber(v[k] ?? "")));
  const n = (k: Key) => num(k) ?? 0;
  const ask = useAnswer<Schemas["RetractRequest"], Schemas["RetractAnswer"]>(
    "retract",
    bad.length > 0 || architecture === null || (asksSide && side === null)
      ? null
      : {
          architecture,
          methodUndecided: false,
          opposed,
          side: side ?? "left",
          piston,
          depth,
          howFar: all
            ? {
                old: {
                  innerMm: n("oldInner"),
                  outerMm: n("oldOuter"),
                  rotorMm: n("oldRotor"),
                  liningOnly: lining,
                },
                new: {
                  innerMm: n("newInner"),
                  outerMm: n("newOuter"),
                  rotorMm: n("newRotor"),
                  liningOnly: false,
                },
                backingMm: lining ? num("backing") : null,
                protrusionOuterMm: opposed ? num("outer") : null,
                protrusionLimitMm: num("limit"),
                protrusionMm: num("protrusion"),
                homeProtrusionMm: num("home"),
                leadMm: opposed ? null : num("lead"),
                pistonDiameterMm: n("diameter"),
                pistonsPerCaliper: opposed ? n("pistons") : 1,
                marginMm: null,
              }
            : null,
          reservoir:
            num("level") !== null && num("band") !== null
              ? {
                  spec: { bandMl: num("band") ?? 0, headspaceMl: sheet?.reservoir.headspaceMl ?? 0 },
                  levelPercent: num("level") ?? 0,
                }
              : null,
        },
    (body) => take(api.POST("/api/bench/retract", { body })),
  );
  const a = ask.data;
  const wrong = (name: string, key: Key) =>
    bad.some(([k]) => k === key)
      ? "A plain figure is wanted, such as 12.4."
      : ask.error instanceof ApiError
        ? ask.error.field(name)
        : undefined;
  return (
    <>
      <div className="grid h-full grid-cols-[minmax(0,1fr)_588px] max-[1100px]:grid-cols-[minmax(0,1fr)_470px] max-[800px]:block max-[800px]:overflow-auto">
        <section className="flex min-h-0 flex-col gap-3 overflow-auto p-5" aria-label="What you know">
          {tabs}
          {picker}
          <label className="field flex-shrink-0">
            <span>Brake{!v.architecture && sheet?.architecture ? `, ${sheet.code}` : ""}</span>
            <select
              aria-label="Brake"
              value={architecture ?? ""}
              onChange={(e) => setV("architecture", e.target.value)}
            >
              {architecture === null && <option value="">choose</option>}
              {catalogue.data?.architectures.map((c) => (
                <option key={c.architecture} value={c.architecture}>
                  {c.name}: {c.back}
                </option>
              ))}
            </select>
          </label>
          {card?.mayBeOpposed && !card.isOpposed && (
            <button
              type="button"
              className="btn self-start"
              aria-pressed={bothSides}
              onClick={() => setBothSides(!bothSides)}
            >
              Pistons on both sides of the rotor
            </button>
          )}
          {asksSide && (
            <Choice
              label="Which side? Its pistons turn different ways."
              value={side ?? ""}
              options={[
                ["left", "Left"],
                ["right", "Right"],
              ]}
              onChange={(to) => setV("side", to)}
            />
          )}
          <p className="m-0 text-ink-2">
            How far needs pads and rotor, old and new, in mm; pads with their backing plates, unless they are
            linings. Leave them empty for the way back alone.
          </p>
          <div className="grid grid-cols-2 gap-2">
            {shown.map(([key, label, name], i) => (
              <FactField
                key={key}
                index={i}
                label={key === "pistons" ? label : `${label}, mm`}
                value={v[key] || null}
                wrong={wrong(name, key)}
                sheet={fromSheet(figures, key)}
                onChange={(t) => setV(key, t ?? "")}
              />
            ))}
            {(
              [
                ["level", "Reservoir level, % of MIN to MAX"],
                ["band", "MIN to MAX, mL"],
              ] as const
            ).map(([key, label], i) => (
              <FactField
                key={key}
                index={shown.length + i}
                label={label}
                value={v[key] || null}
                sheet={fromSheet(figures, key)}
                onChange={(t) => setV(key, t ?? "")}
              />
            ))}
            <button
              type="button"
              className="btn col-span-2"
              aria-pressed={lining}
              onClick={() => setLining(!lining)}
            >
              Old pads were measured as linings, without their backing
            </button>
            <button
              type="button"
              className="btn"
              aria-pressed={depth === "all-the-way-home"}
              onClick={() => setDepth("all-the-way-home")}
            >
              All the way home
            </button>
            <button
              type="button"
              className="btn"
              aria-pressed={depth === "as-far-as-needed"}
              onClick={() => setDepth("as-far-as-needed")}
            >
              As far as needed
            </button>
          </div>
        </section>
        <section
          className="flex min-h-0 flex-col gap-3 border-l-2 border-ink bg-plate px-5 pt-4 pb-3 max-[800px]:border-l-0"
          aria-label="Answer"
        >
          {a ? (
            <>
              <div className="flex items-start justify-between gap-2">
                <h2 className={a.travel ? "text-[31px]" : "text-[48px] leading-none"}>{a.ruling.headline}</h2>
                <Why
                  reasons={[
                    a.ruling.reasons,
                    ...(a.travel ? [a.travel.reasons] : []),
                    ...(a.room ? [a.room.reasons] : []),
                  ]}
                />
              </div>
              {a.travel && <RetractWindow travel={a.travel} ruling={a.ruling} />}
              <div
                className="min-h-0 flex-1 overflow-auto"
                tabIndex={0}
                role="group"
                aria-label="The ruling in full"
              >
                {a.travel?.warnings.map((w) => (
                  <p key={w} className="wrong m-0 mb-2">
                    {w}
                  </p>
                ))}
                <div className="flex justify-center">
                  <PistonFace ruling={a.ruling} size={a.travel ? 190 : 260} />
                </div>
                {a.opposed && (
                  <p className="m-0 mb-2 text-[18px]">
                    Inner <b>{length.with(a.opposed.inner.travelMm)}</b>, outer{" "}
                    <b>{length.with(a.opposed.outer.travelMm)}</b>: opposite pistons together, none may creep
                    out.
                  </p>
                )}
                {a.room && a.travel && (
                  <Reservoir
                    spec={{ bandMl: num("band") ?? 1, headspaceMl: sheet?.reservoir.headspaceMl ?? 0 }}
                    stages={[
                      ["now", num("level") ?? 0],
                      ["after", a.room.levelAfter],
                    ]}
                    says={a.room.reasons.lines.at(-1)?.result ?? ""}
                    stops={a.room.verdict === "draw-off-first"}
                  />
                )}
                <RulingText ruling={a.ruling} />
              </div>
            </>
          ) : (
            <div className="flex-1">
              <h2 className="text-[31px]">Which way, how far</h2>
              {architecture === null && (
                <p className="m-0 text-[22px]">Choose the brake, or a spec sheet that names it.</p>
              )}
              {asksSide && side === null && <p className="m-0 text-[22px]">Say which side it is.</p>}
            </div>
          )}
          <p className="m-0 text-[15px] text-ink-2">The maker's data for this vehicle outranks the answer.</p>
          <ProblemNote error={ask.error} />
        </section>
      </div>
    </>
  );
}
