import type { Schemas } from "../../app/api";
import { figure } from "../jobs/words";

/**
 * The piston's face with its slots where they stand, and the turning arrow as seen facing it; or a straight arrow for a push.
 * Upright is the middle of the caliper's window, away from the hub.
 */
export function PistonFace({
  ruling,
  size = 330,
  slotDeg = null,
  wantedDeg = 0,
}: {
  ruling: Pick<Schemas["Ruling"], "direction" | "slots">;
  size?: number;
  slotDeg?: number | null;
  wantedDeg?: number;
}) {
  const { direction, slots } = ruling;
  const at = slotDeg ?? 0;
  const clockwise = direction !== "anticlockwise";
  const says = direction
    ? `Piston face, ${slots || "no"} slots${slotDeg === null ? "" : `, one at ${figure(slotDeg, 0)} degrees, wanted at ${figure(wantedDeg, 0)}`}. Turn ${direction}, facing it.`
    : "Piston in its bore, pushed straight in.";
  const ink = { stroke: "var(--ink)", strokeWidth: 2 };
  if (!direction)
    return (
      <svg
        width={size}
        height={size * 0.74}
        viewBox="0 0 360 266"
        className="h-auto max-[1100px]:w-[200px]"
        role="img"
        aria-label={says}
      >
        <path d="M30 30 H210 V74 H110 V192 H210 V236 H30 Z" fill="var(--iron)" {...ink} />
        <path d="M120 84 H240 V182 H120 Z" fill="var(--plate)" {...ink} />
        <path d="M136 100 H240 M136 166 H240 M136 100 V166" fill="none" {...ink} />
        <path
          d="M196 74 C206 84 210 80 214 88 M196 192 C206 182 210 186 214 178"
          fill="none"
          stroke="var(--lining)"
          strokeWidth="7"
        />
        <path d="M346 133 H280" stroke="var(--measure)" strokeWidth="16" />
        <path d="M288 104 L252 133 L288 162 Z" fill="var(--measure)" />
        <text x="30" y="262" fontSize="15" fill="var(--ink-2)">
          bore, cut through
        </text>
      </svg>
    );
  const arc = (from: number, to: number, r: number) => {
    const at = (deg: number) =>
      `${180 + r * Math.sin((deg * Math.PI) / 180)} ${180 - r * Math.cos((deg * Math.PI) / 180)}`;
    return `M${at(from)} A${r} ${r} 0 0 1 ${at(to)}`;
  };
  return (
    <svg
      width={size}
      height={size}
      viewBox="0 0 360 360"
      className="h-auto max-[1100px]:w-[200px]"
      role="img"
      aria-label={says}
    >
      <circle cx="180" cy="180" r="136" fill="var(--lining)" {...ink} />
      <circle cx="180" cy="180" r="127" fill="none" stroke="var(--ink)" strokeWidth="1" />
      <circle cx="180" cy="180" r="114" fill="var(--iron)" {...ink} />
      {Array.from({ length: slots }, (_, i) => (
        <rect
          key={i}
          x="166"
          y="82"
          width="28"
          height={slots === 4 ? 98 : 46}
          fill="var(--ink)"
          transform={`rotate(${at + (i * 360) / slots} 180 180)`}
        />
      ))}
      {slots === 4 && (
        <rect x="166" y="166" width="28" height="28" fill="var(--ink)" transform={`rotate(${at} 180 180)`} />
      )}
      <g transform={`rotate(${wantedDeg} 180 180)`}>
        <path d="M180 22 V338" stroke="var(--measure)" strokeWidth="1.6" strokeDasharray="14 5 3 5" />
        {(slots > 0 ? [110, 250] : []).map((y) => (
          <circle key={y} cx="180" cy={y} r="9" fill="var(--plate)" stroke="var(--measure)" strokeWidth="3" />
        ))}
      </g>
      {slotDeg !== null && slots > 0 && (
        <g transform={`rotate(${at} 180 180)`}>
          <path d="M180 66 V26" stroke="var(--measure)" strokeWidth="3" />
        </g>
      )}
      <g transform={clockwise ? undefined : "translate(360 0) scale(-1 1)"}>
        <path d={arc(30, 118, 160)} fill="none" stroke="var(--ink)" strokeWidth="11" />
        <path d={arc(210, 298, 160)} fill="none" stroke="var(--ink)" strokeWidth="11" />
        {[124, 304].map((deg) => (
          <g key={deg} transform={`rotate(${deg} 180 180)`}>
            <path d="M180 2 V40 L208 20 Z" fill="var(--ink)" />
          </g>
        ))}
      </g>
    </svg>
  );
}
