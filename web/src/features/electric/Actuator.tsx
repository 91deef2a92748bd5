import { figure } from "../jobs/words";

const WIDTH = 240;
const HEIGHT = 112;
/** Pixels a millimetre of travel. */
const SCALE = 7;
const STOP = 176;
const RANGE = 12;

/** One side, to scale along its axis: rotor, pads, piston, the spindle with its nut and the motor behind. */
export function Actuator({ at, name }: { at: number | null; name: string }) {
  // A nut that is pressed against its stop is told as there.
  const shown = Math.max(at ?? 0, 0);
  const travel = Math.min(shown, RANGE);
  const nut = STOP - travel * SCALE;
  return (
    <svg
      width={WIDTH}
      height={HEIGHT}
      className="flex-shrink-0"
      role="img"
      aria-label={at === null ? `${name}: not known` : `${name}: ${figure(shown, 2)} mm from its back stop`}
      fontSize="14"
    >
      <g stroke="var(--ink)" strokeWidth="1.5">
        <rect x="22" y="20" width="16" height="72" fill="var(--iron)" />
        <rect x="38" y="30" width="12" height="52" fill="var(--lining)" />
        <rect x="50" y="28" width="8" height="56" fill="var(--ink)" />
        <path d={`M58 38 H132 V74 H58 Z`} fill="var(--iron)" />
        {at !== null && (
          <>
            <rect x={nut} y="51" width={STOP - nut + 12} height="10" fill="var(--lining)" />
            <rect x={nut - 18} y="43" width="20" height="26" fill="var(--ink)" />
          </>
        )}
        <rect x="188" y="34" width="48" height="44" rx="4" fill="var(--plate)" />
      </g>
      <text x="212" y="61" textAnchor="middle" fill="var(--ink)">
        motor
      </text>
      <text x="30" y="108" textAnchor="middle" fill="var(--ink-2)">
        rotor
      </text>
      {at !== null && (
        <g fill="var(--measure)" stroke="var(--measure)">
          <path d={`M${nut} 24 V34 M${STOP} 24 V34 M${nut} 29 H${STOP}`} strokeWidth="1.5" />
          <text x={Math.min((nut + STOP) / 2, 168)} y="16" textAnchor="middle" stroke="none">
            {figure(shown, 2)} mm
          </text>
        </g>
      )}
    </svg>
  );
}
