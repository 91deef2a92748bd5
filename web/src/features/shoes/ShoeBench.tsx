import { useState } from "react";
import { useParams } from "react-router";
import { api, take, type Schemas, type Side } from "../../app/api";
import { useDraft } from "../../app/hooks";
import { typedNumber } from "../../app/units";
import { useThisJob } from "../jobs/JobFrame";
import { AttachDialog } from "../measuring/AttachDialog";
import { useBenchSheet, type SheetFigures } from "../measuring/bench/sheet";
import {
  header,
  useBench,
  useFacts,
  useJobBenches,
  useJobReadings,
  useQuickReadings,
  type Reading,
} from "../measuring/readings";
import { Shoes } from "./Shoes";
import { Facts, NOTHING, NO_SPEC, SPEC_FIELDS, Spec, ask } from "./model";

/** Drum against its maximum, shoes against the drum, and the clicks to the target; with no job. */
export function QuickShoes() {
  const [cleared, setCleared] = useState(0);
  return <QuickShoeBench key={cleared} onCleared={() => setCleared(cleared + 1)} />;
}

function QuickShoeBench({ onCleared }: { onCleared: () => void }) {
  const { sheet, picker } = useBenchSheet();
  const figures: SheetFigures | null = sheet && {
    code: sheet.code,
    of: {
      ...Object.fromEntries(SPEC_FIELDS.map(([k]) => [k, sheet.drum?.[k]])),
      stamp: sheet.drum?.maximumMm,
    },
  };
  const { facts, change, clear } = useFacts<Facts>("shoes", NOTHING, undefined, null);
  const [typedSpec, setSpec, clearSpec] = useDraft("shoe sheet");
  const spec: Spec = {
    ...(sheet?.drum ?? NO_SPEC),
    ...Object.fromEntries(
      SPEC_FIELDS.map(([k]) => {
        const n = typedNumber(typedSpec[k] ?? "");
        return [k, n === null || Number.isNaN(n) ? (sheet?.drum?.[k] ?? null) : n];
      }),
    ),
  };
  const body = (readings: Reading[]): Schemas["ShoesRequest"] => ({
    readings,
    facts,
    spec,
    newDrum: false,
    tryClicks: null,
  });
  const source = useQuickReadings("shoes", (_, readings) => ask(body(readings)));
  const bench = useBench("shoes", source);
  return (
    <Shoes
      job={null}
      side="left"
      bench={bench}
      facts={facts}
      change={change}
      spec={spec}
      setSpec={(k, v) => setSpec(k, v ?? "")}
      typedSpec={typedSpec}
      figures={figures}
      picker={picker}
      clear={() => {
        source.clear();
        clear();
        clearSpec();
        for (const key of Object.keys(bench.typing)) bench.type(key, "");
        onCleared();
      }}
      attach={
        <AttachDialog
          source={source}
          sided={false}
          to={(jobId, side) => `/jobs/${jobId}/shoes/${side}`}
          facts={{ shoes: facts }}
        />
      }
    />
  );
}

/** The shoe bench of a corner of a job. */
export function JobShoes() {
  const { side } = useParams();
  const corner: Side = side === "right" ? "right" : "left";
  return <CornerShoes key={corner} side={corner} />;
}

function CornerShoes({ side }: { side: Side }) {
  const job = useThisJob();
  const view = useJobBenches(job.id);
  const source = useJobReadings(job.id, view.data);
  const bench = useBench(`shoes ${side}`, source);
  const path = { params: { path: { id: job.id } } };
  const { facts, change, error } = useFacts<Facts>(
    `shoes ${side}`,
    NOTHING,
    side === "left" ? view.data?.leftShoes : view.data?.rightShoes,
    async (next) => {
      await take(
        api.POST("/api/jobs/{id}/shoes-looked", { ...path, body: { ...header(), side, facts: next } }),
      );
      await source.changed();
    },
  );
  const wheel = side === "left" ? view.data?.leftWheel : view.data?.rightWheel;
  const note = async (loosens: Schemas["WheelWay"]) => {
    await take(
      api.POST("/api/jobs/{id}/star-wheel", { ...path, body: { ...header(), side, loosens, holeAt: 6 } }),
    );
    await source.changed();
  };
  return (
    <Shoes
      job={job}
      side={side}
      bench={bench}
      facts={facts}
      change={change}
      factError={error}
      spec={view.data?.drum ?? NO_SPEC}
      newRotors={view.data?.newRotors ?? false}
      sides={view.data?.sides ?? null}
      wheel={wheel ?? null}
      onWheel={(way) => void note(way)}
      clear={() => {}}
      attach={null}
    />
  );
}
