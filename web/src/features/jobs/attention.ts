import { useEffect, useRef } from "react";

/**
 * Focus goes to the heading of the new step when what had it went away with the old one: never out of a field, and never at the first look. So
 * whoever goes by keys or listens stands where the work is.
 */
export function useStepFocus(step: string) {
  const before = useRef(step);
  useEffect(() => {
    if (before.current === step) return;
    before.current = step;
    const at = document.activeElement;
    if (at === null || at === document.body || !at.isConnected) document.getElementById("step")?.focus();
  }, [step]);
}

/** Keeps the screen awake beside the car, where this browser can; it is asked again whenever the page is looked at. */
export function useAwake() {
  useEffect(() => {
    let lock: WakeLockSentinel | null = null;
    let over = false;
    const ask = async () => {
      if (document.visibilityState !== "visible" || !("wakeLock" in navigator)) return;
      // Refused with a battery that is low: then the screen sleeps as it always did.
      lock = await navigator.wakeLock.request("screen").catch(() => null);
      if (over) await lock?.release();
    };
    void ask();
    document.addEventListener("visibilitychange", ask);
    return () => {
      over = true;
      document.removeEventListener("visibilitychange", ask);
      void lock?.release();
    };
  }, []);
}
