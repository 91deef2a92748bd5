import { Dialog } from "radix-ui";
import { useState } from "react";
import { api, take, type Schemas, type Side } from "../../app/api";
import { fromMm } from "../../app/units";
import { Overlay } from "../../ui/Overlay";
import { ProblemNote } from "../../ui/Problem";
import { StrikeOut } from "../../ui/StrikeOut";
import { useInstruments } from "./fields";
import type { Bench, Taken } from "./readings";

const where = (t: Taken) =>
  [
    t.reading.measurand,
    t.reading.place,
    t.reading.directionDeg === null ? null : `${t.reading.directionDeg}°`,
  ]
    .filter(Boolean)
    .join(", ")
    .replaceAll("-", " ");

/** Every reading, to strike one out with its reason; and CSV in and out. */
export function ReadingsDialog({ bench, side }: { bench: Bench; side: Side }) {
  const [error, setError] = useState<unknown>(null);
  const [csv, setCsv] = useState("");
  const [lines, setLines] = useState<Schemas["CsvLine"][]>([]);
  const instruments = useInstruments();
  const name = (id: string) =>
    instruments.data?.find((i) => i.instrument.id === id)?.instrument.name.toLowerCase() ?? id;
  const { source, unit } = bench;
  const doing = async (work: () => Promise<void>) => {
    try {
      await work();
      setError(null);
    } catch (e) {
      setError(e);
    }
  };
  const paste = () =>
    doing(async () => {
      const read = await take(api.POST("/api/readings/csv/read", { body: { text: csv } }));
      setLines(read.lines);
      if (read.readings.length > 0) await source.take(side, read.readings);
      if (read.lines.every((l) => l.taken)) setCsv("");
    });
  const save = () =>
    doing(async () => {
      const text = source.jobId
        ? await (await fetch(`/api/jobs/${source.jobId}/readings.csv`)).text()
        : await take(
            api.POST("/api/readings/csv/write", {
              body: { readings: source.all.filter((t) => t.struck === null).map((t) => t.reading) },
              parseAs: "text",
            }),
          );
      const url = URL.createObjectURL(new Blob([text as string], { type: "text/csv" }));
      const link = document.createElement("a");
      link.href = url;
      link.download = "readings.csv";
      link.click();
      URL.revokeObjectURL(url);
    });
  const count = source.all.filter((t) => t.struck === null).length;
  return (
    <Dialog.Root>
      <Dialog.Trigger className="btn">Readings {count}</Dialog.Trigger>
      <Overlay title="Readings" wide>
        {source.all.length === 0 && <p className="m-0">None taken yet.</p>}
        <ul className="m-0 mb-4 list-none p-0">
          {source.all.map((t) => (
            <li key={t.reading.id} className="border-t border-rule py-1">
              <div className="flex flex-wrap items-center justify-between gap-2">
                <span className={t.struck === null ? "" : "text-ink-2 line-through"}>
                  <b>
                    {fromMm(t.reading.valueMm, unit)} {unit === "mm" ? "mm" : "in"}
                  </b>{" "}
                  {where(t)}, {t.side}, {name(t.reading.instrumentId)}
                </span>
                {t.struck === null ? (
                  <StrikeOut strike={(reason) => source.strike(t.reading.id, reason)} />
                ) : (
                  <span className="text-[15px] text-ink-2">{t.struck}</span>
                )}
              </div>
            </li>
          ))}
        </ul>
        <label className="field">
          <span>
            Paste readings as CSV: measurand, place, direction_deg, value_mm, instrument, for the {side}{" "}
            corner
          </span>
          <textarea
            className="mt-1 h-24 w-full resize-y border-0 bg-transparent outline-none"
            value={csv}
            onChange={(e) => setCsv(e.target.value)}
          />
        </label>
        <div className="mt-2 grid grid-cols-2 gap-2">
          <button type="button" className="btn" disabled={csv.trim() === ""} onClick={() => void paste()}>
            Take the readings in
          </button>
          <button type="button" className="btn" disabled={count === 0} onClick={() => void save()}>
            Save them as CSV
          </button>
        </div>
        {lines.map((l) => (
          <p key={l.line} className={`m-0 mt-1 text-[15px] ${l.taken ? "" : "wrong"}`}>
            Line {l.line}: {l.says}
          </p>
        ))}
        <ProblemNote error={error} />
      </Overlay>
    </Dialog.Root>
  );
}
