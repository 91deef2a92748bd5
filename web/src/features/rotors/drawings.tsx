import type { Schemas } from "../../app/api";
import { figure } from "../jobs/words";
import { round } from "../../ui/round";

const rad = (deg: number) => (deg * Math.PI) / 180;
/** Angles count from stud 1 at the top, clockwise as drawn. */
const polar = (cx: number, cy: number, r: number, deg: number) =>
  [cx + r * Math.sin(rad(deg)), cy - r * Math.cos(rad(deg))] as const;

/** The rotor's ring: thickness at each point as a polar line against the limit circle. */
export function ThicknessRing({
  thickness,
  readings,
}: {
  thickness: Schemas["ThicknessVerdict"];
  readings: { deg: number; mm: number }[];
}) {
  const limit = thickness.minimum.limitMm;
  const top = Math.max(...readings.map((r) => r.mm), limit);
  const low = Math.min(...readings.map((r) => r.mm), limit);
  // The limit lies at 96; the rest is drawn as large as the spread allows.
  const scale = 40 / Math.max(top - low, 1e-9);
  const r = (mm: number) => 92 + (mm - limit) * scale;
  const points = [...readings].sort((a, b) => a.deg - b.deg);
  const bad = thickness.minimum.verdict !== "inside";
  return (
    <svg
      width="100%"
      viewBox="0 0 420 300"
      role="img"
      className="min-h-[160px] flex-1 basis-0"
      aria-label={`Thickness round the rotor, thinnest ${figure(thickness.smallestMm, 3)} mm at ${figure(thickness.smallestAtDeg, 0)} degrees, least allowed ${figure(limit, 2)} mm.`}
    >
      <circle cx="210" cy="150" r="142" fill="var(--iron)" stroke="var(--ink)" strokeWidth="1.6" />
      <circle cx="210" cy="150" r="46" fill="var(--plate)" stroke="var(--ink)" strokeWidth="1.6" />
      {Array.from({ length: 5 }, (_, i) => {
        const [x, y] = polar(210, 150, 30, 72 * i);
        return (
          <circle
            key={i}
            cx={x}
            cy={y}
            r="6"
            fill={i === 0 ? "var(--ink)" : "none"}
            stroke="var(--ink)"
            strokeWidth="1.6"
          />
        );
      })}
      <circle
        cx="210"
        cy="150"
        r={r(limit)}
        fill="none"
        stroke="var(--outside)"
        strokeWidth="2"
        strokeDasharray="7 4"
      />
      <polygon
        points={round(
          points.map((p) => ({ deg: p.deg, r: r(p.mm) })),
          (radius, deg) => polar(210, 150, radius, deg),
        )}
        fill="none"
        stroke="var(--measure)"
        strokeWidth="2.6"
        strokeLinejoin="round"
      />
      {points.map((p, i) => {
        const [x, y] = polar(210, 150, r(p.mm), p.deg);
        // A label stands inward of its point, or outward where the point is near the hat.
        const [lx, ly] = polar(210, 150, r(p.mm) + (p.mm >= limit ? -26 : 26), p.deg);
        const thin = figure(p.deg, 1) === figure(thickness.smallestAtDeg, 1);
        return (
          <g key={i}>
            <circle cx={x} cy={y} r={thin ? 7 : 4} fill={thin && bad ? "var(--outside)" : "var(--ink)"} />
            <text
              x={lx}
              y={ly + 5}
              textAnchor="middle"
              fontSize={thin ? 15 : 13}
              fontWeight={thin ? 700 : 400}
              fill="var(--ink)"
              stroke="var(--iron)"
              strokeWidth="4"
              paintOrder="stroke"
            >
              {figure(p.mm, 3)}
            </text>
          </g>
        );
      })}
      <text x="416" y="18" textAnchor="end" fontSize="14" fontWeight="700" fill="var(--outside)">
        MIN TH {figure(limit, 2)}
      </text>
      <text x="416" y="292" textAnchor="end" fontSize="13" fill="var(--ink-2)">
        thickness × {figure(scale * 2, 0)}
      </text>
      <text x="4" y="292" fontSize="13" fill="var(--ink-2)">
        stud 1 filled
      </text>
    </svg>
  );
}

/** The dial round a turn, with the once-per-turn curve fitted through it. */
export function RunoutCurve({
  run,
  readings,
}: {
  run: Schemas["RunoutVerdict"];
  readings: { deg: number; mm: number }[];
}) {
  const all = [...readings.map((r) => r.mm), ...run.curve.map((c) => c.deflectionMm)];
  const top = Math.max(...all);
  const low = Math.min(...all);
  const span = Math.max(top - low, 1e-6);
  const x = (deg: number) => 54 + (((deg % 360) + 360) % 360) * (440 / 360);
  const y = (mm: number) => 150 - ((mm - low) / span) * 120;
  return (
    <svg
      width="100%"
      viewBox="0 0 520 196"
      role="img"
      aria-label={`Runout over a turn: total ${figure(run.totalMm, 3)} mm, once per turn ${figure(run.oncePerTurnMm, 3)} mm, high at ${figure(run.highAtDeg, 0)} degrees.`}
    >
      <path d="M54 18 V158 H500" fill="none" stroke="var(--ink)" strokeWidth="1.5" />
      <path
        d={`M${run.curve.map((c, i) => `${54 + (i / (run.curve.length - 1)) * 440} ${y(c.deflectionMm)}`).join(" L")}`}
        fill="none"
        stroke="var(--measure)"
        strokeWidth="2.4"
      />
      {readings.map((r, i) => (
        <g key={i}>
          <path
            d={`M${x(r.deg)} ${y(r.mm)} V${y(run.curve[Math.round((((r.deg % 360) + 360) % 360) / 5)]?.deflectionMm ?? r.mm)}`}
            stroke="var(--ink-2)"
          />
          <circle cx={x(r.deg)} cy={y(r.mm)} r="4.5" fill="var(--ink)" />
        </g>
      ))}
      {[low, top].map((mm) => (
        <text key={mm} x="48" y={y(mm) + 5} textAnchor="end" fontSize="13" fill="var(--ink-2)">
          {figure(mm, 3)}
        </text>
      ))}
      {[0, 90, 180, 270].map((d) => (
        <text key={d} x={x(d)} y="176" textAnchor="middle" fontSize="13" fill="var(--ink-2)">
          {d}°
        </text>
      ))}
      <text x="500" y="192" textAnchor="end" fontSize="13" fill="var(--ink-2)">
        from stud 1
      </text>
      <text x="62" y="16" fontSize="13" fill="var(--ink-2)">
        dial, mm
      </text>
    </svg>
  );
}

/** Hub and rotor as vectors. Turning the rotor on the studs, by drag or keys, shows what each position gives. */
export function VectorDial({
  apart,
  studs,
  shown,
  onTurn,
}: {
  apart: Schemas["HubAndRotorVerdict"];
  studs: number;
  shown: number;
  onTurn: (studs: number) => void;
}) {
  const at = apart.positions[shown] ?? apart.positions[0]!;
  const longest = Math.max(apart.hub.oncePerTurnMm + apart.rotor.oncePerTurnMm, 1e-6);
  const scale = 100 / longest;
  const v = (d: Schemas["RunoutVector"], turned = 0) => {
    const [x, y] = polar(0, 0, d.oncePerTurnMm * scale, d.highAtDeg + turned);
    return [x, y] as const;
  };
  const h = v(apart.hub);
  const r = v(apart.rotor, at.movedByDeg);
  const step = (by: number) => onTurn((((shown + by) % studs) + studs) % studs);
  return (
    <svg
      width="250"
      height="250"
      viewBox="-125 -125 250 250"
      role="slider"
      tabIndex={0}
      aria-label="Rotor turned on its studs"
      aria-valuenow={shown}
      aria-valuemin={0}
      aria-valuemax={studs - 1}
      aria-valuetext={`${shown} studs on: ${figure(at.oncePerTurnMm, 3)} mm`}
      className="flex-shrink-0 cursor-grab touch-none"
      onKeyDown={(e) => {
        const by = { ArrowUp: 1, ArrowRight: 1, ArrowDown: -1, ArrowLeft: -1 }[e.key];
        if (!by) return;
        e.preventDefault();
        step(by);
      }}
      onPointerDown={(e) => e.currentTarget.setPointerCapture(e.pointerId)}
      onPointerMove={(e) => {
        if (e.buttons === 0) return;
        const box = e.currentTarget.getBoundingClientRect();
        const angle = Math.atan2(e.clientX - box.left - box.width / 2, box.top + box.height / 2 - e.clientY);
        onTurn((Math.round((angle / (2 * Math.PI)) * studs) + studs) % studs);
      }}
    >
      <circle r="118" fill="var(--iron)" stroke="var(--ink)" strokeWidth="1.6" />
      {Array.from({ length: studs }, (_, i) => {
        const [x, y] = polar(0, 0, 104, (360 / studs) * i);
        return (
          <circle
            key={i}
            cx={x}
            cy={y}
            r="9"
            fill={i === shown ? "var(--ink)" : "var(--plate)"}
            stroke="var(--ink)"
            strokeWidth="1.6"
          />
        );
      })}
      <circle r="3" fill="var(--ink)" />
      <path d={`M0 0 L${h[0]} ${h[1]}`} stroke="var(--ink)" strokeWidth="4" />
      <path d={`M${h[0]} ${h[1]} L${h[0] + r[0]} ${h[1] + r[1]}`} stroke="var(--measure)" strokeWidth="4" />
      <path
        d={`M0 0 L${h[0] + r[0]} ${h[1] + r[1]}`}
        stroke="var(--outside)"
        strokeWidth="3"
        strokeDasharray="7 4"
      />
      <text x="-120" y="-110" fontSize="13" fill="var(--ink)">
        hub
      </text>
      <text x="120" y="-110" textAnchor="end" fontSize="13" fill="var(--measure)">
        rotor
      </text>
      <text x="-122" y="121" fontSize="13" fill="var(--outside)">
        together
      </text>
    </svg>
  );
}

/** The vanes a rotor should have on a side, going outward, as the wheel rolls forward. */
export function VanePicture({ side }: { side: Schemas["Side"] }) {
  // A left wheel turns anticlockwise seen from outside; the outer ends must trail, so they lie further clockwise.
  const lean = side === "left" ? 26 : -26;
  const arrow = side === "left" ? "M28 -62 A68 68 0 0 0 -28 -62" : "M-28 -62 A68 68 0 0 1 28 -62";
  const tip = side === "left" ? "M-28 -62 l14 -6 l0 13 Z" : "M28 -62 l-14 -6 l0 13 Z";
  return (
    <svg
      width="150"
      height="150"
      viewBox="-80 -80 160 160"
      role="img"
      aria-label={`Vanes for the ${side} side, seen from outside: outer ends trail as the wheel turns ${side === "left" ? "anticlockwise" : "clockwise"}.`}
    >
      <circle r="52" fill="var(--iron)" stroke="var(--ink)" strokeWidth="1.6" />
      <circle r="22" fill="var(--plate)" stroke="var(--ink)" strokeWidth="1.6" />
      {Array.from({ length: 12 }, (_, i) => {
        const a = polar(0, 0, 24, 30 * i);
        const b = polar(0, 0, 38, 30 * i + lean * 0.4);
        const c = polar(0, 0, 50, 30 * i + lean);
        return (
          <path
            key={i}
            d={`M${a[0]} ${a[1]} Q${b[0]} ${b[1]} ${c[0]} ${c[1]}`}
            fill="none"
            stroke="var(--ink)"
            strokeWidth="2"
          />
        );
      })}
      <path d={arrow} fill="none" stroke="var(--measure)" strokeWidth="2.4" />
      <path d={tip} fill="var(--measure)" />
    </svg>
  );
}
