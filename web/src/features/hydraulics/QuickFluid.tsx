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
import { useBenchSheet, type SheetFigures } from "../measuring/bench/sheet";
import { ANSWER, COLUMNS, KNOWN } from "../retraction/columns";
import { BleedPanel } from "./BleedPanel";
import { FluidFields } from "./FluidFields";
import { FluidSays } from "./FluidSays";
import { LeakTimer } from "./LeakTimer";
import { bleedRequest, fluidRequest, type Typed } from "./model";
import { PedalCount } from "./PedalCount";
import { ReservoirLevels, ReservoirSays, stagesOf } from "./ReservoirLevels";
import { TABS, type TabId } from "./words";

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
  const typed: Typed = { v, number, sheet };
  const body = fluidRequest(tab, typed, counted, firm);
  const asked = useQuery({
    queryKey: ["bench", "fluid", body],
    queryFn: () => take(api.POST("/api/bench/fluid", { body })),
    enabled: tab === "reservoir" || tab === "fluid" || tab === "pedal",
    placeholderData: keepPreviousData,
    retry: false,
    staleTime: Infinity,
  });
  const bleed = bleedRequest(typed, draws);
  const bleeding = useQuery({
    queryKey: ["bench", "bleeding", bleed],
    queryFn: () => take(api.POST("/api/bench/bleeding", { body: bleed })),
    enabled: tab === "bleed",
    placeholderData: keepPreviousData,
    retry: false,
    staleTime: Infinity,
  });
  const error = tab === "bleed" ? bleeding.error : asked.error;
  useKeys(
    Object.fromEntries(
      TABS.map(([id], i) => [String(i + 1), () => setQuery({ tab: id }, { replace: true })]),
    ),
  );
  const count = () => setCounted((c) => c + 1);
  const { reservoir, strokes } = asked.data ?? {};
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
          <FluidFields
            tab={tab}
            typed={typed}
            set={set}
            figures={figures}
            error={error}
            decision={bleeding.data?.decision.says ?? []}
            beginAnew={() => keep([])}
          />
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
