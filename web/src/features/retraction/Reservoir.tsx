import type { Schemas } from "../../app/api";
import { figure } from "../jobs/words";

/** The reservoir with the level now and after this piston is home; the answer is the core's. */
export function Reservoir({
  room,
  level,
  displacedMl,
}: {
  room: Schemas["RoomResult"];
  level: number;
  displacedMl: number;
}) {
  // MIN is at 118, MAX at 28 on the drawing; the level is laid between them by share.
  const y = (percent: number) => 118 - (percent / 100) * 90;
  const top = (percent: number) => Math.min(150, Math.max(y(percent), 8));
  const says: Record<Schemas["RoomVerdict"], string> = {
    "fits-under-max": "Fits under MAX",
    "over-max-under-brim": "Over MAX, under the brim",
    "draw-off-first": `Draw off ${figure(room.drawOffMl)} mL first`,
  };
  return (
    <div className="flex items-center gap-4">
      <svg
        width="190"
        height="160"
        viewBox="0 0 190 160"
        role="img"
        aria-label={`Reservoir at ${figure(level, 0)} %, after this piston ${figure(room.levelAfter, 0)} %. ${says[room.verdict]}.`}
      >
        <defs>
          <pattern id="rise" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
            <rect width="2" height="6" fill="var(--measure)" />
          </pattern>
          <clipPath id="tank">
            <path d="M8 14 H44 V4 H92 V14 H128 V142 H8 Z" />
          </clipPath>
        </defs>
        <g clipPath="url(#tank)">
          <rect x="0" y="0" width="140" height="160" fill="var(--plate)" />
          <rect x="0" y={top(level)} width="140" height="160" fill="var(--fluid)" />
          <rect
            x="0"
            y={top(room.levelAfter)}
            width="140"
            height={Math.max(0, top(level) - top(room.levelAfter))}
            fill="url(#rise)"
          />
        </g>
        <path d="M8 14 H44 V4 H92 V14 H128 V142 H8 Z" fill="none" stroke="var(--ink)" strokeWidth="1.8" />
        {[
          ["MAX", 28],
          ["MIN", 118],
        ].map(([name, at]) => (
          <g key={name}>
            <path d={`M8 ${at} H38`} stroke="var(--ink)" strokeWidth="2.6" />
            <text x="44" y={Number(at) + 5} fontSize="14" fontWeight="700" fill="var(--ink)">
              {name}
            </text>
          </g>
        ))}
        <text x="134" y={top(room.levelAfter) + 2} fontSize="15" fontWeight="700" fill="var(--measure)">
          {figure(room.levelAfter, 0)} %
        </text>
        <text
          x="134"
          y={Math.max(top(level), top(room.levelAfter) + 16) + 4}
          fontSize="15"
          fill="var(--measure)"
        >
          {figure(level, 0)} %
        </text>
      </svg>
      <div>
        <p className={`title m-0 text-[23px] ${room.verdict === "draw-off-first" ? "text-outside" : ""}`}>
          {says[room.verdict]}
        </p>
        <p className="m-0 text-[16px]">
          <b>{figure(displacedMl)} mL</b> comes back from this side. <b>Do not fill now.</b>
        </p>
      </div>
    </div>
  );
}
