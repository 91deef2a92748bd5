import { newId } from "../../app/ids";
import { useQuery, useQueryClient, keepPreviousData } from "@tanstack/react-query";
import { useCallback, useRef, useState } from "react";
import { api, ApiError, occurredAt, take, type Schemas, type Side } from "../../app/api";
import { useDraft } from "../../app/hooks";
import { toMm, useLengthUnit, type LengthUnit } from "../../app/units";

export type Reading = Schemas["ReadingIn"];

/** Where a reading is taken: what, where, at which angle. */
export interface Point {
  measurand: Schemas["Measurand"];
  place: string;
  directionDeg: number | null;
}

/** A reading with its corner, and why it was struck out if it was. */
export interface Taken {
  side: Side;
  reading: Reading;
  struck: string | null;
}

/** Where readings are kept: in a job, as events; or in this browser until they are attached to one. */
export interface ReadingSource {
  jobId: string | null;
  all: Taken[];
  take: (side: Side, readings: Reading[]) => Promise<void>;
  strike: (id: string, reason: string) => Promise<void>;
  clear: () => void;
}

const same = (r: Point, p: Point) =>
  r.measurand === p.measurand && r.place === p.place && r.directionDeg === p.directionDeg;

export const standing = (source: ReadingSource, side: Side) =>
  source.all.filter((t) => t.side === side && t.struck === null).map((t) => t.reading);

export const at = (source: ReadingSource, side: Side, point: Point) =>
  standing(source, side).filter((r) => same(r, point));

export const pointKey = (side: Side, p: Point) => `${side} ${p.measurand} ${p.place} ${p.directionDeg ?? ""}`;

/** Readings of a quick bench, kept in this browser. What the bench could not judge is refused like in a job. */
export function useQuickReadings(
  bench: string,
  check: (side: Side, readings: Reading[]) => Promise<unknown>,
): ReadingSource {
  const key = `quick readings ${bench}`;
  const [all, setAll] = useState<Taken[]>(() => {
    try {
      return JSON.parse(localStorage.getItem(key) ?? "[]") as Taken[];
    } catch {
      return [];
    }
  });
  const latest = useRef(all);
  const keep = (next: Taken[]) => {
    latest.current = next;
    localStorage.setItem(key, JSON.stringify(next));
    setAll(next);
  };
  return {
    jobId: null,
    all,
    take: async (side, readings) => {
      const before = latest.current.filter((t) => t.side === side && t.struck === null).map((t) => t.reading);
      await check(side, [...before, ...readings]);
      keep([...latest.current, ...readings.map((reading) => ({ side, reading, struck: null }))]);
    },
    strike: async (id, reason) =>
      keep(latest.current.map((t) => (t.reading.id === id ? { ...t, struck: reason } : t))),
    clear: () => keep([]),
  };
}

export const useJobBenches = (jobId: string) =>
  useQuery({
    queryKey: ["job", jobId, "benches"],
    queryFn: () => take(api.GET("/api/jobs/{id}/benches", { params: { path: { id: jobId } } })),
  });

/** A new header for a command that never waits for a version. */
export const header = () => ({ eventId: newId(), occurredAt: occurredAt() });

/** Readings of a job, each stored as it is taken. */
export function useJobReadings(
  jobId: string,
  view: Schemas["JobBenchView"] | undefined,
): ReadingSource & { changed: () => Promise<unknown> } {
  const client = useQueryClient();
  const changed = useCallback(() => client.invalidateQueries({ queryKey: ["job", jobId] }), [client, jobId]);
  const path = { params: { path: { id: jobId } } };
  return {
    jobId,
    all: (view?.readings ?? []).map(({ side, reading: { instrument, ...rest }, struckBecause }) => ({
      side,
      reading: { ...rest, instrumentId: instrument.id },
      struck: struckBecause,
    })),
    take: async (side, readings) => {
      await take(api.POST("/api/jobs/{id}/readings", { ...path, body: { ...header(), side, readings } }));
      await changed();
    },
    strike: async (readingId, reason) => {
      await take(
        api.POST("/api/jobs/{id}/readings/strike", { ...path, body: { ...header(), readingId, reason } }),
      );
      await changed();
    },
    clear: () => {},
    changed,
  };
}

/** What the fields of a bench share: where readings go, with which instrument, and what is being typed. */
export interface Bench {
  source: ReadingSource;
  unit: LengthUnit;
  setUnit: (unit: LengthUnit) => void;
  instrument: (measurand: Schemas["Measurand"]) => string;
  setInstrument: (measurand: Schemas["Measurand"], id: string) => void;
  typing: Record<string, string>;
  type: (key: string, text: string) => void;
  /** Readings of a corner, those being typed included. */
  live: (side: Side) => Reading[];
  /** Those of a corner that are being typed and stored nowhere. */
  unsaved: (side: Side) => Reading[];
  isTyping: boolean;
}

const USUAL: Record<Schemas["Measurand"], string> = {
  "drum-diameter": "drum-gauge",
  "new-drum-diameter": "drum-gauge",
  ridge: "depth-gauge",
  "over-shoes": "caliper",
  "shoe-lining": "depth-gauge",
  "rotor-thickness": "micrometer",
  "rotor-runout": "dial",
  "pad-lining": "depth-gauge",
};

export function useBench(name: string, source: ReadingSource): Bench {
  const [unit, setUnit] = useLengthUnit();
  const [typing, type] = useDraft(`typing ${name} ${source.jobId ?? "quick"}`);
  const [chosen, choose] = useDraft(`instruments ${name}`);
  const instrument = (m: Schemas["Measurand"]) => chosen[m] ?? USUAL[m];
  const isTyping = Object.values(typing).some((t) => t.trim() !== "");
  return {
    source,
    unit,
    setUnit,
    instrument,
    setInstrument: (m, id) => choose(m, id),
    typing,
    type,
    isTyping,
    live: (side) => [...standing(source, side), ...typed(side)],
    unsaved: typed,
  };

  function typed(side: Side): Reading[] {
    return Object.entries(typing).flatMap(([key, text]): Reading[] => {
      const [corner, measurand, place, degrees] = key.split(" ") as [
        Side,
        Schemas["Measurand"],
        string,
        string,
      ];
      const mm = toMm(text, unit);
      if (corner !== side || mm === null || Number.isNaN(mm)) return [];
      return [
        {
          id: "00000000-0000-0000-0000-000000000000",
          measurand,
          place,
          directionDeg: degrees === "" ? null : Number(degrees),
          valueMm: mm,
          instrumentId: instrument(measurand),
          celsius: null,
          at: "2026-01-01T00:00:00+00:00",
        },
      ];
    });
  }
}

/**
 * Asks the core for a verdict at every keystroke. While a figure is half typed the last verdict stays: half a figure is
 * no mistake.
 */
export function useJudgement<Body, Answer>(
  name: string,
  body: Body,
  ask: (body: Body) => Promise<Answer>,
  typing: boolean,
) {
  const query = useQuery({
    queryKey: ["bench", name, body],
    queryFn: () => ask(body),
    placeholderData: keepPreviousData,
    retry: false,
    staleTime: Infinity,
  });
  const last = useRef<Answer | undefined>(undefined);
  if (query.data !== undefined) last.current = query.data;
  return {
    answer: query.data ?? (typing ? last.current : undefined),
    error: !typing && query.error instanceof Error ? query.error : null,
  };
}

/** What is known beside the readings: kept here on a quick bench, in the job otherwise. */
export function useFacts<T extends object>(
  name: string,
  initial: T,
  stored: T | undefined,
  save: ((facts: T) => Promise<unknown>) | null,
): { facts: T; change: (patch: Partial<T>) => void; error: ApiError | null; clear: () => void } {
  const key = `quick facts ${name}`;
  const [mine, setMine] = useState<T | null>(() => {
    if (save) return null;
    try {
      return JSON.parse(localStorage.getItem(key) ?? "null") as T | null;
    } catch {
      return null;
    }
  });
  const [error, setError] = useState<ApiError | null>(null);
  const facts = mine ?? stored ?? initial;
  return {
    facts,
    error,
    clear: () => {
      localStorage.removeItem(key);
      setMine(null);
    },
    change: (patch) => {
      const next = { ...facts, ...patch };
      setMine(next);
      if (!save) {
        localStorage.setItem(key, JSON.stringify(next));
        return;
      }
      save(next).then(
        () => {
          setError(null);
          setMine(null);
        },
        (e: unknown) => {
          if (e instanceof ApiError) setError(e);
        },
      );
    },
  };
}
