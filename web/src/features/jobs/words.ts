import { useEffect, useState } from "react";
import { occurredAt, type Schemas, type StepBench } from "../../app/api";

export const duration = (minutes: number) => {
  const hours = Math.trunc(minutes / 60);
  return hours > 0 ? `${hours} h ${String(minutes % 60).padStart(2, "0")}` : `${minutes} min`;
};

/** A time of day, in the time zone of whoever reads it. */
export const clock = (iso: string) => occurredAt(new Date(iso)).slice(11, 16);

/** A day and time, in the time zone of whoever reads it: one list never mixes two. */
export const moment = (iso: string) => occurredAt(new Date(iso)).slice(0, 16).replace("T", " ");

export const sideWord = (side: Schemas["Side"] | null) => (side ? `, ${side}` : "");

export const stepTitle = (b: StepBench) => `${b.name}${sideWord(b.step.side)}`;

/** A figure as the trade writes it: at most the decimals given, no needless zeros. */
export const figure = (value: number, decimals = 1) => String(Number(value.toFixed(decimals)));

const SHORT = "(max-height: 790px)";

/** True where a browser leaves little height. */
export function useShortScreen() {
  const [short, setShort] = useState(() => matchMedia(SHORT).matches);
  useEffect(() => {
    const media = matchMedia(SHORT);
    const onChange = () => setShort(media.matches);
    media.addEventListener("change", onChange);
    return () => media.removeEventListener("change", onChange);
  }, []);
  return short;
}

/** What a job is for where no real car stands behind it; empty for a real one. */
export const PURPOSE: Record<Schemas["JobPurpose"], string> = {
  real: "",
  demo: "Demo, no real car",
  practice: "Practice, no real car",
  test: "Test, no real car",
};

export const SCOPES: [Schemas["JobScope"], string][] = [
  ["pads", "Pads"],
  ["pads-and-rotors", "Pads and rotors"],
  ["shoes", "Parking shoes"],
  ["pads-and-shoes", "Pads, shoes"],
  ["pads-rotors-and-shoes", "Pads, rotors, shoes"],
  ["inspect", "Nothing: inspect"],
];
