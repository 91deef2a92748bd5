import { useState } from "react";
import { api, ApiError, take, type Schemas } from "../../app/api";
import { useAnswer, useCatalogue, useDraft } from "../../app/hooks";
import { typedNumber } from "../../app/units";
import { ProblemNote } from "../../ui/Problem";
import { Why } from "../../ui/Why";
import { figure } from "../jobs/words";
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

/** Which way and how far, with no job. */
export function WayAndDistance({ tabs }: { tabs: React.ReactNode }) {
  const catalogue = useCatalogue();
  const [architecture, setArchitecture] = useState<Schemas["Architecture"]>("cable-screw");
  const [depth, setDepth] = useState<Schemas["RetractDepthRule"]>("all-the-way-home");
  const [lining, setLining] = useState(false);
  const [v, setV] = useDraft("quick retraction");
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
  const [level, setLevel] = useState("");
  const [band, setBand] = useState("");
  const num = (text: string | undefined) => typedNumber(text ?? "");
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
  ).every((k) => num(v[k]) !== null);
  const bad = shown.filter(([k]) => Number.isNaN(num(v[k])));
  const n = (k: Key) => num(v[k]) ?? 0;
  const ask = useAnswer<Schemas["RetractRequest"], Schemas["RetractAnswer"]>(
    "retract",
    bad.length > 0
      ? null
      : {
          architecture,
          methodUndecided: false,
          opposed,
          side: "left",
          piston: null,
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
                backingMm: lining ? num(v.backing) : null,
                protrusionOuterMm: opposed ? num(v.outer) : null,
                protrusionLimitMm: num(v.limit),
                protrusionMm: num(v.protrusion),
                homeProtrusionMm: num(v.home),
                leadMm: opposed ? null : num(v.lead),
                pistonDiameterMm: n("diameter"),
                pistonsPerCaliper: opposed ? n("pistons") : 1,
                marginMm: null,
              }
            : null,
          reservoir:
            num(level) !== null && num(band) !== null
              ? { spec: { bandMl: num(band) ?? 0, headspaceMl: 0 }, levelPercent: num(level) ?? 0 }
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
          <label className="field flex-shrink-0">
            <span>Brake</span>
            <select
              value={architecture}
              onChange={(e) => setArchitecture(e.target.value as Schemas["Architecture"])}
            >
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
          <p className="m-0 text-ink-2">
            How far needs pads and rotor, old and new, in mm; pads with their backing plates, unless they are
            linings. Leave them empty for the way back alone.
          </p>
          <div className="grid grid-cols-2 gap-2">
            {shown.map(([key, label, name], i) => (
              <div key={key}>
                <label className="field">
                  <span>{key === "pistons" ? label : `${label}, mm`}</span>
                  <input
                    data-reading={i}
                    inputMode="decimal"
                    value={v[key] ?? ""}
                    aria-invalid={!!wrong(name, key)}
                    onChange={(e) => setV(key, e.target.value)}
                    onKeyDown={(e) => {
                      if (e.key !== "Enter") return;
                      e.preventDefault();
                      document.querySelector<HTMLElement>(`[data-reading="${i + 1}"]`)?.focus();
                    }}
                  />
                </label>
                {wrong(name, key) && <p className="wrong m-0 mt-1">{wrong(name, key)}</p>}
              </div>
            ))}
            <label className="field">
              <span>Reservoir level, % of MIN to MAX</span>
              <input inputMode="decimal" value={level} onChange={(e) => setLevel(e.target.value)} />
            </label>
            <label className="field">
              <span>MIN to MAX, mL</span>
              <input inputMode="decimal" value={band} onChange={(e) => setBand(e.target.value)} />
            </label>
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
                <h2 className="text-[31px]">{a.ruling.headline}</h2>
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
                    Inner <b>{figure(a.opposed.inner.travelMm)} mm</b>, outer{" "}
                    <b>{figure(a.opposed.outer.travelMm)} mm</b>: opposite pistons together, none may creep
                    out.
                  </p>
                )}
                {a.room && a.travel && (
                  <Reservoir
                    spec={{ bandMl: num(band) ?? 1, headspaceMl: 0 }}
                    stages={[
                      ["now", num(level) ?? 0],
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
            </div>
          )}
          <p className="m-0 text-[15px] text-ink-2">The maker's data for this vehicle outranks the answer.</p>
          <ProblemNote error={ask.error} />
        </section>
      </div>
    </>
  );
}
