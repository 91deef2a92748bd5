import { useMutation, useQueryClient } from "@tanstack/react-query";
import { api, take, type JobView, type Schemas } from "../../app/api";
import { useKeys } from "../../app/hooks";
import { ProblemNote } from "../../ui/Problem";
import type { Live } from "./live";

/** While a motor runs, or nobody knows whether one does. */
export function Moving({
  job,
  bench,
  live,
}: {
  job: JobView;
  bench: Schemas["ElectricBenchView"];
  live: Live | null;
}) {
  const client = useQueryClient();
  const stop = useMutation({
    mutationFn: () => take(api.POST("/api/jobs/{id}/electric/stop", { params: { path: { id: job.id } } })),
  });
  const settle = useMutation({
    mutationFn: () => take(api.POST("/api/jobs/{id}/electric/settle", { params: { path: { id: job.id } } })),
    onSuccess: () => client.invalidateQueries({ queryKey: ["job", job.id] }),
  });
  const runs = live?.running != null;
  useKeys({ escape: () => runs && stop.mutate() });
  const known = runs && !live.mayRun;
  return (
    <>
      <h2 className="text-[28px] text-outside" role="status">
        {known ? "Hands out. The motors are moving." : "Hands out. The motor may still be running."}
      </h2>
      <div className="window">
        <span className="text-[18px]">
          {!known ? "The link is" : live.stopAsked ? "Stop asked, not confirmed yet" : "Moving for"}
        </span>
        <div className="flex items-end gap-4">
          <span className="huge">{known && live.elapsedS != null ? live.elapsedS.toFixed(1) : "lost"}</span>
          {known && (
            <span className="pb-2 text-[18px]">
              s
              <br />
              {live.voltageV == null ? "volts not known" : `${live.voltageV.toFixed(1)} V under load`}
            </span>
          )}
        </div>
      </div>
      <p className="m-0 text-[17px]">
        Asked by <b>{bench.pending?.by ?? "somebody"}</b>.{" "}
        {known ? "If the link is lost now, nobody" : "Nobody"} knows where the spindles stand:{" "}
        <b>hands out</b> until the state has been read.
      </p>
      {live && !live.linked && <p className="m-0 text-[17px] font-bold">{live.says}</p>}
      <ProblemNote error={stop.error ?? settle.error} />
      <div className="bench-action mt-auto flex flex-col gap-2">
        {runs ? (
          <>
            <p className="m-0 text-[15px] text-ink-2">
              Stop asks the unit to stop. It is not a safety device.
            </p>
            <button
              type="button"
              className="btn btn-stop !min-h-20 !justify-between !px-8 !text-[34px]"
              onClick={() => stop.mutate()}
            >
              Stop <span className="keycap">Esc</span>
            </button>
          </>
        ) : (
          <button
            type="button"
            className="btn-primary"
            disabled={settle.isPending}
            onClick={() => settle.mutate()}
          >
            Ask the car how it stands
          </button>
        )}
      </div>
    </>
  );
}
