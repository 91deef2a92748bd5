import { useSyncExternalStore } from "react";
import { outbox, subscribe } from "./kept";

export type LengthUnit = "mm" | "inch";

/** A choice of whoever works here, kept in this browser under their name; who is not signed in has one too. */
function personal<T extends string>(name: string, values: readonly [T, ...T[]]) {
  const listeners = new Set<() => void>();
  const key = () => `${name} ${outbox().hand?.id ?? ""}`.trim();
  const read = (): T => {
    const kept = localStorage.getItem(key()) ?? localStorage.getItem(name);
    return values.find((v) => v === kept) ?? values[0];
  };
  const choose = (next: T) => {
    localStorage.setItem(key(), next);
    listeners.forEach((l) => l());
  };
  const listen = (changed: () => void) => {
    listeners.add(changed);
    const deaf = subscribe(changed);
    return () => {
      listeners.delete(changed);
      deaf();
    };
  };
  return (): [T, (next: T) => void] => [useSyncExternalStore(listen, read, read), choose];
}

/** The unit lengths are typed and shown in. The core only ever sees millimetres. */
export const useLengthUnit = personal<LengthUnit>("length unit", ["mm", "inch"]);

/** The unit a torque stands largest in; the other one stands beside it, since wrenches have either. */
export const useTorqueRead = personal<"nm" | "lbf-ft">("torque unit", ["nm", "lbf-ft"]);

const MM: Record<LengthUnit, number> = { mm: 1, inch: 25.4 };

/** A typed figure; null when nothing was typed, NaN when it is no figure. */
export function typedNumber(text: string): number | null {
  const trimmed = text.trim();
  return trimmed === "" ? null : Number(trimmed.replace(",", "."));
}

/** A typed length in mm; null when nothing was typed, NaN when it is no figure. */
export function toMm(text: string, unit: LengthUnit): number | null {
  const value = typedNumber(text);
  return value === null ? null : value * MM[unit];
}

/** A length as it is typed in a unit: no needless zeros beyond the decimals its instrument shows. */
export function fromMm(mm: number, unit: LengthUnit, decimals = 0): string {
  const value = mm / MM[unit];
  const plain = String(Number(value.toFixed(4)));
  const has = (plain.split(".")[1] ?? "").length;
  return has < decimals ? value.toFixed(decimals) : plain;
}

// What a tenth of a millimetre is to one, a few thousandths are to the other.
const FINER: Record<LengthUnit, number> = { mm: 0, inch: 2 };

/** Lengths in a unit: its name, a figure in it, and marks for an axis that goes up to a length, at most so many. */
export function lengthIn(unit: LengthUnit) {
  const name = unit === "inch" ? "in" : "mm";
  const of = (mm: number, decimals = 1) => String(Number((mm / MM[unit]).toFixed(decimals + FINER[unit])));
  const marks = (toMm: number, most: number) => {
    const steps = unit === "inch" ? [0.05, 0.1, 0.2, 0.5, 1] : [1, 2, 5, 10, 20];
    const step = steps.find((s) => toMm / MM[unit] / s <= most) ?? steps.at(-1)! * 2;
    return Array.from({ length: Math.trunc(toMm / MM[unit] / step) + 1 }, (_, i) => ({
      mm: i * step * MM[unit],
      text: String(Number((i * step).toFixed(2))),
    }));
  };
  return { name, of, marks, with: (mm: number, decimals = 1) => `${of(mm, decimals)} ${name}` };
}

/** Lengths as whoever works here reads them. */
export const useLength = () => lengthIn(useLengthUnit()[0]);

export const TORQUE_UNITS = ["nm", "lbf-ft", "lbf-in", "kgf-m"] as const;
export type TorqueUnit = (typeof TORQUE_UNITS)[number];
export const TORQUE_UNIT_NAMES: Record<TorqueUnit, string> = {
  nm: "N m",
  "lbf-ft": "lbf ft",
  "lbf-in": "lbf in",
  "kgf-m": "kgf m",
};
/** N m a unit; exact by the definitions of pound, foot and standard gravity. */
export const NM: Record<TorqueUnit, number> = {
  nm: 1,
  "lbf-ft": 1.3558179483314004,
  "lbf-in": 0.1129848290276167,
  "kgf-m": 9.80665,
};

/** A typed torque in N m, to a tenth of a millinewton metre. */
export const toNm = (value: number | null, unit: TorqueUnit | "") =>
  value === null || unit === "" ? null : Number((value * NM[unit]).toFixed(4));
