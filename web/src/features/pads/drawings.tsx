import type { Schemas } from "../../app/api";
import { figure } from "../jobs/words";

const COLOUR = {
  inside: "var(--lining)",
  "not-yet-enough": "var(--undecided)",
  "too-close-to-call": "var(--undecided)",
  outside: "var(--outside)",
};

/** The axle's four pads from above: backing plate, lining from its leading to its trailing end, and the least allowed. */
export function PadPicture({ pads, newest }: { pads: Schemas["PadJudged"][]; newest: number }) {
  const scale = 54 / Math.max(newest, 1);
  const pad = (side: Schemas["Side"], position: Schemas["PadPosition"]) =>
    pads.find((p) => p.side === side && p.pad === position);
  const draw = (side: Schemas["Side"], position: Schemas["PadPosition"], x: number, toward: 1 | -1) => {
    const p = pad(side, position);
    const label = (
      <text x={x + (toward === 1 ? -14 : 14)} y="158" textAnchor="middle" fontSize="13" fill="var(--ink-2)">
        {position}
      </text>
    );
    if (!p)
      return (
        <g key={side + position}>
          <rect
            x={toward === 1 ? x - 10 : x}
            y="30"
            width="10"
            height="110"
            fill="none"
            stroke="var(--ink-2)"
            strokeDasharray="4 4"
          />
          {label}
        </g>
      );
    const lead = (p.leadingMm ?? p.thinnestMm) * scale;
    const trail = (p.trailingMm ?? p.thinnestMm) * scale;
    const least = p.minimum.limitMm * scale;
    return (
      <g key={side + position}>
        <rect x={toward === 1 ? x - 10 : x} y="30" width="10" height="110" fill="var(--ink)" />
        <path
          d={`M${x} 30 L${x + toward * trail} 30 L${x + toward * lead} 140 L${x} 140 Z`}
          fill={COLOUR[p.minimum.verdict]}
          stroke="var(--ink)"
          strokeWidth="1.4"
        />
        <path
          d={`M${x + toward * least} 24 V146`}
          stroke="var(--outside)"
          strokeWidth="1.8"
          strokeDasharray="5 3"
        />
        <text
          x={x + (toward === 1 ? -14 : 14)}
          y="24"
          textAnchor="middle"
          fontSize="13"
          fontWeight="700"
          fill="var(--ink)"
        >
          {figure(p.percentLeft, 0)} %
        </text>
        {label}
      </g>
    );
  };
  const corner = (side: Schemas["Side"], x: number) => (
    <g key={side}>
      <rect
        x={x + 78}
        y="10"
        width="34"
        height="150"
        fill="var(--iron)"
        stroke="var(--ink)"
        strokeWidth="1.4"
      />
      {/* Outer pads lie toward the wheel: left of the rotor on the left side. */}
      {draw(side, side === "left" ? "outer" : "inner", x + 22, 1)}
      {draw(side, side === "left" ? "inner" : "outer", x + 168, -1)}
      <text x={x + 95} y="178" textAnchor="middle" fontSize="15" fontWeight="700" fill="var(--ink)">
        {side === "left" ? "Left" : "Right"}
      </text>
    </g>
  );
  return (
    <svg
      width="100%"
      viewBox="0 0 480 186"
      role="img"
      className="flex-shrink-0"
      aria-label={pads
        .map(
          (p) =>
            `${p.side} ${p.pad} ${figure(p.thinnestMm, 1)} mm, ${figure(p.percentLeft, 0)} per cent left`,
        )
        .join("; ")}
    >
      {corner("left", 20)}
      {corner("right", 268)}
      <text x="240" y="36" textAnchor="middle" fontSize="12" fill="var(--ink-2)">
        trailing
      </text>
      <text x="240" y="144" textAnchor="middle" fontSize="12" fill="var(--ink-2)">
        leading
      </text>
    </svg>
  );
}

/** Where the caliper sits, which way the rotor passes it, and its leading end. */
export function LeadingEnd({ parts, atBottom }: { parts: Schemas["PadParts"]; atBottom: boolean }) {
  // The car faces left, so behind the axle is to the right.
  const behind = parts.caliper === "behind-axle";
  const x = behind ? 58 : -58;
  const y = atBottom ? 34 : -34;
  return (
    <svg
      width="100%"
      className="max-h-[240px]"
      viewBox="-170 -110 340 220"
      role="img"
      aria-label={`Caliper ${behind ? "behind" : "ahead of"} the axle: the leading end is at the ${atBottom ? "bottom" : "top"}.`}
    >
      <circle r="88" fill="var(--iron)" stroke="var(--ink)" strokeWidth="1.6" />
      <circle r="34" fill="var(--plate)" stroke="var(--ink)" strokeWidth="1.6" />
      <circle r="5" fill="var(--ink)" />
      <rect
        x={x - 22}
        y="-46"
        width="44"
        height="92"
        rx="6"
        fill="var(--plate)"
        stroke="var(--ink)"
        strokeWidth="2"
      />
      <rect x={x - 16} y={y - 12} width="32" height="24" fill="var(--measure)" stroke="var(--ink)" />
      {/* Rolling forward with the front to the left the wheel turns anticlockwise as drawn. */}
      <path d="M-30 -98 A102 102 0 0 0 -98 -30" fill="none" stroke="var(--measure)" strokeWidth="3" />
      <path d="M-98 -30 l-9 -12 l16 -3 Z" fill="var(--measure)" />
      <path d={behind ? `M${x} 88 V56` : `M${x} -88 V-56`} stroke="var(--measure)" strokeWidth="3" />
      <path d={behind ? `M${x} 48 l-7 12 h14 Z` : `M${x} -48 l-7 -12 h14 Z`} fill="var(--measure)" />
      <text x="-164" y="4" fontSize="14" fill="var(--ink-2)">
        front
      </text>
      <path d="M-128 -1 H-158" stroke="var(--ink-2)" strokeWidth="0" />
      <text
        x={behind ? 100 : -100}
        y={y + 5}
        textAnchor={behind ? "start" : "end"}
        fontSize="15"
        fontWeight="700"
        fill="var(--ink)"
      >
        leading
      </text>
    </svg>
  );
}

/** Lining against distance: the readings, the line to the least allowed, and the band it lands in. */
export function ForecastPlot({
  forecast,
  history,
  leastMm,
}: {
  forecast: Schemas["ForecastVerdict"];
  history: Schemas["WearPoint"][];
  leastMm: number;
}) {
  const [now, end] = forecast.line as [Schemas["WearPoint"], Schemas["WearPoint"]];
  const far = now.odometerKm + (forecast.highKm ?? (forecast.toMinimumKm ?? 0) * 2);
  const first = Math.min(now.odometerKm, ...history.map((h) => h.odometerKm));
  const last = Math.max(far, end.odometerKm, first + 1);
  const top = Math.max(...history.map((h) => h.liningMm), now.liningMm) * 1.1;
  const x = (km: number) => 48 + ((km - first) / (last - first)) * 440;
  const y = (mm: number) => 170 - (mm / top) * 150;
  const band =
    forecast.lowKm !== null
      ? [now.odometerKm + forecast.lowKm, now.odometerKm + (forecast.highKm ?? last - now.odometerKm)]
      : null;
  return (
    <svg
      width="100%"
      viewBox="0 0 520 206"
      role="img"
      aria-label={`Lining against distance. ${forecast.says}`}
    >
      {band && (
        <rect
          x={x(band[0]!)}
          y={y(leastMm) - 7}
          width={Math.max(x(band[1]!) - x(band[0]!), 1)}
          height="14"
          fill="var(--fluid)"
          stroke="var(--measure)"
        />
      )}
      <path d="M48 14 V170 H496" fill="none" stroke="var(--ink)" strokeWidth="1.5" />
      <path d={`M48 ${y(leastMm)} H496`} stroke="var(--outside)" strokeWidth="2" strokeDasharray="7 4" />
      <path
        d={`M${x(now.odometerKm)} ${y(now.liningMm)} L${x(end.odometerKm)} ${y(end.liningMm)}`}
        stroke="var(--measure)"
        strokeWidth="2.4"
      />
      {history.map((h, i) => (
        <circle key={i} cx={x(h.odometerKm)} cy={y(h.liningMm)} r="5" fill="var(--ink)" />
      ))}
      <text x="44" y={y(leastMm) + 5} textAnchor="end" fontSize="13" fill="var(--outside)">
        {figure(leastMm, 1)}
      </text>
      <text x="56" y="22" fontSize="13" fill="var(--ink-2)">
        lining, mm
      </text>
      {[first, last].map((km, i) => (
        <text
          key={i}
          x={x(km)}
          y="190"
          textAnchor={i === 0 ? "start" : "end"}
          fontSize="13"
          fill="var(--ink-2)"
        >
          {figure(km / 1000, 1)} thousand km
        </text>
      ))}
    </svg>
  );
}
