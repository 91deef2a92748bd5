import { newId } from "../../app/ids";
import { useQuery } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { ApiError, occurredAt, type Schemas, type Side } from "../../app/api";
import { queries } from "../../app/queries";
import { useCatalogue } from "../../app/hooks";
import { fromMm, toMm } from "../../app/units";
import type { FromSheet } from "./bench/sheet";
import { at, pointKey, type Bench, type Point } from "./readings";

export const useInstruments = () => useQuery(queries.instruments);

/** Moves on as a gauge's Enter does: the next point, or the primary action's focus; never a click. */
export function next(index: number) {
  (
    document.querySelector<HTMLElement>(`[data-reading="${index + 1}"]`) ??
    document.querySelector<HTMLElement>(".btn-primary")
  )?.focus();
}

/** One point: typed, or sent by a gauge as digits and Enter. Taken readings show; another one adds to them. */
export function ReadingField({
  bench,
  side,
  point,
  label,
  index,
  celsius = null,
}: {
  bench: Bench;
  side: Side;
  point: Point;
  label: string;
  index: number;
  celsius?: number | null;
}) {
  const key = pointKey(side, point);
  const stored = at(bench.source, side, point);
  const last = stored[stored.length - 1];
  const typed = bench.typing[key] ?? "";
  const tool = useInstruments().data?.find((i) => i.instrument.id === last?.instrumentId)?.instrument;
  // As its instrument shows it: 190.90 on one that reads to 0.05.
  // An inch display carries one more.
  const decimals = tool
    ? (String(tool.resolutionMm).split(".")[1] ?? "").length + (bench.unit === "inch" ? 1 : 0)
    : 0;
  const shown = last ? fromMm(last.valueMm, bench.unit, decimals) : "";
  const [focused, setFocused] = useState(false);
  const [wrong, setWrong] = useState<string | null>(null);
  const [flash, setFlash] = useState(false);
  const sending = useRef(false);
  const commit = async (text: string) => {
    const mm = toMm(text, bench.unit);
    if (mm === null || sending.current) return;
    if (Number.isNaN(mm)) return setWrong("A plain figure is wanted.");
    sending.current = true;
    try {
      await bench.source.take(side, [
        {
          id: newId(),
          ...point,
          valueMm: Number(mm.toFixed(6)),
          instrumentId: bench.instrument(point.measurand),
          celsius,
          at: occurredAt(),
        },
      ]);
      bench.type(key, "");
      setWrong(null);
      setFlash(true);
      setTimeout(() => setFlash(false), 160);
    } catch (e) {
      setWrong(
        e instanceof ApiError
          ? (e.problem.errors?.[0]?.message ?? e.problem.because?.[0] ?? e.problem.title)
          : "No answer from the server. What you typed is still here.",
      );
    } finally {
      sending.current = false;
    }
  };
  return (
    <div className="min-w-0">
      <label className={`field ${flash ? "!border-measure !bg-fluid" : ""}`}>
        <span className="!flex justify-between gap-1">
          <span className="truncate">{label}</span>
          {stored.length > 1 && <b className="text-ink">×{stored.length}</b>}
        </span>
        <input
          data-reading={index}
          data-place={point.place}
          inputMode="decimal"
          aria-label={label}
          value={typed || (focused ? "" : shown)}
          placeholder={shown}
          aria-invalid={wrong !== null}
          onFocus={() => setFocused(true)}
          onBlur={(e) => {
            setFocused(false);
            if (typed) void commit(e.currentTarget.value);
          }}
          onChange={(e) => {
            setWrong(null);
            bench.type(key, e.target.value);
          }}
          onKeyDown={(e) => {
            if (e.key !== "Enter") return;
            e.preventDefault();
            void commit(e.currentTarget.value);
            next(index);
          }}
        />
      </label>
      {wrong && <p className="wrong m-0 mt-1">{wrong}</p>}
    </div>
  );
}

/** A fact typed in words or figures. In a job it is stored when one leaves the field. */
export function FactField({
  label,
  value,
  onChange,
  wrong,
  index,
  text = false,
  live = true,
  sheet,
}: {
  label: string;
  value: string | number | null;
  onChange: (value: string | null) => void;
  wrong?: string | undefined;
  index?: number;
  text?: boolean;
  live?: boolean;
  /** What the chosen spec sheet says here: it counts while nothing is typed. */
  sheet?: FromSheet | undefined;
}) {
  const [typed, setTyped] = useState<string | null>(null);
  const shown = typed ?? (value === null ? "" : String(value));
  const bad = !text && Number.isNaN(Number(shown.replace(",", ".")));
  const commit = (t: string) => {
    setTyped(null);
    if (!bad) onChange(t.trim() === "" ? null : text ? t : t.replace(",", "."));
  };
  return (
    <div className="min-w-0">
      <label className="field">
        <span className="!flex justify-between gap-1">
          <span className="truncate max-[420px]:overflow-visible max-[420px]:whitespace-normal">{label}</span>
          {sheet && shown === "" && <b className="flex-shrink-0 text-measure">{sheet.code}</b>}
        </span>
        <input
          data-reading={index}
          inputMode={text ? "text" : "decimal"}
          aria-label={label}
          aria-description={sheet && shown === "" ? `${sheet.figure}, from sheet ${sheet.code}` : undefined}
          placeholder={sheet ? String(sheet.figure) : undefined}
          value={shown}
          aria-invalid={bad || !!wrong}
          onChange={(e) => {
            setTyped(e.target.value);
            const t = e.target.value.replace(",", ".");
            if (live && (text || !Number.isNaN(Number(t))))
              onChange(t.trim() === "" ? null : text ? e.target.value : t);
          }}
          onBlur={() => typed !== null && commit(typed)}
          onKeyDown={(e) => {
            if (e.key !== "Enter" || index === undefined) return;
            e.preventDefault();
            if (typed !== null) commit(typed);
            next(index);
          }}
        />
      </label>
      {(bad || wrong) && <p className="wrong m-0 mt-1">{bad ? "A plain figure is wanted." : wrong}</p>}
    </div>
  );
}

/** One of a few answers. */
export function Choice<T extends string>({
  label,
  value,
  options,
  onChange,
}: {
  label: string;
  value: T;
  options: [T, string][];
  onChange: (value: T) => void;
}) {
  return (
    <fieldset className="m-0 min-w-0 border-0 p-0">
      <legend className="mb-1 text-[15px] text-ink-2">{label}</legend>
      <div className="grid auto-cols-fr grid-flow-col gap-1">
        {options.map(([key, name]) => (
          <button
            key={key}
            type="button"
            className="btn justify-center !px-2 text-center"
            aria-pressed={value === key}
            onClick={() => onChange(key)}
          >
            {name}
          </button>
        ))}
      </div>
    </fieldset>
  );
}

/** The instrument the next readings are taken with; those out of calibration say so and are refused. */
export function InstrumentSelect({ bench, measurand }: { bench: Bench; measurand: Schemas["Measurand"] }) {
  const instruments = useInstruments();
  const card = useMeasurand(measurand);
  return (
    <label className="field">
      <span>Instrument</span>
      <select
        value={bench.instrument(measurand)}
        onChange={(e) => bench.setInstrument(measurand, e.target.value)}
      >
        {instruments.data
          ?.filter(({ instrument: i }) => !card || !i.uses || i.uses.includes(card.use))
          .map(({ instrument: i, inDate }) => (
            <option key={i.id} value={i.id}>
              {i.name}, {i.resolutionMm}
              {inDate ? "" : ", out of calibration"}
            </option>
          ))}
      </select>
    </label>
  );
}

const useMeasurand = (measurand: Schemas["Measurand"]) =>
  useCatalogue().data?.measurands.find((m) => m.measurand === measurand);
