import type { Schemas } from "../../app/api";
import { Axes } from "../../ui/Axes";
import { useBox } from "../../ui/box";
import { figure } from "../jobs/words";

const LEFT = 50;
const RIGHT = 16;
const TOP = 22;
const FOOT = 28;
const LEAST_CELSIUS = 320;

/** A rear rotor's temperature over the series: up at each stop, down between; the ceiling and the usual band behind it. */
export function BedInPlot({ answer, air }: { answer: Schemas["BedInAnswer"]; air: number }) {
  const [ref, { width, height }] = useBox<HTMLDivElement>();
  const stops = answer.stops;
  const seconds = Math.max(stops.at(-1)!.atS ?? 0, 60);
  const most = Math.max(LEAST_CELSIUS, answer.ceilingCelsius, stops.at(-1)!.afterCelsius) * 1.04;
  const least = Math.min(0, air);
  const floor = height - FOOT;
  const x = (s: number) => LEFT + (s / seconds) * (width - LEFT - RIGHT);
  const y = (c: number) => floor - ((c - least) / (most - least)) * (floor - TOP);
  const line = stops
    .flatMap((s) => [
      [s.atS ?? 0, s.beforeCelsius],
      [s.atS ?? 0, s.afterCelsius],
    ])
    .map(([s, c]) => `${x(s!).toFixed(1)},${y(c!).toFixed(1)}`)
    .join(" ");
  return (
    <div ref={ref} className="h-full min-h-[200px] w-full flex-1 overflow-hidden">
      {width > 0 && height > 0 && (
        <svg
          width={width}
          height={height}
          role="img"
          aria-label={`Rear rotors over ${stops.length} stops: ${answer.says}`}
          fontSize="15"
          fill="var(--ink-2)"
        >
          <rect
            x={LEFT}
            y={y(answer.highCelsius)}
            width={width - LEFT - RIGHT}
            height={y(answer.lowCelsius) - y(answer.highCelsius)}
            fill="var(--plate)"
            stroke="var(--rule)"
          />
          <text x={width - RIGHT - 8} y={y(answer.highCelsius) + 20} textAnchor="end">
            usual band, {answer.lowCelsius} to {answer.highCelsius}
          </text>
          <Axes left={LEFT} top={TOP - 8} right={width - RIGHT} floor={floor} />
          {[0, 100, 200, 300].map((c) => (
            <text key={c} x={LEFT - 8} y={y(c) + 5} textAnchor="end">
              {c}
            </text>
          ))}
          <text x={LEFT + 6} y={TOP - 6}>
            °C
          </text>
          <g fill="var(--ink)">
            <path
              d={`M${LEFT} ${y(answer.ceilingCelsius)} H${width - RIGHT}`}
              stroke="var(--ink)"
              strokeWidth="1.4"
              strokeDasharray="8 6"
            />
            <text x={LEFT + 10} y={y(answer.ceilingCelsius) - 7} fontWeight="700">
              ceiling {figure(answer.ceilingCelsius, 0)}
            </text>
          </g>
          <polyline
            points={line}
            fill="none"
            stroke="var(--measure)"
            strokeWidth="2.4"
            strokeLinejoin="round"
          />
          {stops.map((s) => (
            <circle key={s.stop} cx={x(s.atS ?? 0)} cy={y(s.afterCelsius)} r="4.5" fill="var(--measure)" />
          ))}
          {stops
            .filter((s) => stops.length <= 12 || s.stop % 5 === 0)
            .map((s) => (
              <text key={s.stop} x={x(s.atS ?? 0)} y={height - 8} textAnchor="middle">
                {s.stop}
              </text>
            ))}
        </svg>
      )}
    </div>
  );
}
