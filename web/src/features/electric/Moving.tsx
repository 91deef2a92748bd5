import { useMutation, useQueryClient } from "@tanstack/react-query";
import { api, ApiError, take, type JobView, type Schemas } from "../../app/api";
import { useKeys } from "../../app/hooks";
import { ProblemNote } from "../../ui/Problem";
import type { Live } from "./live";

// As long as one may wait for a Stop before it is pressed again.
const STOP_ARRIVES_MS = 2000;

/** While a motor runs, or nobody knows whether one does. */
export function Moving({
  job,
  bench,
  live,
  lost,
}: {
  job: JobView;
  bench: Schemas["ElectricBenchView"];
  live: Live | null;
  lost: boolean;
}) {
  const client = useQueryClient();
  const stop = useMutation({
    mutationFn: () =>
      take(
        api.POST("/api/jobs/{id}/electric/stop", {
          params: { path: { id: job.id } },
          // A line that swallows what is sent must not look as if it had come.
          signal: AbortSignal.timeout(STOP_ARRIVES_MS),
        }),
      ),
  });
  const settle = useMutation({
    mutationFn: () => take(api.POST("/api/jobs/{id}/electric/settle", { params: { path: { id: job.id } } })),
    onSuccess: () => client.invalidateQueries({ queryKey: ["job", job.id] }),
  });
  const runs = live?.running != null;
  useKeys({ escape: () => runs && stop.mutate() });
  const known = runs && !live.mayRun && !lost;
  return (
    <>
      <h2 className="text-[28px] text-outside" role="status">
        {motionIs(known, lost)}
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
      <ProblemNote error={settle.error ?? (stop.error instanceof ApiError ? stop.error : null)} />
      <div className="bench-action mt-auto flex flex-col gap-2">
        {runs ? (
          <>
            <p className="m-0 text-[18px]" role="status">
              {onItsWay(stop, live)}
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

function motionIs(known: boolean, lost: boolean) {
  if (known) return "Hands out. The motors are moving.";
  return lost ? "Line lost. Hands out." : "Hands out. The motor may still be running.";
}

/** Where the Stop that was pressed has got to. */
function onItsWay(stop: { isPending: boolean; isError: boolean; isSuccess: boolean }, live: Live | null) {
  if (stop.isPending) return "Stop is on its way.";
  if (stop.isError) return "Stop did not arrive: press it again, hands out.";
  if (stop.isSuccess || live?.stopAsked) return "Stop has arrived. Hands out until the motors stand.";
  return "Stop asks the unit to stop. It is not a safety device.";
}
