import type { Schemas } from "../../app/api";
import { Axes } from "../../ui/Axes";
import { useBox } from "../../ui/box";
import { figure } from "../jobs/words";

type Point = Schemas["TracePoint"];
type Reading = Schemas["TraceReading"];

const LEFT = 42;
const RIGHT = 14;
const TOP = 20;
const FOOT = 24;
const LEAST_AMPS = 21;
const LEAST_SECONDS = 2;

/** Round steps of an axis, about as many as are asked for. */
const steps = (most: number, wanted: number) => {
  const every = [0.1, 0.2, 0.5, 1, 2, 5, 7, 10, 20].find((s) => most / s <= wanted) ?? 50;
  return Array.from({ length: Math.trunc(most / every) + 1 }, (_, i) => i * every);
};

/** A current over time, its contact marked where it was read. */
export function TracePlot({
  points: given,
  reading = null,
  cutOff = null,
  seconds = 0,
  says,
}: {
  points: Point[];
  reading?: Reading | null;
  cutOff?: number | null;
  /** At least so long, so that two sides share one axis. */
  seconds?: number;
  says: string;
}) {
  const [ref, box] = useBox<HTMLDivElement>();
  const { width, height } = box;
  const points = given.map((p) => ({ atS: p.atS ?? 0, currentA: p.currentA ?? 0 }));
  // A release is drawn upwards too: what counts is how much flows.
  const sign = points.reduce((sum, p) => sum + p.currentA, 0) < 0 ? -1 : 1;
  const xs = Math.max(LEAST_SECONDS, seconds, points.at(-1)?.atS ?? 0);
  const ys = Math.max(LEAST_AMPS, ...points.map((p) => sign * p.currentA));
  const floor = height - FOOT;
  const x = (t: number) => LEFT + (t / xs) * (width - LEFT - RIGHT);
  const y = (a: number) => floor - (Math.max(a, 0) / ys) * (floor - TOP);
  const contact =
    reading && reading.contactS !== null && reading.startS !== null
      ? reading.startS + reading.contactS
      : null;
  return (
    <div ref={ref} className="h-full min-h-[120px] w-full flex-1 overflow-hidden">
      {width > 0 && height > 0 && (
        <svg width={width} height={height} role="img" aria-label={says} fontSize="14" fill="var(--ink-2)">
          <Axes left={LEFT} top={TOP - 8} right={width - RIGHT} floor={floor} />
          {[0, 7, 14, 21].map((a) => (
            <text key={a} x={LEFT - 8} y={y(a) + 5} textAnchor="end">
              {a}
            </text>
          ))}
          <text x={LEFT + 6} y={TOP - 6}>
            A
          </text>
          {steps(xs, (width - LEFT) / 64)
            .filter((t) => t > 0 && t < xs - xs / 20)
            .map((t) => (
              <text key={t} x={x(t)} y={height - 6} textAnchor="middle">
                {figure(t, 1)}
              </text>
            ))}
          <text x={width - RIGHT} y={height - 6} textAnchor="end">
            s
          </text>
          {cutOff !== null && (
            <g fill="var(--outside)">
              <path
                d={`M${LEFT} ${y(cutOff)} H${width - RIGHT}`}
                stroke="var(--outside)"
                strokeWidth="1.2"
                strokeDasharray="7 5"
              />
              <text x={width - RIGHT} y={y(cutOff) - 5} textAnchor="end">
                cut-off {figure(cutOff, 1)}
              </text>
            </g>
          )}
          {points.length > 1 && (
            <polyline
              points={points
                .map((p) => `${x(p.atS).toFixed(1)},${y(sign * p.currentA).toFixed(1)}`)
                .join(" ")}
              fill="none"
              stroke="var(--measure)"
              strokeWidth="2.2"
              strokeLinejoin="round"
            />
          )}
          {contact !== null && (
            <g fill="var(--measure)">
              <circle
                cx={x(contact)}
                cy={y(reading!.freeA ?? 0)}
                r="5.5"
                fill="var(--ground)"
                stroke="var(--measure)"
                strokeWidth="2.2"
              />
              {x(contact) + 70 < width && (
                <text x={x(contact) + 11} y={y(reading!.freeA ?? 0) + 5} textAnchor="start">
                  contact
                </text>
              )}
            </g>
          )}
        </svg>
      )}
    </div>
  );
}
