import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, ApiError, take, type Schemas } from "../../app/api";
import { useFigures } from "../../app/hooks";
import { ProblemNote } from "../../ui/Problem";
import { Why } from "../../ui/Why";
import { fromSheet, useBenchSheet, type SheetFigures } from "../measuring/bench/sheet";
import { Choice, FactField } from "../measuring/fields";
import { ANSWER, COLUMNS, KNOWN } from "./columns";
import { AttachLog } from "./AttachLog";
import { useTurnCount } from "./count";
import { CountWindow, LogPanel, type LogLine } from "./LogBench";

export interface Kept extends LogLine {
  instrumentId: string;
}
type Checks = Schemas["StuckChecks"];

const KEY = "quick retraction log";
const NAMES: [keyof Checks & string, string][] = [
  ["methodRight", "Right method"],
  ["directionRight", "Right direction, proved"],
  ["mechanismRelaxed", "Mechanism relaxed"],
  ["roomForFluid", "Fluid can leave"],
];

function kept(): Kept[] {
  try {
    return JSON.parse(localStorage.getItem(KEY) ?? "[]") as Kept[];
  } catch {
    return [];
  }
}

/** A piston followed home with no job; the log stays in this browser until it is cleared. */
export function QuickLog({ tabs }: { tabs: React.ReactNode }) {
  const [lines, setLines] = useState<Kept[]>(kept);
  const { sheet, picker } = useBenchSheet();
  const figures: SheetFigures | null = sheet && {
    code: sheet.code,
    of: {
      home: sheet.piston.homeProtrusionMm,
      lead: sheet.piston.leadMm,
      bore: sheet.piston.diameterMm,
    },
  };
  const { v, set, number } = useFigures("quick log", figures?.of);
  const turned = v.turned !== "no";
  const good = lines.filter((l) => l.struckBecause === null);
  const count = useTurnCount("quick", Math.max(0, ...good.map((l) => l.point.turns)));
  const is = (key: string) => v[key] === "yes";
  const toggle = (key: string) => set(key, is(key) ? "no" : "yes");
  const body = (points: Schemas["LogPoint"][], instrumentId: string): Schemas["LogRequest"] => ({
    points,
    turned,
    homeProtrusionMm: number("home"),
    leadMm: turned ? number("lead") : null,
    travelMm: number("travel"),
    boresMm: number("bore") === null ? [] : [number("bore") ?? 0],
    instrumentId,
    twoStage: is("twoStage"),
    otherWayAllowed: is("otherWayAllowed"),
    checks: {
      ...(Object.fromEntries(NAMES.map(([k]) => [k, is(k) ? "yes" : "not-known"])) as Pick<
        Checks,
        "methodRight" | "directionRight" | "mechanismRelaxed" | "roomForFluid"
      >),
      pressedHarder: is("pressedHarder"),
      otherWayTried: is("otherWayTried"),
    },
    otherEffortNm: number("effort"),
    turnsNow: count.turns,
  });
  const ask = (b: Schemas["LogRequest"]) => take(api.POST("/api/bench/retraction-log", { body: b }));
  const now = body(
    good.map((l) => l.point),
    good[good.length - 1]?.instrumentId ?? "depth-gauge",
  );
  const answer = useQuery({
    queryKey: ["bench", "retraction-log", now],
    queryFn: () => ask(now),
    placeholderData: keepPreviousData,
    retry: false,
    staleTime: Infinity,
  });
  const keep = (next: Kept[]) => {
    localStorage.setItem(KEY, JSON.stringify(next));
    setLines(next);
  };
  const wrong = (field: string) => (answer.error instanceof ApiError ? answer.error.field(field) : undefined);
  const field = (key: string, label: string, name: string, index: number) => (
    <FactField
      label={label}
      index={index}
      value={v[key] || null}
      wrong={wrong(name)}
      sheet={fromSheet(figures, key)}
      onChange={(t) => set(key, t ?? "")}
    />
  );
  const log = answer.data;
  const trouble = log?.findings.some((f) => ["spinning-free", "stopped-short", "stuck"].includes(f.kind));
  return (
    <div className={COLUMNS}>
      <section className={KNOWN} aria-label="What you know">
        {tabs}
        {picker}
        <Choice
          label="The piston is"
          value={turned ? "yes" : "no"}
          options={[
            ["yes", "turned"],
            ["no", "pushed"],
          ]}
          onChange={(t) => set("turned", t)}
        />
        <div className="grid grid-cols-2 gap-2">
          {field("home", "Proud when home, mm", "homeProtrusionMm", 10)}
          {turned && field("lead", "The sheet's travel a turn, mm", "leadMm", 11)}
          {field("bore", "Piston diameter, mm", "boresMm", 12)}
          {field("travel", "Only this far, mm", "travelMm", 13)}
          {turned && field("effort", "Torque on the other side, N m", "otherEffortNm", 14)}
        </div>
        {turned && (
          <div className="grid grid-cols-2 gap-2">
            <button
              type="button"
              className="btn"
              aria-pressed={is("twoStage")}
              onClick={() => toggle("twoStage")}
            >
              Two stages, by the sheet
            </button>
            <button
              type="button"
              className="btn"
              aria-pressed={is("otherWayAllowed")}
              onClick={() => toggle("otherWayAllowed")}
            >
              Sheet allows the other way
            </button>
          </div>
        )}
        <div>
          <p className="m-0 mb-1 text-[15px] text-ink-2">
            {trouble ? "It does not move. Made sure of" : "Made sure of, should it not move"}
          </p>
          <div className="grid grid-cols-2 gap-2">
            {[
              ...NAMES,
              ["pressedHarder", "More pressure tried"] as const,
              ["otherWayTried", "Other direction tried"] as const,
            ].map(([key, name]) => (
              <button
                key={key}
                type="button"
                className="btn"
                aria-pressed={is(key)}
                onClick={() => toggle(key)}
              >
                {name}
              </button>
            ))}
          </div>
        </div>
        <div className="mt-auto grid flex-shrink-0 grid-cols-2 gap-2">
          <AttachLog
            lines={good}
            drop={(ids) => {
              const left = lines.filter((l) => !ids.includes(l.point.id));
              keep(left);
              if (left.every((l) => l.struckBecause !== null)) count.reset();
            }}
          />
          <button
            type="button"
            className="btn"
            onClick={() => {
              keep([]);
              count.reset();
            }}
          >
            Clear the bench
          </button>
        </div>
      </section>
      <section className={ANSWER} aria-label="The log">
        <div className="flex flex-shrink-0 items-start justify-between gap-2">
          <h2 className="text-[31px]">{turned ? "Turn by turn, to home" : "Stroke by stroke, to home"}</h2>
          {log && <Why reasons={[log.reasons]} />}
        </div>
        <CountWindow answer={log} count={count} turned={turned} planned={null} still={false} />
        <ProblemNote error={answer.error instanceof ApiError ? null : answer.error} />
        <LogPanel
          answer={log}
          lines={lines}
          home={number("home")}
          turned={turned}
          planned={null}
          count={count}
          active
          note={async (point, instrumentId) => {
            // What the core would refuse is not kept.
            await ask(body([...good.map((l) => l.point), point], instrumentId));
            keep([
              ...lines,
              { point, gauge: instrumentId.replaceAll("-", " "), struckBecause: null, instrumentId },
            ]);
          }}
          strike={(id, reason) => {
            keep(lines.map((l) => (l.point.id === id ? { ...l, struckBecause: reason } : l)));
            return Promise.resolve();
          }}
        />
      </section>
    </div>
  );
}
