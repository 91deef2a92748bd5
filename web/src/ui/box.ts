import { useEffect, useState } from "react";

/** The size a drawing gets, so that it is laid out for it and never scaled down as a picture. */
export function useBox<T extends HTMLElement>(): [(at: T | null) => void, { width: number; height: number }] {
  const [at, ref] = useState<T | null>(null);
  const [box, setBox] = useState({ width: 0, height: 0 });
  useEffect(() => {
    if (!at) return;
    const watch = new ResizeObserver(([entry]) => {
      const { width, height } = entry!.contentRect;
      setBox({ width: Math.trunc(width), height: Math.trunc(height) });
    });
    watch.observe(at);
    return () => watch.disconnect();
  }, [at]);
  return [ref, box];
}
