import type { Schemas, Side } from "../../app/api";
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

/** Where the caliper sits, which way the rotor passes it, and its leading end; seen from outside, so that a right corner faces right. */
export function LeadingEnd({
  parts,
  atBottom,
  side = "left",
}: {
  parts: Schemas["PadParts"];
  atBottom: boolean;
  side?: Side;
}) {
  const ahead = side === "left" ? -1 : 1;
  const behind = parts.caliper === "behind-axle";
  const x = 58 * (behind ? -ahead : ahead);
  const y = atBottom ? 34 : -34;
  return (
    <svg
      width="100%"
      className="max-h-[240px] min-w-0 flex-1"
      viewBox="-126 -108 252 216"
      role="img"
      aria-label={`${side === "left" ? "Left" : "Right"} corner from outside, caliper ${behind ? "behind" : "ahead of"} the axle: the leading end is at the ${atBottom ? "bottom" : "top"}.`}
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
      {/* Rolling forward the top of the wheel moves to the front. */}
      <g transform={`scale(${-ahead} 1)`}>
        <path d="M-30 -98 A102 102 0 0 0 -98 -30" fill="none" stroke="var(--measure)" strokeWidth="3" />
        <path d="M-98 -30 l-9 -12 l16 -3 Z" fill="var(--measure)" />
      </g>
      <path d={behind ? `M${x} 88 V56` : `M${x} -88 V-56`} stroke="var(--measure)" strokeWidth="3" />
      <path d={behind ? `M${x} 48 l-7 12 h14 Z` : `M${x} -48 l-7 -12 h14 Z`} fill="var(--measure)" />
      <text
        x={122 * ahead}
        y="100"
        textAnchor={ahead < 0 ? "start" : "end"}
        fontSize="19"
        fill="var(--ink-2)"
      >
        front
      </text>
      <text
        x={x > 0 ? 122 : -122}
        y={atBottom ? 100 : -88}
        textAnchor={x > 0 ? "end" : "start"}
        fontSize="19"
        fontWeight="700"
        fill="var(--ink)"
      >
        leading
      </text>
    </svg>
  );
}

/** The back of the inner pad, as the piston meets it: what it carries, and at which end. Nothing where it carries nothing. */
export function InnerPadBack({
  parts,
  placement,
}: {
  parts: Schemas["PadParts"];
  placement: Schemas["PlacementVerdict"];
}) {
  const { leadingEndAtBottom: atBottom, indicatorAtBottom, arrowUp } = placement;
  const end = indicatorAtBottom ? 1 : -1;
  const carries = [
    indicatorAtBottom !== null && { name: "indicator", y: 67 * end },
    parts.pistonPin && { name: "pin to slot", y: 0 },
    parts.pistonSpring && { name: "spring", y: parts.pistonPin ? -26 : 0 },
    arrowUp !== null && { name: arrowUp ? "arrow up" : "arrow down", y: 33 },
  ].filter((c) => !!c);
  if (carries.length === 0 && !parts.electricSensor) return null;
  return (
    <svg
      width="100%"
      className="max-h-[240px] min-w-0 flex-[1.4]"
      viewBox={parts.electricSensor ? "-120 -106 292 212" : "-54 -106 226 212"}
      role="img"
      aria-label={`The inner pad's back: ${[...carries.map((c) => c.name), ...(parts.electricSensor ? ["sensor"] : [])].join("; ")}.`}
    >
      <path
        d="M-30 -74 H30 V-62 H42 V62 H30 V74 H-30 V62 H-42 V-62 H-30 Z"
        fill="var(--iron)"
        stroke="var(--ink)"
        strokeWidth="2"
      />
      {indicatorAtBottom !== null && (
        <path
          d={`M-10 ${74 * end} v${18 * end} h20 v${-18 * end}`}
          fill="var(--plate)"
          stroke="var(--ink)"
          strokeWidth="2"
        />
      )}
      {parts.pistonSpring && (
        <path
          d={`M-18 ${parts.pistonPin ? -18 : 8} q6 -20 18 -20 q12 0 18 20`}
          fill="none"
          stroke="var(--ink)"
          strokeWidth="4"
        />
      )}
      {parts.pistonPin && <circle r="8" fill="var(--plate)" stroke="var(--ink)" strokeWidth="2.4" />}
      {arrowUp !== null && (
        <path
          d={`M0 ${arrowUp ? 20 : 46} l-9 ${arrowUp ? 14 : -14} h18 Z M0 20 V46`}
          stroke="var(--ink)"
          strokeWidth="6"
        />
      )}
      {/* At which end it sits differs: the lead is drawn from the middle of the edge. */}
      {parts.electricSensor && (
        <>
          <path d="M-38 0 h-14 q-18 0 -18 -22" fill="none" stroke="var(--measure)" strokeWidth="4" />
          <text x="-44" y="28" textAnchor="end" fontSize="22" fill="var(--ink)">
            sensor
          </text>
        </>
      )}
      {carries.map((c) => (
        <g key={c.name}>
          <path d={`M14 ${c.y} H50`} stroke="var(--ink-2)" strokeWidth="1.4" />
          <text x="53" y={c.y + 8} fontSize="22" fill="var(--ink)">
            {c.name}
          </text>
        </g>
      ))}
      <text
        x={indicatorAtBottom === atBottom ? 18 : -34}
        y={atBottom ? 100 : -86}
        fontSize="22"
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
