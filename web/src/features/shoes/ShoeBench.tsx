import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { api, ApiError, take, type Schemas } from "../../app/api";
import { useCatalogue, useDraft, useKeys } from "../../app/hooks";
import { VerdictMark } from "../../ui/marks";
import { ProblemNote } from "../../ui/Problem";
import { Shell } from "../../ui/Shell";
import { Why } from "../../ui/Why";
import { figure } from "../jobs/words";
import { ClicksPlot, DrumSection, NumberLine, StarWheel } from "./DrumSection";

const DIRECTIONS = ["0", "45", "90", "135"];
const DEPTHS: [Schemas["DrumDepth"], string][] = [
  ["open-edge", "Open edge"],
  ["near-floor", "Near floor"],
];
const SHOES: [string, string, string][] = [
  ["over", "Over shoes, mm", "overShoesMm"],
  ["anchor", "To anchor, mm", "anchorDistanceMm"],
  ["adjuster", "To adjuster, mm", "adjusterDistanceMm"],
  ["pitch", "Pitch, mm", "pitchMm"],
  ["teeth", "Teeth", "teeth"],
  ["lock", "Lock, clicks", "lockAndBackOff"],
  ["drum", "Drum, °C", "drumCelsius"],
  ["gauge", "Gauge, °C", "gaugeCelsius"],
];

/** Drum against its maximum, shoes against the drum, and the clicks to the target; with no job. */
export function ShoeBench() {
  const catalogue = useCatalogue();
  const [v, set, clear] = useDraft("shoe bench");
  const [instrument, setInstrument] = useState("drum-gauge");
  const [tried, setTried] = useState<number | null>(null);
  const num = (key: string) => {
    const text = (v[key] ?? "").trim();
    return text === "" ? null : Number(text.replace(",", "."));
  };
  const bad = Object.keys(v).filter((k) => k !== "stamp" && Number.isNaN(num(k)));
  const readings: Schemas["DrumReading"][] = DEPTHS.flatMap(([depth]) =>
    DIRECTIONS.flatMap((d) => {
      const mm = num(`${depth} ${d}`);
      return mm === null || Number.isNaN(mm) ? [] : [{ directionDeg: Number(d), depth, diameterMm: mm }];
    }),
  );
  const withShoes = ["over", "anchor", "adjuster", "pitch", "teeth"].every((k) => num(k) !== null);
  const ask = useMutation({
    mutationFn: () =>
      take(
        api.POST("/api/bench/shoes", {
          body: {
            drum: {
              readings,
              instrumentId: instrument,
              drumCelsius: num("drum"),
              gaugeCelsius: num("gauge"),
              differenceDoubtKelvin: 0,
            },
            stamp: v.stamp ?? "",
            maximumMm: null,
            outOfRoundLimitMm: null,
            shoes: withShoes
              ? {
                  overShoesMm: num("over") ?? 0,
                  anchorDistanceMm: num("anchor") ?? 0,
                  adjusterDistanceMm: num("adjuster") ?? 0,
                  pitchMm: num("pitch") ?? 0,
                  teeth: num("teeth") ?? 0,
                  leftRightPair: false,
                  clicksLeft: null,
                  after: null,
                }
              : null,
            sheet: { targetLowMm: null, targetHighMm: null, lockAndBackOff: num("lock") },
          },
        }),
      ),
    onSuccess: () => setTried(null),
  });
  const go = () => bad.length === 0 && ask.mutate();
  useKeys({ Space: go });
  const a = ask.data;
  const wrong = (name: string) => (ask.error instanceof ApiError ? ask.error.field(name) : undefined);
  const field = (key: string, label: string, index: number, name?: string) => (
    <div key={key} className="min-w-0">
      <label className="field">
        <span className="truncate">{label}</span>
        <input
          data-reading={index}
          inputMode={key === "stamp" ? "text" : "decimal"}
          value={v[key] ?? ""}
          aria-invalid={bad.includes(key)}
          onChange={(e) => set(key, e.target.value)}
          onKeyDown={(e) => {
            if (e.key !== "Enter") return;
            // A gauge sends Enter: the next point, never the verdict.
            e.preventDefault();
            (
              document.querySelector<HTMLElement>(`[data-reading="${index + 1}"]`) ??
              document.querySelector<HTMLElement>(".btn-primary")
            )?.focus();
          }}
        />
      </label>
      {(bad.includes(key) || (name && wrong(name))) && (
        <p className="wrong m-0 mt-1">{bad.includes(key) ? "A plain figure is wanted." : wrong(name!)}</p>
      )}
    </div>
  );
  const c = a?.clearance;
  const shown = Math.round(tried ?? c?.clicks ?? 0);
  return (
    <Shell
      title="Shoe bench"
      sub="with no job"
      keys={{
        Space: "Judge it",
        Enter: "Next point; a gauge sends it",
        Arrows: "Turn the star wheel, when it has focus",
      }}
    >
      <div className="grid h-full grid-cols-[minmax(0,1fr)_588px] max-[1100px]:grid-cols-[minmax(0,1fr)_500px] max-[760px]:block max-[760px]:overflow-auto">
        <section className="flex min-h-0 flex-col gap-3 overflow-auto p-5" aria-label="Readings">
          <div className="flex items-end justify-between gap-2">
            <h2 className="text-[31px]">Drum, inside</h2>
            <button
              type="button"
              className="btn"
              onClick={() => {
                clear();
                location.reload();
              }}
            >
              Clear the bench
            </button>
          </div>
          <div className="grid grid-cols-2 gap-2">
            {field("stamp", "Stamped, such as MAX DIA 191.00 MM", 0, "stamp")}
            <label className="field">
              <span>Instrument</span>
              <select value={instrument} onChange={(e) => setInstrument(e.target.value)}>
                {catalogue.data?.instruments.map((i) => (
                  <option key={i.id} value={i.id}>
                    {i.name}, reads {i.resolutionMm}
                  </option>
                ))}
              </select>
            </label>
          </div>
          {DEPTHS.map(([depth, name], row) => (
            <fieldset key={depth} className="m-0 border-0 p-0">
              <legend className="mb-1 text-[16px]">
                <svg
                  width="14"
                  height="11"
                  viewBox="0 0 14 11"
                  aria-hidden="true"
                  className="mr-1 inline-block"
                >
                  <path
                    d="M7 11 L1 1 H13 Z"
                    fill={depth === "open-edge" ? "var(--ink)" : "var(--plate)"}
                    stroke="var(--ink)"
                    strokeWidth="1.4"
                  />
                </svg>
                {name}, mm
              </legend>
              <div className="grid grid-cols-4 gap-2">
                {DIRECTIONS.map((d, i) => field(`${depth} ${d}`, `${d}°`, 1 + row * 4 + i))}
              </div>
            </fieldset>
          ))}
          <h2 className="text-[24px]">Shoes, adjuster, temperature if not 20 °C</h2>
          <div className="grid grid-cols-4 gap-2">
            {SHOES.map(([key, label, name], i) => field(key, label, 9 + i, name))}
          </div>
          {a && (
            <div className="flex flex-wrap items-center gap-4">
              <DrumSection
                drum={a.drum}
                readings={readings}
                overShoesMm={c ? num("over") : null}
                afterMm={c ? c.clearanceMm - shown * c.perClickMm : null}
              />
              <p className="m-0 w-[190px] text-[15px] text-ink-2">
                Facing the hub. The gap and the drum's shape are drawn about 12 times larger.
                {c && ` Dashed: the shoes after ${shown} clicks.`}
              </p>
            </div>
          )}
        </section>
        <section
          className="flex min-h-0 flex-col border-l-2 border-ink bg-plate px-5 pt-3 pb-3 max-[760px]:border-l-0"
          aria-label="Verdict"
        >
          <div
            className="flex min-h-0 flex-1 flex-col gap-2 overflow-auto pb-2"
            tabIndex={0}
            role="group"
            aria-label="Verdict in full"
          >
            {!a && (
              <>
                <h2 className="text-[31px]">Drum against its maximum</h2>
                <p className="m-0 text-[18px]">
                  Four directions at two depths. The largest decides. The maker's figures outrank the answer.
                </p>
              </>
            )}
            {a && (
              <>
                <div className="flex items-start justify-between gap-2">
                  <VerdictMark verdict={a.drum.maximum.verdict} />
                  {a.drum.maximum.verdict !== "inside" && (
                    <span className="title rounded bg-ink px-3 py-2 text-[20px] text-plate">Not passed</span>
                  )}
                  <Why
                    reasons={[
                      a.drum.reasons,
                      a.drum.maximum.reasons,
                      a.drum.outOfRoundVerdict.reasons,
                      ...(c ? [c.reasons] : []),
                    ]}
                  />
                </div>
                <div className="flex items-end gap-4">
                  <span className="huge huge-5">{a.drum.largestMm.toFixed(2)}</span>
                  <span className="pb-2 text-[18px]">
                    mm, largest
                    <br />
                    <b>{figure(Math.abs(a.drum.maximum.limitMm - a.drum.largestMm), 2)}</b>{" "}
                    {a.drum.largestMm > a.drum.maximum.limitMm ? "over" : "under"} the maximum
                    {a.stamp && <span className="block text-[14px] text-ink-2">{a.stamp.understood}</span>}
                  </span>
                </div>
                <NumberLine drum={a.drum} readings={readings} />
                {a.drum.settledBy.length > 0 && (
                  <p className="m-0 text-[16px]">
                    <b>What would settle it.</b> {a.drum.settledBy.map((s) => s.says).join(" ")}
                    {a.drum.settledBy.every((s) => !s.wouldSettle) &&
                      " Nothing on hand would: the part is not passed."}
                  </p>
                )}
                <p className="m-0 text-[15px] text-ink-2">
                  Out of round {figure(a.drum.outOfRoundMm, 3)}, limit {figure(a.drum.outOfRoundLimitMm, 2)}:{" "}
                  {a.drum.outOfRoundVerdict.verdict.replaceAll("-", " ")}.
                  {a.drum.taperMm !== null && ` Taper ${figure(a.drum.taperMm, 3)}.`}
                  {a.drum.correctionMm !== 0 &&
                    ` Corrected by ${figure(a.drum.correctionMm, 3)} to 20 °C.`}{" "}
                  {a.drum.notes[0]}
                </p>
                {c && (
                  <>
                    <h3 className="border-t border-rule pt-2 text-[24px]">
                      {c.clicks === 0
                        ? "Leave the star wheel"
                        : `Turn ${Math.abs(c.clicks)} ${Math.abs(c.clicks) === 1 ? "click" : "clicks"} ${c.clicks > 0 ? "out" : "back"}`}
                      : {figure(c.afterMm, 3)} mm left
                    </h3>
                    <div className="flex items-center gap-3">
                      <StarWheel
                        teeth={num("teeth") ?? 0}
                        clicks={c.clicks}
                        shown={shown}
                        onTurn={(by) => setTried((t) => (t ?? c.clicks) + by)}
                      />
                      <ClicksPlot clearance={c} shown={shown} />
                    </div>
                    <p className="m-0 text-[15px]">
                      Clearance now <b>{figure(c.clearanceMm, 3)}</b>; {figure(c.perClickMm, 4)} a click; band{" "}
                      {figure(c.targetLowMm, 2)} to {figure(c.targetHighMm, 2)}
                      {c.reasons.usesDefaults ? ", a default" : ""}. After {shown}{" "}
                      {shown === 1 ? "click" : "clicks"}:{" "}
                      <b>{figure(c.clearanceMm - shown * c.perClickMm, 3)} mm</b>.
                      {c.countSchoolMm !== null && ` Count school: ${figure(c.countSchoolMm, 3)} mm.`}{" "}
                      {c.notes.join(" ")}
                    </p>
                  </>
                )}
              </>
            )}
          </div>
          <ProblemNote error={ask.error} />
          <button
            type="button"
            className="btn-primary"
            disabled={readings.length < 1 || !v.stamp || bad.length > 0}
            onClick={go}
          >
            {readings.length < 1 ? "Enter the readings" : v.stamp ? "Judge it" : "Enter the stamping"}{" "}
            <span className="keycap">Space</span>
          </button>
        </section>
      </div>
    </Shell>
  );
}
