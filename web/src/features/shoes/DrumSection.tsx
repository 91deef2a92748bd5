import type { Schemas } from "../../app/api";
import { figure } from "../jobs/words";

/** How much the radial gap and the drum's shape are drawn larger than they are; said on the drawing. */
const EXAGGERATED = 50;

/** The drum and shoes seen facing the hub: to scale, but the radial gap and the drum's shape are drawn larger, and that is said. */
export function DrumSection({
  drum,
  readings,
  overShoesMm,
  afterMm,
}: {
  drum: Schemas["DrumVerdict"];
  readings: Schemas["DrumReading"][];
  overShoesMm: number | null;
  afterMm: number | null;
}) {
  const scale = 98 / (drum.maximum.limitMm / 2);
  const base = drum.smallestMm;
  // A radius, with what lies over the smallest diameter drawn larger.
  const radius = (diameterMm: number) => (base / 2 + ((diameterMm - base) / 2) * EXAGGERATED * 0.25) * scale;
  const plane = readings.filter((r) => r.depth === drum.largestAt.depth);
  const points = [
    ...plane.map((r) => [r.directionDeg, r.diameterMm] as const),
    ...plane.map((r) => [r.directionDeg + 180, r.diameterMm] as const),
  ]
    .sort((a, b) => a[0] - b[0])
    .map(([deg, mm]) => {
      const a = (deg * Math.PI) / 180;
      return [200 + radius(mm) * Math.cos(a), 128 - radius(mm) * Math.sin(a)] as const;
    });
  const shoe =
    overShoesMm === null ? null : (base / 2 - ((base - overShoesMm) / 2) * EXAGGERATED * 0.25) * scale;
  const set = afterMm === null ? null : (base / 2 - (afterMm / 2) * EXAGGERATED * 0.25) * scale;
  const arc = (r: number, side: 1 | -1) => {
    const [s, c] = [Math.sin(1.05), Math.cos(1.05)];
    return `M${200 + side * r * c} ${128 - r * s} A${r} ${r} 0 0 ${side === 1 ? 1 : 0} ${200 + side * r * c} ${128 + r * s}`;
  };
  const max = radius(drum.maximum.limitMm);
  const at = (drum.largestAt.directionDeg * Math.PI) / 180;
  const lx = 200 + (radius(drum.largestMm) + 22) * Math.cos(at);
  const ly = 128 - (radius(drum.largestMm) + 14) * Math.sin(at);
  return (
    <svg
      width="400"
      viewBox="0 0 400 262"
      role="img"
      aria-label={`Drum, largest ${figure(drum.largestMm, 2)} mm at ${figure(drum.largestAt.directionDeg, 0)} degrees, maximum ${figure(drum.maximum.limitMm, 2)} mm.${overShoesMm === null ? "" : ` Shoes ${figure(overShoesMm, 2)} mm.`}`}
    >
      <defs>
        <pattern id="wall" width="8" height="8" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <rect width="8" height="8" fill="var(--iron)" />
          <rect
            width="3.4"
            height="8"
            fill={
              drum.maximum.verdict === "inside"
                ? "var(--iron)"
                : drum.maximum.verdict === "outside"
                  ? "var(--outside)"
                  : "var(--undecided)"
            }
          />
        </pattern>
      </defs>
      <circle cx="200" cy="128" r={max + 12} fill="url(#wall)" stroke="var(--ink)" strokeWidth="1.6" />
      <polygon
        points={points.map((p) => p.join(",")).join(" ")}
        fill="var(--plate)"
        stroke="var(--ink)"
        strokeWidth="2.4"
        strokeLinejoin="round"
      />
      <circle
        cx="200"
        cy="128"
        r={max}
        fill="none"
        stroke="var(--outside)"
        strokeWidth="1.6"
        strokeDasharray="7 4"
      />
      {shoe !== null &&
        ([1, -1] as const).map((side) => (
          <g key={side} fill="none">
            <path d={arc(shoe - 5, side)} stroke="var(--lining)" strokeWidth="9" />
            <path d={arc(shoe, side)} stroke="var(--ink)" strokeWidth="1.6" />
            <path d={arc(shoe - 12, side)} stroke="var(--ink)" strokeWidth="4" />
            {set !== null && (
              <path d={arc(set, side)} stroke="var(--measure)" strokeWidth="2" strokeDasharray="6 4" />
            )}
          </g>
        ))}
      <circle cx="200" cy="128" r="28" fill="var(--iron)" stroke="var(--ink)" strokeWidth="1.6" />
      <path d="M192 128 H208 M200 120 V136" stroke="var(--ink)" strokeWidth="1.6" />
      <rect
        x="188"
        y={128 + (shoe ?? 80) - 24}
        width="24"
        height="16"
        fill="var(--plate)"
        stroke="var(--ink)"
        strokeWidth="1.6"
      />
      <rect
        x="186"
        y={128 - (shoe ?? 80) + 8}
        width="28"
        height="16"
        rx="3"
        fill="var(--iron)"
        stroke="var(--ink)"
        strokeWidth="1.6"
      />
      <text
        x={Math.min(Math.max(lx, 60), 330)}
        y={Math.min(Math.max(ly, 13), 256)}
        textAnchor="middle"
        fontSize="15"
        fontWeight="700"
        fill="var(--ink)"
      >
        {figure(drum.largestMm, 2)} at {figure(drum.largestAt.directionDeg, 0)}°
      </text>
      <text x="396" y="18" textAnchor="end" fontSize="14" fontWeight="700" fill="var(--outside)">
        MAX {figure(drum.maximum.limitMm, 2)}
      </text>
    </svg>
  );
}

/** A verdict on a limit, explained: every reading, the limit, and the guard box that does or does not cross it. */
export function NumberLine({
  drum,
  readings,
}: {
  drum: Schemas["DrumVerdict"];
  readings: Schemas["DrumReading"][];
}) {
  const { limitMm, guardBandMm, valueMm, verdict } = drum.maximum;
  const low = Math.min(drum.smallestMm, limitMm - 2 * guardBandMm);
  const high = Math.max(drum.largestMm + guardBandMm, limitMm + guardBandMm) + guardBandMm * 0.4;
  const x = (mm: number) => 10 + ((mm - low) / (high - low)) * 500;
  const colour = {
    inside: "var(--inside)",
    "too-close-to-call": "var(--undecided)",
    outside: "var(--outside)",
  }[verdict];
  return (
    <svg
      width="100%"
      className="flex-shrink-0"
      viewBox="0 0 530 96"
      role="img"
      aria-label={`Largest ${figure(valueMm, 3)} mm, guard ${figure(guardBandMm, 3)} either way, maximum ${figure(limitMm, 2)} mm.`}
    >
      <defs>
        <pattern id="guard" width="8" height="8" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <rect width="4" height="8" fill={colour} />
        </pattern>
      </defs>
      <rect
        x={x(valueMm - guardBandMm)}
        y="24"
        width={x(valueMm + guardBandMm) - x(valueMm - guardBandMm)}
        height="28"
        fill="url(#guard)"
        stroke={colour}
        strokeWidth="1.5"
      />
      <path d="M4 52 H526" stroke="var(--ink)" strokeWidth="1.6" />
      {readings.map((r, i) => (
        <path
          key={i}
          d={`M${x(r.diameterMm)} 52 l-6 -9 h12 Z`}
          fill={r.depth === "open-edge" ? "var(--ink)" : "var(--plate)"}
          stroke="var(--ink)"
          strokeWidth="1.4"
        />
      ))}
      <path d={`M${x(limitMm)} 8 V88`} stroke="var(--outside)" strokeWidth="3" />
      <text x={x(limitMm) - 6} y="86" textAnchor="end" fontSize="15" fontWeight="700" fill="var(--outside)">
        MAX DIA {figure(limitMm, 2)}
      </text>
      <text x={x(valueMm - guardBandMm)} y="18" fontSize="14" fill={colour}>
        guard {figure(guardBandMm, 3)}
      </text>
      <text x={10} y="72" fontSize="14" fill="var(--ink-2)">
        {figure(low, 2)}
      </text>
      <text x={520} y="72" textAnchor="end" fontSize="14" fill="var(--ink-2)">
        {figure(high, 2)}
      </text>
    </svg>
  );
}

/** The star wheel with the clicks in it, and the way it is turned. */
export function StarWheel({
  teeth,
  clicks,
  shown,
  onTurn,
}: {
  teeth: number;
  clicks: number;
  shown: number;
  onTurn: (by: number) => void;
}) {
  const tooth = (i: number) => {
    const a = (i / teeth) * 2 * Math.PI;
    const b = ((i + 0.55) / teeth) * 2 * Math.PI;
    const p = (r: number, t: number) => `${100 + r * Math.sin(t)} ${100 - r * Math.cos(t)}`;
    return `M${p(74, a)} L${p(90, a)} L${p(90, b)} L${p(74, b)} Z`;
  };
  const turned = Math.abs(shown);
  return (
    <svg
      width="180"
      height="180"
      viewBox="0 0 200 200"
      role="slider"
      tabIndex={0}
      aria-label="Star wheel, clicks outward"
      aria-valuenow={shown}
      aria-valuemin={-teeth * 2}
      aria-valuemax={teeth * 2}
      className="flex-shrink-0 cursor-grab touch-none"
      onKeyDown={(e) => {
        const by = { ArrowUp: 1, ArrowRight: 1, ArrowDown: -1, ArrowLeft: -1 }[e.key];
        if (!by) return;
        e.preventDefault();
        onTurn(by);
      }}
      onPointerDown={(e) => e.currentTarget.setPointerCapture(e.pointerId)}
      onPointerMove={(e) => {
        if (e.buttons === 0) return;
        const box = e.currentTarget.getBoundingClientRect();
        const angle = (px: number, py: number) =>
          Math.atan2(px - box.left - box.width / 2, box.top + box.height / 2 - py);
        let by = angle(e.clientX, e.clientY) - angle(e.clientX - e.movementX, e.clientY - e.movementY);
        if (by > Math.PI) by -= 2 * Math.PI;
        if (by < -Math.PI) by += 2 * Math.PI;
        onTurn((by / (2 * Math.PI)) * teeth);
      }}
    >
      {Array.from({ length: teeth }, (_, i) => {
        const at = shown >= 0 ? i : teeth - 1 - i;
        return (
          <path
            key={i}
            d={tooth(at)}
            fill={i < turned ? "var(--ink)" : "var(--iron)"}
            stroke="var(--ink)"
            strokeWidth="1.3"
          />
        );
      })}
      <circle cx="100" cy="100" r="75" fill="var(--iron)" stroke="var(--ink)" strokeWidth="1.6" />
      <text x="100" y="112" textAnchor="middle" fontSize="64" fontWeight="700" fill="var(--ink)">
        {turned}
      </text>
      <text x="100" y="142" textAnchor="middle" fontSize="18" fill="var(--ink)">
        {shown === clicks ? "" : "tried, "}
        {shown >= 0 ? "clicks out" : "clicks back"}
      </text>
    </svg>
  );
}

/** Clearance against clicks, with the band to land in. */
export function ClicksPlot({ clearance, shown }: { clearance: Schemas["ClearanceVerdict"]; shown: number }) {
  const { curveMm, targetLowMm, targetHighMm, clearanceMm, perClickMm } = clearance;
  const top = Math.max(clearanceMm, targetHighMm) * 1.15;
  const n = Math.max(curveMm.length, 2);
  const x = (i: number) => 44 + (i / (n - 1)) * 286;
  const y = (mm: number) => 150 - (mm / top) * 132;
  const now = clearanceMm - shown * perClickMm;
  return (
    <svg
      width="100%"
      viewBox="0 0 344 184"
      role="img"
      aria-label={`After ${shown} clicks ${figure(now, 3)} mm of clearance; the band is ${figure(targetLowMm, 2)} to ${figure(targetHighMm, 2)} mm.`}
    >
      <defs>
        <pattern id="band" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <rect width="1.6" height="7" fill="var(--measure)" />
        </pattern>
      </defs>
      <rect
        x="44"
        y={y(targetHighMm)}
        width="286"
        height={y(targetLowMm) - y(targetHighMm)}
        fill="url(#band)"
        stroke="var(--measure)"
      />
      <path d="M44 12 V150 H334" fill="none" stroke="var(--ink)" strokeWidth="1.5" />
      {curveMm.map((mm, i) => (
        <circle key={i} cx={x(i)} cy={y(mm)} r="2.4" fill="var(--ink)" />
      ))}
      {shown >= 0 && (
        <circle cx={x(Math.min(shown, n - 1))} cy={y(Math.max(now, 0))} r="7" fill="var(--ink)" />
      )}
      {[0, top / 1.15].map((mm) => (
        <text key={mm} x="38" y={y(mm) + 5} textAnchor="end" fontSize="14" fill="var(--ink-2)">
          {figure(mm, 2)}
        </text>
      ))}
      <text x="50" y="24" fontSize="14" fill="var(--ink-2)">
        clearance, mm of diameter
      </text>
      <text x="330" y="172" textAnchor="end" fontSize="14" fill="var(--ink-2)">
        rubs after {n - 1} clicks out
      </text>
    </svg>
  );
}
