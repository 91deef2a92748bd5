import { newId } from "../../app/ids";
import { Dialog } from "radix-ui";
import { useEffect, useState } from "react";
import { api, ApiError, take, type Schemas, type Side } from "../../app/api";
import { useDraft } from "../../app/hooks";
import { ProblemNote } from "../../ui/Problem";
import type { Bench } from "./readings";

/** This browser's gauge; another browser's readings never come here. */
const GAUGE = (() => {
  const known = sessionStorage.getItem("gauge");
  if (known) return known;
  const made = newId();
  sessionStorage.setItem("gauge", made);
  return made;
})();

/** Puts what a gauge sent where one is: the digits into the field that has focus, then Enter, exactly as if typed. */
function enter(digits: string) {
  const active = document.activeElement as HTMLElement | null;
  const field = (
    active?.matches("input[data-reading]")
      ? active
      : [...document.querySelectorAll<HTMLInputElement>("input[data-reading]")].find((f) => f.value === "")
  ) as HTMLInputElement | null | undefined;
  if (!field) return;
  field.focus();
  // React listens for the browser's own setter.
  Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value")!.set!.call(field, digits);
  field.dispatchEvent(new Event("input", { bubbles: true }));
  field.dispatchEvent(new KeyboardEvent("keydown", { key: "Enter", bubbles: true }));
}

/** The stand-in gauge: choose what it will read and how much it scatters, and press its data button. */
export function GaugePanel({
  bench,
  measurand,
  practice,
}: {
  bench: Pick<Bench, "instrument" | "unit" | "setUnit">;
  measurand: Schemas["Measurand"];
  /** The corner of a practised job: then the gauge shows what is there, and nothing is chosen. */
  practice?: { jobId: string; side: Side } | null;
}) {
  const [open, setOpen] = useState(false);
  const [v, set] = useDraft("stand-in gauge");
  const [error, setError] = useState<unknown>(null);
  const instrumentId = bench.instrument(measurand);
  const { setUnit } = bench;
  useEffect(() => {
    if (!open) return;
    const stream = new EventSource(
      `/api/gauge/${GAUGE}/readings?instrumentId=${encodeURIComponent(instrumentId)}`,
    );
    stream.addEventListener("reading", (e) => {
      const reading = JSON.parse((e as MessageEvent<string>).data) as Schemas["GaugeReading"];
      // The field takes the unit that stands on the gauge's display.
      setUnit(reading.unit);
      requestAnimationFrame(() => enter(reading.digits));
    });
    return () => stream.close();
  }, [open, instrumentId, setUnit]);
  const press = async () => {
    try {
      if (practice) {
        const place = (document.activeElement as HTMLElement | null)?.dataset.place ?? "";
        const shown = await take(
          api.POST("/api/jobs/{id}/practice/point", {
            params: { path: { id: practice.jobId } },
            body: { side: practice.side, measurand, place, instrumentId },
          }),
        );
        setUnit("mm");
        requestAnimationFrame(() => enter(String(shown.valueMm)));
        setError(null);
        return;
      }
      await take(
        api.POST("/api/gauge/{bench}/press", {
          params: { path: { bench: GAUGE } },
          body: {
            instrumentId,
            sizeMm: Number((v.size ?? "0").replace(",", ".")),
            noiseMm: Number((v.noise || "0").replace(",", ".")),
            unit: bench.unit,
          },
        }),
      );
      setError(null);
    } catch (e) {
      setError(e instanceof ApiError ? e : e);
    }
  };
  const field = (key: string, label: string) => (
    <label className="field !min-h-0">
      <span>{label}</span>
      <input inputMode="decimal" value={v[key] ?? ""} onChange={(e) => set(key, e.target.value)} />
    </label>
  );
  return (
    <Dialog.Root modal={false} open={open} onOpenChange={setOpen}>
      <Dialog.Trigger className="btn" aria-pressed={open}>
        Gauge
      </Dialog.Trigger>
      <Dialog.Portal>
        <Dialog.Content
          aria-describedby={undefined}
          onOpenAutoFocus={(e) => e.preventDefault()}
          onInteractOutside={(e) => e.preventDefault()}
          className="fixed top-[60px] right-4 z-30 w-[300px] rounded border-2 border-ink bg-plate p-3 shadow-xl"
        >
          <div className="mb-2 flex items-center justify-between gap-2">
            <Dialog.Title className="text-[22px]">Stand-in gauge</Dialog.Title>
            <Dialog.Close className="btn">Close</Dialog.Close>
          </div>
          <p className="m-0 mb-2 text-[14px] text-ink-2">
            Simulated. It sends digits and Enter to the field in use, as a gauge with a data button does.
            {practice && " It shows what is there, as well as it can tell."}
          </p>
          {!practice && (
            <div className="mb-2 grid grid-cols-2 gap-2">
              {field("size", "True size, mm")}
              {field("noise", "Scatter, mm")}
            </div>
          )}
          <button
            type="button"
            className="btn w-full"
            // The field keeps its focus: a gauge has none.
            onMouseDown={(e) => e.preventDefault()}
            onClick={() => void press()}
          >
            Press its data button
          </button>
          <ProblemNote error={error} />
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
