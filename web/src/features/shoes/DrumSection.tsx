import type { Schemas } from "../../app/api";
import { round } from "../../ui/round";
import { figure } from "../jobs/words";

/** How much the radial gap and the drum's shape are drawn larger than they are; said on the drawing. */
export const EXAGGERATED = 50;

const polar = (r: number, deg: number) =>
  [200 + r * Math.cos((deg * Math.PI) / 180), 132 - r * Math.sin((deg * Math.PI) / 180)] as const;

/** The drum and shoes seen facing the hub: to scale, but the radial gap and the drum's shape are drawn larger, and that is said. */
export function DrumSection({
  drum,
  readings,
  gap,
}: {
  drum: Schemas["DrumVerdict"];
  readings: { directionDeg: number; mm: number }[];
  gap: Schemas["GapVerdict"] | null;
}) {
  const limit = drum.maximum.limitMm;
  const scale = 96 / (limit / 2);
  const base = drum.smallestMm / 2;
  // What lies over the smallest radius is drawn larger; a drum far over its maximum is drawn at the edge.
  const radius = (mm: number) => Math.min(base * scale + (mm / 2 - base) * EXAGGERATED * scale, 124);
  const points = readings
    .flatMap((r) => [r, { ...r, directionDeg: r.directionDeg + 180 }])
    .sort((a, b) => a.directionDeg - b.directionDeg);
  const max = radius(limit);
  // Theta counts from the shoe's middle toward the adjuster, which is drawn below.
  const lining = (side: 1 | -1, inset: number) =>
    gap?.points
      .map((p) => {
        const r = base * scale - p.gapMm * EXAGGERATED * scale - inset;
        return polar(Math.max(r, 30), side === 1 ? -p.thetaDeg : 180 + p.thetaDeg).join(" ");
      })
      .join(" L");
  const label = polar(Math.min(radius(drum.largestMm) + 18, 122), drum.largestAt.directionDeg);
  if (points.length === 0) return null;
  return (
    <svg
      width="100%"
      viewBox="0 0 400 268"
      role="img"
      className="min-h-[150px] flex-1 basis-0"
      aria-label={`Drum, largest ${figure(drum.largestMm, 2)} mm at ${figure(drum.largestAt.directionDeg, 0)} degrees, maximum ${figure(limit, 2)} mm.${gap ? ` Least gap to the shoes ${figure(gap.leastMm, 3)} mm.` : ""}`}
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
      <circle cx="200" cy="132" r="129" fill="url(#wall)" stroke="var(--ink)" strokeWidth="1.6" />
      <polygon
        points={round(
          points.map((p) => ({ deg: p.directionDeg, r: radius(p.mm) })),
          polar,
        )}
        fill="var(--plate)"
        stroke="var(--ink)"
        strokeWidth="2.4"
        strokeLinejoin="round"
      />
      <circle
        cx="200"
        cy="132"
        r={max}
        fill="none"
        stroke="var(--outside)"
        strokeWidth="1.6"
        strokeDasharray="7 4"
      />
      {gap &&
        ([1, -1] as const).map((side) => (
          <g key={side} fill="none" strokeLinejoin="round">
            <path d={`M${lining(side, 5)}`} stroke="var(--lining)" strokeWidth="9" />
            <path d={`M${lining(side, 0)}`} stroke="var(--measure)" strokeWidth="2" />
            <path d={`M${lining(side, 12)}`} stroke="var(--ink)" strokeWidth="4" />
          </g>
        ))}
      <circle cx="200" cy="132" r="26" fill="var(--iron)" stroke="var(--ink)" strokeWidth="1.6" />
      <path d="M192 132 H208 M200 124 V140" stroke="var(--ink)" strokeWidth="1.6" />
      {gap && (
        <g fill="var(--plate)" stroke="var(--ink)" strokeWidth="1.6">
          <rect x="186" y="62" width="28" height="16" rx="3" fill="var(--iron)" />
          <rect x="188" y="188" width="24" height="16" />
          <text x="200" y="58" textAnchor="middle" fontSize="13" fill="var(--ink-2)" stroke="none">
            anchor
          </text>
          <text x="200" y="218" textAnchor="middle" fontSize="13" fill="var(--ink-2)" stroke="none">
            adjuster
          </text>
        </g>
      )}
      <text
        x={Math.min(Math.max(label[0], 62), 338)}
        y={Math.min(Math.max(label[1] + 5, 14), 262)}
        textAnchor="middle"
        fontSize="15"
        fontWeight="700"
        fill="var(--ink)"
        stroke="var(--plate)"
        strokeWidth="4"
        paintOrder="stroke"
      >
        {figure(drum.largestMm, 2)} at {figure(drum.largestAt.directionDeg, 0)}°
      </text>
      <text x="396" y="18" textAnchor="end" fontSize="14" fontWeight="700" fill="var(--outside)">
        MAX {figure(limit, 2)}
      </text>
      <text x="396" y="262" textAnchor="end" fontSize="13" fill="var(--ink-2)">
        gap × {EXAGGERATED}
      </text>
    </svg>
  );
}

/** The gap along the lining, from anchor to adjuster. */
export function GapPlot({ gap }: { gap: Schemas["GapVerdict"] }) {
  const first = gap.points[0]!.thetaDeg;
  const span = gap.points[gap.points.length - 1]!.thetaDeg - first;
  const top = Math.max(gap.greatestMm, 0) * 1.15 || 1;
  const low = Math.min(gap.leastMm, 0);
  const x = (deg: number) => 48 + ((deg - first) / span) * 300;
  const y = (mm: number) => 92 - ((mm - low) / (top - low)) * 76;
  return (
    <svg
      width="100%"
      viewBox="0 0 360 120"
      role="img"
      className="max-w-[440px] flex-shrink-0"
      aria-label={`Radial gap along the lining: least ${figure(gap.leastMm, 3)} mm, greatest ${figure(gap.greatestMm, 3)} mm. ${gap.says}`}
    >
      <path d={`M48 10 V${y(0)} H352`} fill="none" stroke="var(--ink)" strokeWidth="1.5" />
      <path
        d={`M${gap.points.map((p) => `${x(p.thetaDeg)} ${y(p.gapMm)}`).join(" L")}`}
        fill="none"
        stroke="var(--measure)"
        strokeWidth="2.4"
      />
      <circle cx={x(gap.leastAtDeg)} cy={y(gap.leastMm)} r="5" fill="var(--ink)" />
      {[0, gap.greatestMm].map((mm) => (
        <text key={mm} x="42" y={y(mm) + 5} textAnchor="end" fontSize="13" fill="var(--ink-2)">
          {figure(mm, 2)}
        </text>
      ))}
      <text x="50" y="112" fontSize="13" fill="var(--ink-2)">
        anchor end
      </text>
      <text x="350" y="112" textAnchor="end" fontSize="13" fill="var(--ink-2)">
        adjuster end
      </text>
      <text x="56" y="18" fontSize="13" fill="var(--ink-2)">
        radial gap, mm
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
