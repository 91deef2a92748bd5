import { useState } from "react";
import { useParams } from "react-router";
import { api, take, type Side } from "../../app/api";
import { useDraft } from "../../app/hooks";
import { useThisJob } from "../jobs/JobFrame";
import { AttachDialog } from "../measuring/AttachDialog";
import { fromSheet, useBenchSheet } from "../measuring/bench/sheet";
import {
  header,
  useBench,
  useFacts,
  useJobBenches,
  useJobReadings,
  useQuickReadings,
} from "../measuring/readings";
import { Rotor } from "./Rotor";
import { Facts, NOTHING, ask } from "./model";

/** Thickness, variation, runout: keep, machine, replace, turn on the studs or clean the hub; with no job. */
export function QuickRotor() {
  const [cleared, setCleared] = useState(0);
  return <QuickRotorBench key={cleared} onCleared={() => setCleared(cleared + 1)} />;
}

function QuickRotorBench({ onCleared }: { onCleared: () => void }) {
  const { sheet, picker } = useBenchSheet();
  const spec = sheet?.rotor ?? null;
  const { facts, change, clear } = useFacts<Facts>("rotor", NOTHING, undefined, null);
  const [draft, setDraft] = useDraft("rotor side");
  const side: Side = draft.side === "right" ? "right" : "left";
  const source = useQuickReadings("rotor", (_, readings) => ask({ side, readings, facts, spec }));
  const bench = useBench("rotor", source);
  return (
    <Rotor
      job={null}
      side="left"
      corner={side}
      onCorner={(s) => setDraft("side", s)}
      bench={bench}
      facts={facts}
      change={change}
      spec={spec}
      picker={picker}
      stamped={fromSheet(
        sheet && { code: sheet.code, of: { stamp: sheet.rotor.minimumThicknessMm } },
        "stamp",
      )}
      clear={() => {
        source.clear();
        clear();
        for (const key of Object.keys(bench.typing)) bench.type(key, "");
        onCleared();
      }}
      attach={
        <AttachDialog
          source={source}
          sided={false}
          to={(jobId, s) => `/jobs/${jobId}/rotor/${s}`}
          facts={{ rotor: facts }}
        />
      }
    />
  );
}

/** The rotor bench of a corner of a job. */
export function JobRotor() {
  const { side } = useParams();
  const corner: Side = side === "right" ? "right" : "left";
  return <CornerRotor key={corner} side={corner} />;
}

function CornerRotor({ side }: { side: Side }) {
  const job = useThisJob();
  const view = useJobBenches(job.id);
  const source = useJobReadings(job.id, view.data);
  const bench = useBench(`rotor ${side}`, source);
  const { facts, change, error } = useFacts<Facts>(
    `rotor ${side}`,
    NOTHING,
    side === "left" ? view.data?.leftRotor : view.data?.rightRotor,
    async (next) => {
      await take(
        api.POST("/api/jobs/{id}/rotor-looked", {
          params: { path: { id: job.id } },
          body: { ...header(), side, facts: next },
        }),
      );
      await source.changed();
    },
  );
  return (
    <Rotor
      job={job}
      side={side}
      corner={side}
      bench={bench}
      facts={facts}
      change={change}
      factError={error}
      spec={view.data?.rotor ?? null}
      clear={() => {}}
      attach={null}
    />
  );
}
