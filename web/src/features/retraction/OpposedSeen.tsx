import type { Schemas } from "../../app/api";
import { figure } from "../jobs/words";

export const BANKS: Schemas["PistonBank"][] = ["inner", "outer"];

/** The pair to push next, and what is to be held. */
export function PairWindow({ answer }: { answer: Schemas["CreepAnswer"] }) {
  return (
    <>
      <div className="window flex items-end gap-6">
        <div>
          <div className="text-[17px]">
            {answer.allHome ? "Done" : answer.stop ? "Stop" : "Push next, together"}
          </div>
          <div className="huge">
            {answer.allHome ? "home" : answer.nextPair === null ? "stop" : `Pair ${answer.nextPair}`}
          </div>
        </div>
      </div>
      <p className={`m-0 text-[20px] ${answer.stop ? "font-bold text-outside" : ""}`}>{answer.says}</p>
    </>
  );
}

/** The pistons as bars from each side toward the rotor, to scale among themselves. */
export function OpposedSeen({ answer, home }: { answer: Schemas["CreepAnswer"]; home: number | null }) {
  const most = Math.max(
    ...answer.pistons.map((p) => Math.max(p.piston.nowMm, p.piston.beforeMm)),
    (home ?? 0) + 1,
  );
  const rows = Math.max(...answer.pistons.map((p) => p.piston.number));
  const h = 74;
  const reach = 170;
  const bar = (mm: number) => (mm / most) * reach;
  return (
    <svg
      width="548"
      height={rows * h + 30}
      viewBox={`0 0 548 ${rows * h + 30}`}
      className="h-auto max-w-full"
      role="img"
      aria-label={answer.says}
    >
      <rect
        x="262"
        y="4"
        width="24"
        height={rows * h + 6}
        fill="var(--iron)"
        stroke="var(--ink)"
        strokeWidth="2"
      />
      <text x="274" y={rows * h + 26} fontSize="14" textAnchor="middle" fill="var(--ink-2)">
        rotor
      </text>
      {answer.pistons.map((m) => {
        const inner = m.piston.bank === "inner";
        const top = (m.piston.number - 1) * h + 12;
        const [now, before] = [bar(m.piston.nowMm), bar(m.piston.beforeMm)];
        const x = (w: number) => (inner ? 70 : 478 - w);
        const line = (w: number) => (inner ? 70 + w : 478 - w);
        const held = answer.hold.some((p) => p.bank === m.piston.bank && p.number === m.piston.number);
        const bad = m.crept || m.leaving;
        return (
          <g key={m.piston.bank + m.piston.number}>
            <rect
              x={x(now)}
              y={top}
              width={now}
              height="40"
              fill={bad ? "var(--outside)" : "var(--lining)"}
              stroke="var(--ink)"
              strokeWidth="2"
            />
            <path
              d={`M${line(before)} ${top - 4} V${top + 44}`}
              stroke="var(--measure)"
              strokeWidth="2"
              strokeDasharray="5 3"
            />
            {home !== null && (
              <path
                d={`M${line(bar(home))} ${top - 4} V${top + 44}`}
                stroke="var(--inside)"
                strokeWidth="3"
              />
            )}
            <text
              x={inner ? 60 : 488}
              y={top + 18}
              fontSize="15"
              textAnchor={inner ? "end" : "start"}
              fill="var(--ink)"
              fontWeight="700"
            >
              {figure(m.piston.nowMm)}
            </text>
            <text
              x={inner ? 60 : 488}
              y={top + 36}
              fontSize="14"
              textAnchor={inner ? "end" : "start"}
              fill="var(--ink-2)"
            >
              {m.home ? "home" : held ? "hold" : m.crept ? "crept" : ""}
            </text>
          </g>
        );
      })}
    </svg>
  );
}
