import type { Schemas } from "../../app/api";
import { useLength } from "../../app/units";
import { useBox } from "../../ui/box";
import { Pawl } from "../../ui/marks";
import { figure } from "../jobs/words";

type Answer = Schemas["LogAnswer"];
type Point = Schemas["LogPoint"];

const MOST_LABELS = 14;
const LEAST_TURNS = 4;
// A line that ends a hair past a tooth does not ask for another one.
const HAIR = 0.05;
/** Height from which the line's figures have room beside it; below they stand in the window alone. */
const ROOMY = 190;
const LEFT = 44;
const RIGHT = 22;
const TOP = 26;
const FOOT = 46;

/** The piston's way home: readings, the line through them, the home line, and the ratchet below with one tooth a turn. */
export function LogPlot({
  answer,
  points,
  home,
  count,
  turned,
  teeth,
}: {
  answer: Answer;
  points: Point[];
  home: number | null;
  count: number;
  turned: boolean;
  teeth: number | null;
}) {
  const [ref, box] = useBox<HTMLDivElement>();
  const { width, height } = box;
  const unit = turned ? "turns" : "strokes";
  const length = useLength();
  const end = answer.turnsAtTarget;
  const last = Math.max(count, ...points.map((p) => p.turns), 0);
  const xs = Math.max(Math.ceil(Math.max(end ?? 0, last, teeth ?? 0) - HAIR), LEAST_TURNS);
  const ys = Math.ceil(Math.max(...points.map((p) => p.protrusionMm), (home ?? 0) + 1, 1) * 1.05);
  const floor = height - FOOT;
  const roomy = height > ROOMY;
  const x = (t: number) => LEFT + (t / xs) * (width - LEFT - RIGHT);
  const y = (mm: number) => floor - (mm / ys) * (floor - TOP);
  const step = [1, 2, 5, 10, 20].find((s) => xs / s <= MOST_LABELS) ?? 50;
  const fit = answer.fit;
  const stage = points.filter((p) => p.stage === answer.stage && !p.released);
  const from = Math.min(...stage.map((p) => p.turns));
  const onLine = (t: number) => (fit ? fit.atZeroMm - fit.leadMm * t : 0);
  const stands = answer.protrusionMm;
  const says = points.length
    ? `${points.length} readings${fit ? `, ${length.with(fit.leadMm, 2)} a ${turned ? "turn" : "stroke"}` : ""}${answer.turnsToGo !== null ? `, ${figure(answer.turnsToGo)} ${unit} to go` : ""}.`
    : "No readings yet.";
  return (
    <div ref={ref} className="min-h-[112px] flex-1 overflow-hidden">
      {width > 0 && height > 0 && (
        <svg width={width} height={height} role="img" aria-label={says} fontSize="14" fill="var(--ink-2)">
          <path d={`M${LEFT} ${TOP - 8} V${floor}`} stroke="var(--ink-2)" strokeWidth="1.5" />
          {length.marks(ys, Math.max((floor - TOP) / 44, 2)).map(({ mm, text }) => (
            <g key={mm}>
              <path d={`M${LEFT - 5} ${y(mm)} H${LEFT}`} stroke="var(--ink-2)" strokeWidth="1.5" />
              <text x={LEFT - 9} y={y(mm) + 5} textAnchor="end">
                {text}
              </text>
            </g>
          ))}
          <text x={LEFT + 8} y={TOP - 4}>
            {length.name} proud
          </text>
          {home !== null && (
            <g>
              <path d={`M${LEFT} ${y(home)} H${width - RIGHT}`} stroke="var(--inside)" strokeWidth="2.4" />
              <text x={LEFT + 8} y={y(home) - 7} fill="var(--inside)" fontWeight="700">
                home {length.of(home, 2)}
              </text>
            </g>
          )}
          {answer.targetMm !== null && home !== null && answer.targetMm > home && (
            <g>
              <path
                d={`M${LEFT} ${y(answer.targetMm)} H${width - RIGHT}`}
                stroke="var(--measure)"
                strokeWidth="1.5"
                strokeDasharray="10 5"
              />
              <text x={width - RIGHT} y={y(answer.targetMm) - 6} textAnchor="end" fill="var(--measure)">
                as far as needed {length.of(answer.targetMm, 2)}
              </text>
            </g>
          )}
          {fit && stage.length > 1 && (
            <g stroke="var(--ink)" strokeWidth="2.2" fill="none">
              <path d={`M${x(from)} ${y(onLine(from))} L${x(last)} ${y(Math.max(onLine(last), 0))}`} />
              {end !== null && end > last && (
                <path
                  d={`M${x(last)} ${y(onLine(last))} L${x(end)} ${y(onLine(end))}`}
                  strokeDasharray="6 5"
                />
              )}
            </g>
          )}
          {end !== null && answer.targetMm !== null && (
            <circle
              cx={x(end)}
              cy={y(answer.targetMm)}
              r="6.5"
              fill="var(--plate)"
              stroke="var(--inside)"
              strokeWidth="2.6"
            />
          )}
          {points.map((p) =>
            p.released ? (
              <circle
                key={p.id}
                cx={x(p.turns)}
                cy={y(p.protrusionMm)}
                r="5"
                fill="var(--plate)"
                stroke="var(--outside)"
                strokeWidth="2.4"
              />
            ) : (
              <circle
                key={p.id}
                cx={x(p.turns)}
                cy={y(p.protrusionMm)}
                r="5"
                fill={p.stage === answer.stage ? "var(--measure)" : "var(--ink-2)"}
              />
            ),
          )}
          {stands !== null && points.length > 0 && (
            <text
              x={Math.min(x(last) + 9, width - RIGHT - 40)}
              y={Math.max(y(stands) - 9, TOP + 8)}
              fill="var(--measure)"
              fontWeight="700"
              fontSize="15"
            >
              {length.of(stands, 2)}
            </text>
          )}
          {fit && roomy && answer.turnsToGoError !== null && (
            <text x={width - RIGHT} y={TOP + 8} textAnchor="end" fill="var(--ink)" fontSize="15">
              {length.of(fit.leadMm, 3)} ± {length.with(fit.leadErrorMm, 3)} a {turned ? "turn" : "stroke"}
            </text>
          )}
          {fit && roomy && answer.turnsToGo !== null && answer.turnsToGoError !== null && (
            <text x={width - RIGHT} y={TOP + 28} textAnchor="end" fill="var(--measure)" fontSize="15">
              {figure(answer.turnsToGo, 2)} ± {figure(answer.turnsToGoError, 2)} to go
            </text>
          )}
          <g transform={`translate(0 ${floor + 4})`}>
            {Array.from({ length: xs }, (_, i) => {
              const [a, b] = [x(i), x(i + 1)];
              const share = Math.min(Math.max(count - i, 0), 1);
              return (
                <g key={i}>
                  <path
                    d={`M${a} 20 V16 L${b} 0 V20 Z`}
                    fill="var(--plate)"
                    stroke="var(--ink-2)"
                    strokeWidth="1.3"
                  />
                  {share > 0 && (
                    <path
                      d={`M${a} 20 V16 L${a + (b - a) * share} ${16 - 16 * share} V20 Z`}
                      fill="var(--rail)"
                      stroke="var(--railline)"
                      strokeWidth="1.3"
                    />
                  )}
                </g>
              );
            })}
            <Pawl key={count} x={x(count) - 1} y={-12} drop scale={0.8} />
            <text x={LEFT - 9} y="37" textAnchor="end">
              {unit}
            </text>
            {Array.from({ length: Math.trunc(xs / step) }, (_, i) => (i + 1) * step).map((t) => (
              <text
                key={t}
                x={x(t)}
                y="37"
                textAnchor="middle"
                fontWeight={t === Math.trunc(count) ? 700 : 400}
              >
                {t}
              </text>
            ))}
          </g>
        </svg>
      )}
    </div>
  );
}
