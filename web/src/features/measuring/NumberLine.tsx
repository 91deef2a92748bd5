import type { Schemas } from "../../app/api";
import { figure } from "../jobs/words";

const COLOUR = {
  inside: "var(--inside)",
  "not-yet-enough": "var(--undecided)",
  "too-close-to-call": "var(--undecided)",
  outside: "var(--outside)",
};

/** What the words of the margin take. */
const LABEL_PX = 165;
const WIDTH = 530;

/** A verdict on a limit, explained: every reading, the limit, and the guard box that does or does not cross it. */
export function NumberLine({
  verdict,
  values,
  limitName,
}: {
  verdict: Schemas["LimitVerdict"];
  values: { mm: number; hollow?: boolean }[];
  limitName: string;
}) {
  const { limitMm, guardBandMm, valueMm } = verdict;
  const all = [...values.map((v) => v.mm), valueMm - guardBandMm, valueMm + guardBandMm, limitMm];
  const pad = (Math.max(...all) - Math.min(...all)) * 0.06;
  const low = Math.min(...all) - pad;
  const high = Math.max(...all) + pad;
  const x = (mm: number) => 10 + ((mm - low) / (high - low)) * 510;
  const colour = COLOUR[verdict.verdict];
  const right = x(limitMm) < 530 / 2;
  const guardFrom = x(valueMm - guardBandMm);
  const crowded = guardFrom + LABEL_PX > WIDTH;
  const id = `guard-${verdict.verdict}`;
  return (
    <svg
      width="100%"
      className="flex-shrink-0"
      viewBox="0 0 530 92"
      role="img"
      aria-label={`${verdict.what} ${figure(valueMm, 3)} mm, safety margin ${figure(guardBandMm, 3)} either way, ${limitName} ${figure(limitMm, 3)} mm.`}
    >
      <defs>
        <pattern id={id} width="8" height="8" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <rect width="4" height="8" fill={colour} />
        </pattern>
      </defs>
      <rect
        x={x(valueMm - guardBandMm)}
        y="24"
        width={Math.max(x(valueMm + guardBandMm) - x(valueMm - guardBandMm), 1)}
        height="28"
        fill={`url(#${id})`}
        stroke={colour}
        strokeWidth="1.5"
      />
      <path d="M4 52 H526" stroke="var(--ink)" strokeWidth="1.6" />
      {values.map((v, i) => (
        <path
          key={i}
          d={`M${x(v.mm)} 52 l-6 -9 h12 Z`}
          fill={v.hollow ? "var(--plate)" : "var(--ink)"}
          stroke="var(--ink)"
          strokeWidth="1.4"
        />
      ))}
      <path d={`M${x(limitMm)} 8 V84`} stroke="var(--outside)" strokeWidth="3" />
      <text
        x={x(limitMm) + (right ? 6 : -6)}
        y="84"
        textAnchor={right ? "start" : "end"}
        fontSize="15"
        fontWeight="700"
        fill="var(--outside)"
      >
        {limitName} {figure(limitMm, 3)}
      </text>
      <text
        x={crowded ? 526 : Math.max(guardFrom, 4)}
        y="18"
        textAnchor={crowded ? "end" : "start"}
        fontSize="14"
        fill={colour}
      >
        safety margin {figure(guardBandMm, 3)}
      </text>
      {/* An end's figure gives way to the limit's. */}
      {x(limitMm) - 60 > 0 && (
        <text x={10} y="68" fontSize="14" fill="var(--ink-2)">
          {figure(low, 2)}
        </text>
      )}
      {470 - x(limitMm) > 0 && (
        <text x={520} y="68" textAnchor="end" fontSize="14" fill="var(--ink-2)">
          {figure(high, 2)}
        </text>
      )}
    </svg>
  );
}

/** What would settle a verdict that is too close to call. */
export function SettleNote({ ways }: { ways: Schemas["SettledBy"][] }) {
  if (ways.length === 0) return null;
  return (
    <p className="m-0 text-[16px]">
      <b>What would settle it.</b> {ways.map((s) => s.says).join(" ")}
      {ways.every((s) => !s.wouldSettle) && " Nothing on hand would: the part is not passed."}
    </p>
  );
}
