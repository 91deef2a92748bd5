import { type Schemas } from "../../app/api";
import { useBox } from "../../ui/box";
import { figure } from "../jobs/words";

/** MAX on the drawing: the mark itself, no tolerance. */
const FULL = 100;
const TALL = 400;
const WIDE = 118;
const MARGIN = 52;
const GAP = 14;
const ABOVE = 10;
const UNDER_MIN = 34;
const BELOW = UNDER_MIN + 28;
/** A headspace drawn thinner than this would not be seen. */
const SLIVER = 0.08;

/** The stages of an answer, in their order. */
export const stagesOf = (answer: Schemas["ReservoirAnswer"]): [string, number][] => [
  ["now", answer.levelPercent],
  ...(answer.room.drawOffMl > 0 ? [["drawn off", answer.levelDrawn] as [string, number]] : []),
  ["pistons home", answer.levelHome],
  ["pedal up", answer.levelFinal],
];

/** The reservoir to scale, stage by stage. Laid out for the room it gets. */
export function ReservoirLevels({
  spec,
  stages,
}: {
  spec: Schemas["ReservoirSpec"];
  stages: [name: string, percent: number][];
}) {
  const [ref, room] = useBox<HTMLDivElement>();
  const says = stages.map(([name, at]) => `${name} ${figure(at, 0)} %`).join(", ");
  const height = Math.min(room.height, TALL);
  const share = Math.max(spec.headspaceMl / spec.bandMl, SLIVER);
  const band = (height - ABOVE - BELOW) / (1 + share);
  const top = ABOVE;
  const max = top + share * band;
  const min = max + band;
  const foot = min + UNDER_MIN;
  const y = (percent: number) => min - (percent / 100) * band;
  const inside = (percent: number) => Math.min(Math.max(y(percent), top), foot);
  const w = Math.min((room.width - MARGIN) / stages.length - GAP, WIDE);
  return (
    <div ref={ref} className="min-h-[170px] flex-1 overflow-hidden">
      {height > 0 && (
        <svg
          width={MARGIN + stages.length * (w + GAP)}
          height={height}
          role="img"
          aria-label={`Reservoir, per cent of MIN to MAX: ${says}.`}
        >
          {stages.map(([name, at], i) => {
            const x = MARGIN + i * (w + GAP);
            const over = at > FULL;
            return (
              <g key={name}>
                <rect x={x} y={inside(at)} width={w} height={foot - inside(at)} fill="var(--fluid)" />
                <path
                  d={`M${x} ${inside(at)} H${x + w}`}
                  stroke={over ? "var(--outside)" : "var(--measure)"}
                  strokeWidth="3"
                />
                <path
                  d={`M${x} ${top} V${foot} H${x + w} V${top}`}
                  fill="none"
                  stroke="var(--ink)"
                  strokeWidth="2"
                />
                <path
                  d={`M${x} ${max} H${x + 16} M${x} ${min} H${x + 16}`}
                  stroke="var(--ink)"
                  strokeWidth="2.5"
                />
                <text
                  x={x + w / 2}
                  y={Math.min(inside(at) + 22, foot - 6)}
                  textAnchor="middle"
                  fontSize="19"
                  fontWeight="700"
                  fill={over ? "var(--outside)" : "var(--ink)"}
                >
                  {figure(at, 0)} %
                </text>
                <text x={x + w / 2} y={foot + 20} textAnchor="middle" fontSize="15" fill="var(--ink-2)">
                  {name}
                </text>
              </g>
            );
          })}
          {(
            [
              ["MAX", max],
              ["MIN", min],
            ] as const
          ).map(([name, at]) => (
            <text
              key={name}
              x={MARGIN - 8}
              y={at + 5}
              textAnchor="end"
              fontSize="14"
              fontWeight="700"
              fill="var(--ink)"
            >
              {name}
            </text>
          ))}
        </svg>
      )}
    </div>
  );
}

/** What to draw off, or where it will stand. */
export function ReservoirSays({ answer }: { answer: Schemas["ReservoirAnswer"] }) {
  const draw = answer.room.verdict === "draw-off-first";
  return (
    <>
      <div className="window flex items-end gap-6">
        <div>
          <div className="text-[17px]">{draw ? "Draw off first, mL" : "With the pistons home, %"}</div>
          <div className="huge">{draw ? figure(answer.room.drawOffMl) : figure(answer.levelHome, 0)}</div>
        </div>
        <div className="pb-2 text-[16px]">
          <div>{figure(answer.backMl)} mL come back</div>
          <div>{figure(answer.levelFinal, 0)} % with the pedal up</div>
        </div>
      </div>
      {answer.says.map((s, i) => (
        <p
          key={s}
          className={`m-0 text-[18px] ${i === 0 ? "font-bold" : ""} ${s.startsWith("Never") ? "font-bold text-outside" : ""}`}
        >
          {s}
        </p>
      ))}
    </>
  );
}
