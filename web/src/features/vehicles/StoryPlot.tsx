import type { Schemas } from "../../app/api";
import { Axes } from "../../ui/Axes";
import { useBox } from "../../ui/box";
import { figure } from "../jobs/words";

type Series = Schemas["StorySeries"];

const LEFT = 58;
const RIGHT = 14;
const TOP = 12;
const FOOT = 26;
/** So much of the axis is left free above and below what is drawn. */
const AIR = 0.12;

/** Left is a whole line with round points, right a broken one with square ones: colour is never alone. */
const LOOK = {
  left: { stroke: "var(--measure)", dash: undefined },
  right: { stroke: "var(--ink)", dash: "6 5" },
};

/** One thing over distance, left and right beside each other, with the limit it is judged against. */
export function StoryPlot({ series, from, to }: { series: Series[]; from: number; to: number }) {
  const [ref, { width, height }] = useBox<HTMLDivElement>();
  const limit = series[0]!.limitMm ?? 0;
  const values = [limit, ...series.flatMap((s) => s.points.map((p) => p.valueMm ?? 0))];
  const spread = Math.max(...values) - Math.min(...values) || Math.abs(limit) || 1;
  const least = Math.max(0, Math.min(...values) - spread * AIR);
  const most = Math.max(...values) + spread * AIR;
  const floor = height - FOOT;
  const x = (km: number) => LEFT + ((km - from) / Math.max(to - from, 1)) * (width - LEFT - RIGHT);
  const y = (mm: number) => floor - ((mm - least) / (most - least)) * (floor - TOP);
  const decimals = spread < 1 ? 2 : 1;
  const says = series
    .map(
      (s) =>
        `${s.says}: ${s.points.map((p) => `${figure(p.valueMm ?? 0, 2)} at ${p.odometerKm} km`).join(", ")}`,
    )
    .join(". ");
  return (
    <div ref={ref} className="h-[150px] w-full overflow-hidden">
      {width > 0 && (
        <svg width={width} height={height} role="img" aria-label={says} fontSize="14" fill="var(--ink-2)">
          <Axes left={LEFT} top={TOP} right={width - RIGHT} floor={floor} />
          {[least + spread * AIR, most - spread * AIR].map((v) => (
            <text key={v} x={LEFT - 6} y={y(v) + 5} textAnchor="end">
              {figure(v, decimals)}
            </text>
          ))}
          <text x={LEFT} y={height - 8}>
            {figure(from / 1000, 0)}
          </text>
          <text x={width - RIGHT} y={height - 8} textAnchor="end">
            {figure(to / 1000, 0)} thousand km
          </text>
          <path
            d={`M${LEFT} ${y(limit)} H${width - RIGHT}`}
            stroke="var(--outside)"
            strokeWidth="1.4"
            strokeDasharray="2 4"
          />
          {series.map((s) => {
            const { stroke, dash } = LOOK[s.about.side ?? "left"];
            const at = s.points.map((p) => [x(p.odometerKm), y(p.valueMm ?? 0), p] as const);
            return (
              <g key={s.says}>
                {/* A new part begins a line of its own. */}
                {at.slice(1).map(([px, py, p], i) => (
                  <path
                    key={i}
                    d={`M${at[i]![0]} ${at[i]![1]} L${px} ${py}`}
                    stroke={stroke}
                    strokeWidth={p.isNew ? 1 : 2.2}
                    strokeOpacity={p.isNew ? 0.35 : 1}
                    strokeDasharray={dash}
                    fill="none"
                  />
                ))}
                {at.map(([px, py, p], i) =>
                  s.about.side === "right" ? (
                    <rect
                      key={i}
                      x={px - 4}
                      y={py - 4}
                      width="8"
                      height="8"
                      fill={p.isNew ? "var(--ground)" : stroke}
                      stroke={stroke}
                      strokeWidth="1.6"
                    />
                  ) : (
                    <circle
                      key={i}
                      cx={px}
                      cy={py}
                      r="4.5"
                      fill={p.isNew ? "var(--ground)" : stroke}
                      stroke={stroke}
                      strokeWidth="1.6"
                    />
                  ),
                )}
              </g>
            );
          })}
        </svg>
      )}
    </div>
  );
}
