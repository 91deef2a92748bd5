import { useCallback, useEffect, useRef, useState } from "react";

interface Count {
  turns: number;
  paused: boolean;
}

/** Turns counted at a corner, kept in this browser: a closed lid loses none. Counting rests while it is paused. */
export function useTurnCount(name: string, atLeast: number) {
  const key = `turns ${name}`;
  const [count, setCount] = useState<Count>(() => {
    try {
      return (JSON.parse(localStorage.getItem(key) ?? "null") as Count | null) ?? { turns: 0, paused: false };
    } catch {
      return { turns: 0, paused: false };
    }
  });
  const keep = useCallback(
    (change: (old: Count) => Count) =>
      setCount((old) => {
        const next = change(old);
        localStorage.setItem(key, JSON.stringify(next));
        return next;
      }),
    [key],
  );
  return {
    // A reading taken further on overtakes the count.
    turns: Math.max(count.turns, atLeast),
    paused: count.paused,
    add: (by: number) =>
      keep((c) => (c.paused ? c : { ...c, turns: Math.max(Math.max(c.turns, atLeast) + by, atLeast) })),
    pause: () => keep((c) => ({ ...c, paused: !c.paused })),
    reset: () => keep(() => ({ turns: 0, paused: false })),
  };
}

/** Says how many are left, so that the eyes stay on the boot. Off until it is asked for. */
export function useSpoken(words: string | null, when: string) {
  const [on, setOn] = useState(() => localStorage.getItem("spoken count") === "on");
  const said = useRef(when);
  useEffect(() => {
    if (!on || words === null || said.current === when || !("speechSynthesis" in window)) return;
    said.current = when;
    speechSynthesis.cancel();
    speechSynthesis.speak(new SpeechSynthesisUtterance(words));
  }, [on, words, when]);
  return {
    on,
    can: "speechSynthesis" in window,
    toggle: () => {
      localStorage.setItem("spoken count", on ? "off" : "on");
      setOn(!on);
    },
  };
}
