import { useState } from "react";
import { api, take } from "../../app/api";
import { useDraft, useFigures } from "../../app/hooks";
import { useThisJob } from "../jobs/JobFrame";
import { AttachDialog } from "../measuring/AttachDialog";
import { fromSheet, useBenchSheet, type SheetFigures } from "../measuring/bench/sheet";
import { FactField } from "../measuring/fields";
import {
  header,
  standing,
  useBench,
  useFacts,
  useJobBenches,
  useJobReadings,
  useQuickReadings,
} from "../measuring/readings";
import { FrontField, Pads } from "./Pads";
import { Facts, NOTHING, Spec, ask } from "./model";

/** Four pads, their wear and its causes, where new ones go and how long these last; with no job. */
export function QuickPads() {
  const [cleared, setCleared] = useState(0);
  return <QuickPadBench key={cleared} onCleared={() => setCleared(cleared + 1)} />;
}

function QuickPadBench({ onCleared }: { onCleared: () => void }) {
  const chosen = useBenchSheet();
  const [, , forgetSaid] = useDraft("pads said");
  const pads = chosen.sheet?.pads;
  const figures: SheetFigures | null = chosen.sheet && {
    code: chosen.sheet.code,
    of: {
      new: pads && Number((pads.newInnerTotalMm - pads.backingMm).toFixed(3)),
      least: pads?.minimumLiningMm,
    },
  };
  const { facts, change, clear } = useFacts<Facts>("pads", NOTHING, undefined, null);
  const { v: typed, set: setTyped, number: num } = useFigures("pad sheet", figures?.of);
  const fresh = num("new");
  // Typed, it is a lining and both pads alike; otherwise the sheet's pads as they are.
  const spec: Spec | null =
    pads && !typed.new
      ? { ...pads, minimumLiningMm: num("least") }
      : fresh === null
        ? null
        : { newInnerTotalMm: fresh, newOuterTotalMm: fresh, backingMm: 0, minimumLiningMm: num("least") };
  const source = useQuickReadings("pads", (side, readings) =>
    ask({
      left: side === "left" ? readings : standing(source, "left"),
      right: side === "right" ? readings : standing(source, "right"),
      facts,
      spec,
    }),
  );
  const bench = useBench("pads", source);
  return (
    <Pads
      job={null}
      bench={bench}
      facts={facts}
      change={change}
      spec={spec}
      picker={chosen.picker}
      sheet={
        <div className="grid grid-cols-3 gap-2">
          <FactField
            label="New lining, mm"
            value={typed.new || null}
            sheet={fromSheet(figures, "new")}
            onChange={(v) => setTyped("new", v ?? "")}
            index={8}
          />
          <FactField
            label="Least lining, mm"
            value={typed.least || null}
            sheet={fromSheet(figures, "least")}
            onChange={(v) => setTyped("least", v ?? "")}
            index={9}
          />
          <FrontField facts={facts} change={change} live />
        </div>
      }
      clear={() => {
        source.clear();
        clear();
        for (const key of ["new", "least"]) setTyped(key, "");
        forgetSaid();
        for (const key of Object.keys(bench.typing)) bench.type(key, "");
        onCleared();
      }}
      attach={
        <AttachDialog source={source} sided to={(jobId) => `/jobs/${jobId}/pads`} facts={{ pads: facts }} />
      }
    />
  );
}

/** The pad bench of a job: both corners of the axle. */
export function JobPads() {
  const job = useThisJob();
  const view = useJobBenches(job.id);
  const source = useJobReadings(job.id, view.data);
  const bench = useBench("pads", source);
  const { facts, change, error } = useFacts<Facts>("pads", NOTHING, view.data?.pads, async (next) => {
    await take(
      api.POST("/api/jobs/{id}/pads-looked", {
        params: { path: { id: job.id } },
        body: { ...header(), facts: next },
      }),
    );
    await source.changed();
  });
  return (
    <Pads
      job={job}
      bench={bench}
      facts={facts}
      change={change}
      factError={error}
      spec={view.data?.padSpec ?? null}
      sheet={
        <div className="grid grid-cols-3 gap-2">
          <FrontField facts={facts} change={change} live={false} />
        </div>
      }
      clear={() => {}}
      attach={null}
    />
  );
}
