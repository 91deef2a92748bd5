import { useQueryClient, useMutation } from "@tanstack/react-query";
import { Dialog } from "radix-ui";
import { useState } from "react";
import { api, ApiError, occurredAt, take, type JobView, type Schemas, type Side } from "../../app/api";
import { newId } from "../../app/ids";
import { Overlay } from "../../ui/Overlay";
import { ProblemNote } from "../../ui/Problem";

/** Keeps a clamp meter's recording with the job: which side, what the motor did, and the file. */
export function AttachTrace({ job }: { job: JobView }) {
  const client = useQueryClient();
  const [open, setOpen] = useState(false);
  const [side, setSide] = useState<Side>("left");
  const [direction, setDirection] = useState<Schemas["TraceDirection"]>("apply");
  const keep = useMutation<unknown, ApiError | Error, { file: File; eventId: string; at: string }>({
    mutationFn: async ({ file, eventId, at }) =>
      take(
        api.POST("/api/jobs/{id}/traces", {
          params: { path: { id: job.id } },
          body: {
            eventId,
            occurredAt: at,
            side,
            direction,
            text: await file.text(),
            motor: null,
          },
        }),
      ),
    onSuccess: () => {
      setOpen(false);
      void client.invalidateQueries({ queryKey: ["job", job.id] });
    },
  });
  return (
    <Dialog.Root open={open} onOpenChange={setOpen}>
      <Dialog.Trigger className="btn">Attach a trace</Dialog.Trigger>
      <Overlay title="A clamp meter's recording">
        <p className="mt-0 text-[16px]">
          One conductor of one side, the meter zeroed, its arrow towards the motor, 100 readings a second or
          more. CSV with columns time_s and current_a.
        </p>
        <div className="grid grid-cols-2 gap-2">
          {(["left", "right"] as const).map((s) => (
            <button
              key={s}
              type="button"
              className="btn"
              aria-pressed={side === s}
              onClick={() => setSide(s)}
            >
              {s === "left" ? "Left" : "Right"}
            </button>
          ))}
          {(["apply", "release"] as const).map((d) => (
            <button
              key={d}
              type="button"
              className="btn"
              aria-pressed={direction === d}
              onClick={() => setDirection(d)}
            >
              {d === "apply" ? "It applied" : "It released"}
            </button>
          ))}
        </div>
        <label className="btn mt-3 cursor-pointer focus-within:outline-3 focus-within:outline-measure">
          Choose the file
          <input
            type="file"
            accept=".csv,text/csv,text/plain"
            className="sr-only"
            onChange={(e) => {
              const file = e.target.files?.[0];
              // Its id is made once: sent twice by a lost answer it is one trace.
              if (file) keep.mutate({ file, eventId: newId(), at: occurredAt() });
              e.target.value = "";
            }}
          />
        </label>
        <ProblemNote error={keep.error} />
      </Overlay>
    </Dialog.Root>
  );
}
