import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { Tabs } from "radix-ui";
import { useState } from "react";
import { Link, useNavigate, useSearchParams } from "react-router";
import { api, ApiError, take, type Schemas, type Side } from "../../app/api";
import { useCommand, useDraft, useKeys } from "../../app/hooks";
import { ProblemNote } from "../../ui/Problem";
import { Shell } from "../../ui/Shell";
import { TabList } from "../../ui/TabList";
import { Spine } from "../../ui/Spine";
import { Why } from "../../ui/Why";
import { jobTitle, useThisJob } from "../jobs/JobFrame";
import { Choice, FactField } from "../measuring/fields";
import { ANSWER, KNOWN } from "../retraction/columns";
import { BleedPanel } from "./BleedPanel";
import { FluidSays } from "./FluidSays";
import { LeakTimer } from "./LeakTimer";
import { PedalCount } from "./PedalCount";
import { ReservoirLevels, ReservoirSays, stagesOf } from "./ReservoirLevels";
import { GRADE, METHOD, TABS } from "./words";

/** Where the job stands decides what is shown first. */
const FIRST: Record<string, (typeof TABS)[number][0]> = {
  bleed: "bleed",
  "pedal-proved": "pedal",
  "leaks-looked": "leaks",
};

/** The fluid bench of a job: everything but the counts comes from its events. */
export function JobFluid() {
  const job = useThisJob();
  const navigate = useNavigate();
  const [query, setQuery] = useSearchParams();
  const tab =
    TABS.find(([id]) => id === query.get("tab"))?.[0] ??
    FIRST[job.sheet.now?.step.stepId ?? ""] ??
    "reservoir";
  // The count is what the pedal step will ask for: it is filled in there.
  const [kept, keep] = useDraft(`${job.id} pedal-proved car`);
  const counted = Number(kept["pedal-strokes"] || "0");
  const firm = kept.firm === "yes";
  const [side, setSide] = useState<Side | null>(null);
  const view = useQuery({
    queryKey: ["job", job.id, "fluid", counted, firm],
    queryFn: () =>
      take(
        api.GET("/api/jobs/{id}/fluid", {
          params: {
            path: { id: job.id },
            query: counted === 0 && !firm ? {} : { strokes: counted, firm },
          },
        }),
      ),
    placeholderData: keepPreviousData,
  });
  const look = useCommand<Schemas["FluidFacts"]>(job, (h, facts) =>
    take(
      api.POST("/api/jobs/{id}/fluid/looked", {
        params: { path: { id: job.id } },
        body: { eventId: h.eventId, occurredAt: h.occurredAt, facts },
      }),
    ),
  );
  const draw = useCommand<{ side: Side; draw: Schemas["BleedDraw"] }>(job, (h, body) =>
    take(
      api.POST("/api/jobs/{id}/fluid/draws", {
        params: { path: { id: job.id } },
        body: { eventId: h.eventId, occurredAt: h.occurredAt, ...body },
      }),
    ),
  );
  const strike = useCommand<{ side: Side; drawId: string; reason: string }>(job, (h, body) =>
    take(
      api.POST("/api/jobs/{id}/fluid/draws/strike", {
        params: { path: { id: job.id } },
        body: { eventId: h.eventId, occurredAt: h.occurredAt, ...body },
      }),
    ),
  );
  const leaks = useCommand<Schemas["LeakInput"]>(job, (h, seen) =>
    take(
      api.POST("/api/jobs/{id}/fluid/leaks", {
        params: { path: { id: job.id } },
        body: { eventId: h.eventId, occurredAt: h.occurredAt, seen },
      }),
    ),
  );
  const facts = view.data?.facts;
  const bench = view.data?.bench;
  const corner: Side = side ?? bench?.decision.corner ?? "left";
  const bled = bench?.corners.find((c) => c.side === corner)?.bled;
  const back = () => void navigate(`/jobs/${job.id}`);
  useKeys({
    r: back,
    ...(tab === "reservoir" || tab === "fluid" ? { Space: back } : {}),
    ...Object.fromEntries(
      TABS.map(([id], i) => [String(i + 1), () => setQuery({ tab: id }, { replace: true })]),
    ),
  });
  const set = (patch: Partial<Schemas["FluidFacts"]>) => facts && look.mutate({ ...facts, ...patch });
  const number = (v: string | null) => (v === null ? null : Number(v));
  const { title, sub } = jobTitle(job);
  const grade = (
    label: string,
    value: Schemas["FluidGrade"] | null,
    none: string,
    change: (g: Schemas["FluidGrade"] | null) => void,
  ) => (
    <label className="field">
      <span>{label}</span>
      <select
        value={value ?? ""}
        onChange={(e) => change((e.target.value || null) as Schemas["FluidGrade"] | null)}
      >
        <option value="">{none}</option>
        {Object.entries(GRADE).map(([id, name]) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
      </select>
    </label>
  );
  return (
    <Shell
      title={title}
      sub={sub}
      keys={{
        ...(tab === "pedal"
          ? { Space: "Count one stroke", F: "Firm" }
          : tab === "leaks"
            ? { Space: "Start or stop the clock" }
            : {}),
        R: "Run sheet",
        ...Object.fromEntries(TABS.map(([, name], i) => [String(i + 1), name])),
      }}
      info={
        <Link to={`/jobs/${job.id}`} className="flex min-h-11 items-center">
          Run sheet
        </Link>
      }
    >
      <Tabs.Root
        value={tab}
        onValueChange={(id) => setQuery({ tab: id }, { replace: true })}
        className="grid h-full grid-cols-[152px_minmax(0,1fr)_588px] max-[1100px]:grid-cols-[124px_minmax(0,1fr)_440px] max-[800px]:flex max-[800px]:flex-col max-[800px]:overflow-auto"
      >
        <div className="max-[800px]:hidden">
          <Spine
            teeth={job.sheet.spine}
            stage={tab === "reservoir" || tab === "fluid" ? "retract" : "close"}
          />
        </div>
        <section className={KNOWN} aria-label="What is known">
          <div className="flex flex-shrink-0">
            <TabList label="Fluid bench" tabs={TABS} />
          </div>
          {bench?.reservoir &&
            view.data?.levelPercent != null &&
            (tab === "reservoir" || tab === "pedal") && (
              <ReservoirLevels spec={bench.reservoir.spec} stages={stagesOf(bench.reservoir)} />
            )}
          {facts && tab === "reservoir" && (
            <Sides facts={facts} set={(sides) => set({ sides })} error={look.error} />
          )}
          {facts && tab === "fluid" && (
            <div className="grid grid-cols-2 gap-2">
              {grade("The cap says", facts.cap, "as the sheet", (cap) => set({ cap }))}
              {grade("In the bottle", facts.bottle, "nothing goes in", (bottle) => set({ bottle }))}
              <FactField
                label="Water by test pen, %"
                value={facts.waterPercent}
                live={false}
                onChange={(v) => set({ waterPercent: number(v) })}
              />
              <FactField
                label="Hottest it gets, °C"
                value={facts.hottestCelsius}
                live={false}
                onChange={(v) => set({ hottestCelsius: number(v) })}
              />
            </div>
          )}
          {facts && tab === "bleed" && (
            <>
              <label className="field">
                <span>How</span>
                <select
                  value={facts.method}
                  onChange={(e) => set({ method: e.target.value as Schemas["BleedMethod"] })}
                >
                  {Object.entries(METHOD).map(([id, name]) => (
                    <option key={id} value={id}>
                      {name}
                    </option>
                  ))}
                </select>
              </label>
              <Choice
                label="Corner"
                value={corner}
                options={[
                  ["left", "left"],
                  ["right", "right"],
                ]}
                onChange={setSide}
              />
            </>
          )}
          {(tab === "bleed" || tab === "pedal" || tab === "reservoir") &&
            bench?.decision.says.map((s, i) => (
              <p key={s} className={`m-0 text-[17px] ${i === 0 ? "font-bold" : ""}`}>
                {s}
              </p>
            ))}
          {tab === "leaks" && (
            <p className="m-0 text-[17px]">
              Corroded pipes and cracked hoses are looked for before the pedal is pressed hard. Afterwards
              wash screw and banjo down, wait, and look again.
            </p>
          )}
          {bench?.lacks.map((l) => (
            <p key={l} className="m-0 text-[15px] text-ink-2">
              Wanted: {l}
            </p>
          ))}
          <ProblemNote error={look.error} />
        </section>
        <Tabs.Content value={tab} className={ANSWER}>
          <div className="flex flex-shrink-0 items-start justify-between gap-2">
            <h2 className="text-[31px]">Fluid bench</h2>
            {bench && (
              <Why
                reasons={[
                  ...(bench.reservoir ? [bench.reservoir.reasons] : []),
                  ...(bench.strokes ? [bench.strokes.reasons] : []),
                  ...(bench.fluid ? [bench.fluid.reasons] : []),
                  bench.decision.reasons,
                ]}
              />
            )}
          </div>
          {tab === "reservoir" &&
            (bench?.reservoir ? (
              <ReservoirSays answer={bench.reservoir} />
            ) : (
              <p className="m-0 text-[18px]">The level is read at the reservoir step of the run sheet.</p>
            ))}
          {tab === "pedal" &&
            (bench?.strokes ? (
              <PedalCount
                answer={bench.strokes}
                counted={counted}
                firm={firm}
                count={() => keep("pedal-strokes", String(counted + 1))}
                setFirm={(f) => keep("firm", f ? "yes" : "no")}
                reset={() => {
                  keep("pedal-strokes", "");
                  keep("firm", "no");
                }}
                keys
              />
            ) : (
              <p className="m-0 text-[18px]">
                Strokes are predicted once it is known how far the pistons go back, and the sheet gives the
                master cylinder.
              </p>
            ))}
          {tab === "fluid" &&
            (bench?.fluid ? (
              <FluidSays answer={bench.fluid} />
            ) : (
              <p className="m-0 text-[18px]">Say what the cap says.</p>
            ))}
          {tab === "bleed" && bled && (
            <BleedPanel
              answer={bled}
              draws={(corner === "left" ? view.data?.left : view.data?.right) ?? []}
              name={corner === "left" ? "Left" : "Right"}
              error={draw.error}
              strike={(drawId, reason) => strike.mutateAsync({ side: corner, drawId, reason })}
              note={(d) => draw.mutateAsync({ side: corner, draw: d })}
            />
          )}
          {tab === "leaks" && (
            <LeakTimer
              keys
              banjoUndone={view.data?.banjoUndone ?? false}
              note={(seen) => leaks.mutate(seen, { onSuccess: back })}
              error={leaks.error}
            />
          )}
          {tab !== "leaks" && tab !== "bleed" && (
            <Link to={`/jobs/${job.id}`} className="btn-primary mt-auto">
              To the run sheet <span className="keycap">{tab === "pedal" ? "R" : "Space"}</span>
            </Link>
          )}
        </Tabs.Content>
      </Tabs.Root>
    </Shell>
  );
}

const SIDES = [
  ["lengthMm", "Length or diameter, mm"],
  ["widthMm", "Width, mm; empty when round"],
  ["minToMaxMm", "MIN to MAX, mm"],
  ["maxToBrimMm", "MAX to the brim, mm"],
] as const;

/** The reservoir measured from outside, where the sheet's volumes are not to be trusted. */
function Sides({
  facts,
  set,
  error,
}: {
  facts: Schemas["FluidFacts"];
  set: (sides: Schemas["FluidFacts"]["sides"]) => void;
  error: unknown;
}) {
  const [typed, setTyped] = useState<Record<string, string> | null>(null);
  if (!facts.sides && !typed)
    return (
      <button type="button" className="btn self-start" onClick={() => setTyped({})}>
        Measure its sides instead of the sheet's volumes
      </button>
    );
  const shown = (key: (typeof SIDES)[number][0]) =>
    typed?.[key] ?? (facts.sides?.[key] == null ? "" : String(facts.sides[key]));
  const number = (key: (typeof SIDES)[number][0]) => {
    const text = shown(key).trim();
    return text === "" ? null : Number(text.replace(",", "."));
  };
  const [length, height] = [number("lengthMm"), number("minToMaxMm")];
  const whole = length !== null && height !== null;
  return (
    <div className="grid grid-cols-2 gap-2">
      {SIDES.map(([key, label], i) => (
        <FactField
          key={key}
          label={label}
          index={30 + i}
          value={shown(key) || null}
          wrong={error instanceof ApiError ? error.field(key) : undefined}
          onChange={(v) => setTyped({ ...typed, [key]: v ?? "" })}
        />
      ))}
      <button
        type="button"
        className="btn"
        disabled={!whole}
        onClick={() =>
          set({
            lengthMm: length ?? 0,
            widthMm: number("widthMm"),
            minToMaxMm: height ?? 0,
            maxToBrimMm: number("maxToBrimMm") ?? 0,
            wallMm: null,
          })
        }
      >
        Reckon with these
      </button>
      <button
        type="button"
        className="btn"
        onClick={() => {
          setTyped(null);
          if (facts.sides) set(null);
        }}
      >
        As the sheet says
      </button>
    </div>
  );
}
