import type { Schemas } from "../../app/api";

/** The corner as one sees it beside the car: rotor, where the caliper's window points, and which way the wheel turns driving forward. */
export function CaliperSeen({ view, size = 132 }: { view: Schemas["CaliperView"]; size?: number }) {
  const clockwise = view.wheelTurns === "clockwise";
  return (
    <svg width={size} height={size} viewBox="0 0 140 140" role="img" aria-label={view.says}>
      <circle cx="70" cy="70" r="44" fill="var(--iron)" stroke="var(--ink)" strokeWidth="2" />
      <circle cx="70" cy="70" r="17" fill="var(--plate)" stroke="var(--ink)" strokeWidth="2" />
      <circle cx="70" cy="70" r="3" fill="var(--ink)" />
      <g transform={`rotate(${view.awayDeg} 70 70)`}>
        <path d="M47 40 A38 38 0 0 1 93 40 L98 20 A58 58 0 0 0 42 20 Z" fill="var(--ink)" />
        <path d="M70 16 V2" stroke="var(--measure)" strokeWidth="3" />
        <path d="M64 8 L70 0 L76 8 Z" fill="var(--measure)" />
      </g>
      <g
        transform={clockwise ? undefined : "translate(140 0) scale(-1 1)"}
        fill="none"
        stroke="var(--ink-2)"
        strokeWidth="3"
      >
        <path d="M96 97 A38 38 0 0 1 44 97" />
        <path d="M53 97 L42 94 L43 107 Z" fill="var(--ink-2)" stroke="none" />
      </g>
      <text
        x={clockwise ? 138 : 2}
        y="134"
        textAnchor={clockwise ? "end" : "start"}
        fontSize="20"
        fill="var(--ink-2)"
      >
        front
      </text>
    </svg>
  );
}
