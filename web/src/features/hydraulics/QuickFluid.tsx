import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { Tabs } from "radix-ui";
import { useState } from "react";
import { useSearchParams } from "react-router";
import { api, ApiError, take, type Schemas } from "../../app/api";
import { useFigures, useKeys } from "../../app/hooks";
import { ProblemNote } from "../../ui/Problem";
import { Shell } from "../../ui/Shell";
import { TabList } from "../../ui/TabList";
import { Why } from "../../ui/Why";
import { fromSheet, useBenchSheet, type SheetFigures } from "../measuring/bench/sheet";
import { Choice, FactField } from "../measuring/fields";
import { ANSWER, COLUMNS, KNOWN } from "../retraction/columns";
import {
  BleedPanel,
  FluidSays,
  LeakTimer,
  PedalCount,
  ReservoirLevels,
  ReservoirSays,
  stagesOf,
} from "./views";
import { GRADE, METHOD, OPENING, TABS, type TabId } from "./words";

const KEPT = "quick draw lines";

/** The fluid bench with no job: reservoir, pedal, fluid, bleeding, leaks. */
export function QuickFluid() {
  const [query, setQuery] = useSearchParams();
  const tab = TABS.find(([id]) => id === query.get("tab"))?.[0] ?? "reservoir";
  const { sheet, picker } = useBenchSheet();
  const figures: SheetFigures | null = sheet && {
    code: sheet.code,
    of: {
      band: sheet.reservoir.bandMl,
      head: sheet.reservoir.headspaceMl,
      bore: sheet.piston.diameterMm,
      pistons: sheet.piston.pistonsPerCaliper,
      master: sheet.hydraulics?.masterDiameterMm,
      stroke: sheet.hydraulics?.masterStrokeMm,
    },
  };
  const { v, set, number } = useFigures("quick fluid", figures?.of);
  const [counted, setCounted] = useState(0);
  const [firm, setFirm] = useState(false);
  const [lines, setLines] = useState<Schemas["DrawLine"][]>(() => {
    try {
      return JSON.parse(localStorage.getItem(KEPT) ?? "[]") as Schemas["DrawLine"][];
    } catch {
      return [];
    }
  });
  const keep = (next: Schemas["DrawLine"][]) => {
    localStorage.setItem(KEPT, JSON.stringify(next));
    setLines(next);
  };
  const draws = lines.filter((l) => l.struckBecause === null).map((l) => l.draw);
  const measured = v.from === "sides";
  const bore = number("bore");
  const travel = number("travel");
  const need = number("need");
  const corners: Schemas["CornerFluid"][] =
    bore === null || travel === null || need === null
      ? []
      : (["left", "right"] as const).map((side) => ({
          side,
          boresMm: Array.from({ length: Math.max(Math.trunc(number("pistons") ?? 1), 1) }, () => bore),
          travelMm: travel,
          needMm: need,
          marginMm: null,
        }));
  const level = number("level");
  const tank = measured
    ? number("length") !== null && number("height") !== null
    : number("band") !== null && number("head") !== null;
  const rule = (v.room ?? "draw-off") as Schemas["FluidRoomRule"];
  const fluid: Schemas["FluidInput"] = {
    cap: (v.cap || sheet?.hydraulics?.fluid || "dot4") as Schemas["FluidGrade"],
    bottle: (v.bottle || null) as Schemas["FluidGrade"],
    waterPercent: number("water"),
    hottestCelsius: number("hottest"),
  };
  const body: Schemas["FluidRequest"] = {
    reservoir:
      tab === "reservoir" && tank && level !== null && corners.length > 0
        ? {
            reservoir: measured ? null : { bandMl: number("band") ?? 0, headspaceMl: number("head") ?? 0 },
            sides: measured
              ? {
                  lengthMm: number("length") ?? 0,
                  widthMm: number("width"),
                  minToMaxMm: number("height") ?? 0,
                  maxToBrimMm: number("brim") ?? 0,
                  wallMm: number("wall"),
                }
              : null,
            levelPercent: level,
            corners,
            room: rule,
          }
        : null,
    fluid: tab === "fluid" ? fluid : null,
    strokes:
      tab === "pedal" && number("master") !== null && number("stroke") !== null && corners.length > 0
        ? {
            masterDiameterMm: number("master") ?? 0,
            masterStrokeMm: number("stroke") ?? 0,
            split: (v.split || sheet?.hydraulics?.split || "by-axle") as "by-axle" | "diagonal",
            rule: (v.pump ?? "half-strokes") as Schemas["PumpRule"],
            corners,
            simulated: v.simulated === "yes",
            counted: counted === 0 && !firm ? null : counted,
            firm,
          }
        : null,
  };
  const asked = useQuery({
    queryKey: ["bench", "fluid", body],
    queryFn: () => take(api.POST("/api/bench/fluid", { body })),
    enabled: tab === "reservoir" || tab === "fluid" || tab === "pedal",
    placeholderData: keepPreviousData,
    retry: false,
    staleTime: Infinity,
  });
  const opened = (Object.keys(OPENING) as Schemas["CircuitOpening"][]).filter(
    (k) => v[`open ${k}`] === "yes",
  );
  const corner = (v.corner ?? "left") as "left" | "right" | "both";
  const sides = corner === "both" ? (["left", "right"] as const) : ([corner] as const);
  const bleed: Schemas["BleedRequest"] = {
    openings: opened.flatMap((what): Schemas["Opening"][] =>
      what === "reservoir-dry" || what === "fluid-shown"
        ? [{ what, side: null }]
        : sides.map((side) => ({ what, side })),
    ),
    order: null,
    rule: (v.bleeding ?? "when-opened") as Schemas["BleedRule"],
    bleed:
      number("band") !== null && level !== null
        ? {
            method: (v.method ?? "two-person") as Schemas["BleedMethod"],
            draws,
            reservoir: { bandMl: number("band") ?? 0, headspaceMl: number("head") ?? 0 },
            levelPercent: level,
            drawVolumeMl: null,
          }
        : null,
  };
  const bleeding = useQuery({
    queryKey: ["bench", "bleeding", bleed],
    queryFn: () => take(api.POST("/api/bench/bleeding", { body: bleed })),
    enabled: tab === "bleed",
    placeholderData: keepPreviousData,
    retry: false,
    staleTime: Infinity,
  });
  const error = tab === "bleed" ? bleeding.error : asked.error;
  const wrong = (...names: string[]) =>
    error instanceof ApiError ? names.map((n) => (error as ApiError).field(n)).find((m) => m) : undefined;
  const field = (key: string, label: string, index: number, ...names: string[]) => (
    <FactField
      key={key}
      label={label}
      index={index}
      value={v[key] || null}
      wrong={wrong(...names)}
      sheet={fromSheet(figures, key)}
      onChange={(t) => set(key, t ?? "")}
    />
  );
  const select = <T extends string>(
    key: string,
    label: string,
    words: Record<T, string>,
    none?: string,
    said?: string | null,
  ) => (
    <label className="field">
      <span>{!v[key] && said ? `${label}, ${sheet!.code}` : label}</span>
      <select
        value={v[key] || said || (none ? "" : Object.keys(words)[0])}
        onChange={(e) => set(key, e.target.value)}
      >
        {none && <option value="">{none}</option>}
        {(Object.entries(words) as [T, string][]).map(([id, name]) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
      </select>
    </label>
  );
  useKeys(
    Object.fromEntries(
      TABS.map(([id], i) => [String(i + 1), () => setQuery({ tab: id }, { replace: true })]),
    ),
  );
  const count = () => setCounted((c) => c + 1);
  const { reservoir, strokes } = asked.data ?? {};
  const pistons = (
    <>
      {field("bore", "Piston diameter, mm", 0, "boresMm")}
      {field("pistons", "Pistons a caliper; 1 if empty", 1)}
      {field("travel", "They go back by, mm", 2, "travelMm")}
      {field("need", "New parts need, mm", 3, "needMm")}
    </>
  );
  const reasons = {
    reservoir: reservoir?.reasons,
    pedal: strokes?.reasons,
    fluid: asked.data?.fluid?.reasons,
    bleed: bleeding.data?.bleed?.reasons,
    leaks: undefined,
  }[tab];
  const TITLE: Record<TabId, string> = {
    reservoir: "What the reservoir will do",
    pedal: "Strokes until it is firm",
    fluid: "What may go in",
    bleed: "Bled, and proved",
    leaks: "Held hard, and dry",
  };
  return (
    <Shell
      title="Fluid bench"
      sub="with no job"
      keys={{
        ...(tab === "pedal" ? { Space: "Count one stroke", F: "Firm" } : {}),
        ...(tab === "leaks" ? { Space: "Start or stop the clock" } : {}),
        Enter: "Next field",
        ...Object.fromEntries(TABS.map(([, name], i) => [String(i + 1), name])),
      }}
    >
      <Tabs.Root
        value={tab}
        onValueChange={(id) => setQuery({ tab: id }, { replace: true })}
        className={COLUMNS}
      >
        <section className={KNOWN} aria-label="What you know">
          <div className="flex flex-shrink-0">
            <TabList label="Fluid bench" tabs={TABS} />
          </div>
          {tab !== "leaks" && picker}
          {tab === "reservoir" && (
            <>
              <Choice
                label="Its volume"
                value={measured ? "sides" : "sheet"}
                options={[
                  ["sheet", "from the sheet"],
                  ["sides", "measure its sides"],
                ]}
                onChange={(t) => set("from", t)}
              />
              <div className="grid grid-cols-2 gap-2">
                {measured ? (
                  <>
                    {field("length", "Length or diameter, mm", 4, "lengthMm")}
                    {field("width", "Width, mm; empty when round", 5, "widthMm")}
                    {field("height", "MIN to MAX, mm", 6, "minToMaxMm")}
                    {field("brim", "MAX to the brim, mm", 7, "maxToBrimMm")}
                    {field("wall", "Wall, mm", 8, "wallMm")}
                  </>
                ) : (
                  <>
                    {field("band", "MIN to MAX, mL", 4, "reservoir.bandMl")}
                    {field("head", "MAX to the brim, mL", 5, "reservoir.headspaceMl")}
                  </>
                )}
                {field("level", "Level now, % of MIN to MAX", 9, "levelPercent")}
                {pistons}
              </div>
              <Choice
                label="House rule"
                value={rule}
                options={[
                  ["draw-off", "draw off the excess"],
                  ["open-bleeder", "bleed screw open"],
                ]}
                onChange={(t) => set("room", t)}
              />
            </>
          )}
          {tab === "pedal" && (
            <>
              <div className="grid grid-cols-2 gap-2">
                {field("master", "Master cylinder bore, mm", 4, "masterDiameterMm")}
                {field("stroke", "Its piston's stroke, mm", 5, "masterStrokeMm")}
                {pistons}
              </div>
              <Choice
                label="Circuits"
                value={(v.split || sheet?.hydraulics?.split || "by-axle") as "by-axle" | "diagonal"}
                options={[
                  ["by-axle", "both rears on one"],
                  ["diagonal", "one rear each"],
                ]}
                onChange={(t) => set("split", t)}
              />
              <Choice
                label="House rule"
                value={(v.pump ?? "half-strokes") as Schemas["PumpRule"]}
                options={[
                  ["half-strokes", "slow half strokes"],
                  ["full-strokes", "full strokes"],
                ]}
                onChange={(t) => set("pump", t)}
              />
              <button
                type="button"
                className="btn"
                aria-pressed={v.simulated === "yes"}
                onClick={() => set("simulated", v.simulated === "yes" ? "no" : "yes")}
              >
                The pedal's feel is simulated
              </button>
            </>
          )}
          {tab === "fluid" && (
            <div className="grid grid-cols-2 gap-2">
              {select("cap", "The cap says", GRADE, "DOT 4 until you say", sheet?.hydraulics?.fluid)}
              {select("bottle", "In the bottle", GRADE, "nothing goes in")}
              {field("water", "Water by test pen, %", 0, "waterPercent")}
              {field("hottest", "Hottest it gets, °C", 1, "hottestCelsius")}
            </div>
          )}
          {tab === "bleed" && (
            <>
              <p className="m-0 text-[15px] text-ink-2">What was opened</p>
              <div className="grid grid-cols-2 gap-2">
                {(Object.entries(OPENING) as [Schemas["CircuitOpening"], string][]).map(([k, name]) => (
                  <button
                    key={k}
                    type="button"
                    className="btn"
                    aria-pressed={v[`open ${k}`] === "yes"}
                    onClick={() => set(`open ${k}`, v[`open ${k}`] === "yes" ? "no" : "yes")}
                  >
                    {name}
                  </button>
                ))}
              </div>
              <Choice
                label="Where"
                value={corner}
                options={[
                  ["left", "left"],
                  ["right", "right"],
                  ["both", "both"],
                ]}
                onChange={(t) => set("corner", t)}
              />
              <div className="grid grid-cols-2 gap-2">
                {select("method", "How", METHOD)}
                {field("band", "MIN to MAX, mL", 0, "reservoir.bandMl")}
                {field("level", "Level at the first draw, %", 1, "levelPercent")}
                <button
                  type="button"
                  className="btn"
                  onClick={() => {
                    keep([]);
                  }}
                >
                  Begin anew
                </button>
              </div>
              {bleeding.data?.decision.says.map((s, i) => (
                <p key={s} className={`m-0 text-[18px] ${i === 0 ? "font-bold" : ""}`}>
                  {s}
                </p>
              ))}
            </>
          )}
          {tab === "leaks" && (
            <p className="m-0 text-[18px]">
              Corroded pipes and cracked hoses are looked for before the pedal is pressed hard. Hold it hard,
              against the clock; then wash the bleed screw and banjo down, wait, and look again.
            </p>
          )}
        </section>
        <Tabs.Content value={tab} className={ANSWER}>
          <div className="flex flex-shrink-0 items-start justify-between gap-2">
            <h2 className="text-[31px]">{TITLE[tab]}</h2>
            {reasons && <Why reasons={[reasons]} />}
          </div>
          {tab === "reservoir" &&
            (reservoir ? (
              <>
                <ReservoirSays answer={reservoir} />
                <ReservoirLevels spec={reservoir.spec} stages={stagesOf(reservoir)} />
              </>
            ) : (
              <p className="m-0 text-[18px]">
                Wanted: its volume, the level now, and how far the pistons go back.
              </p>
            ))}
          {tab === "pedal" &&
            (strokes ? (
              <PedalCount
                answer={strokes}
                counted={counted}
                firm={firm}
                count={count}
                setFirm={setFirm}
                reset={() => {
                  setCounted(0);
                  setFirm(false);
                }}
                keys
              />
            ) : (
              <p className="m-0 text-[18px]">
                Wanted: master cylinder bore and stroke, and how far the pistons go back.
              </p>
            ))}
          {tab === "fluid" && asked.data?.fluid && <FluidSays answer={asked.data.fluid} />}
          {tab === "bleed" && bleeding.data?.bleed && (
            <BleedPanel
              answer={bleeding.data.bleed}
              draws={lines}
              name="Drawn"
              error={null}
              note={async (draw) => {
                await take(
                  api.POST("/api/bench/bleeding", {
                    body: {
                      ...bleed,
                      bleed: bleed.bleed && { ...bleed.bleed, draws: [...draws, draw] },
                    },
                  }),
                );
                keep([...lines, { draw, struckBecause: null }]);
              }}
              strike={(drawId, reason) => {
                keep(lines.map((l) => (l.draw.id === drawId ? { ...l, struckBecause: reason } : l)));
                return Promise.resolve();
              }}
            />
          )}
          {tab === "bleed" && bleeding.data && !bleeding.data.bleed && (
            <p className="m-0 text-[18px]">
              Wanted: MIN to MAX and the level at the first draw; then the draws before filling are counted.
            </p>
          )}
          {tab === "leaks" && <LeakTimer keys />}
          <ProblemNote
            error={error instanceof ApiError && error.problem.errors?.length === 1 ? null : error}
          />
        </Tabs.Content>
      </Tabs.Root>
    </Shell>
  );
}
