import { useEffect, useState } from "react";
import type { Schemas, StepBench } from "../../app/api";

export const duration = (minutes: number) => {
  const hours = Math.trunc(minutes / 60);
  return hours > 0 ? `${hours} h ${String(minutes % 60).padStart(2, "0")}` : `${minutes} min`;
};

export const clock = (iso: string) => iso.slice(11, 16);

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
