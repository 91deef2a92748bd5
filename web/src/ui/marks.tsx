/** Our own marks: the pawl, ratchet teeth, bolt heads and the three verdicts drawn from them. */

const PAWL = "M0 27 L1 19 C6 9 16 1 29 0 C37 0 40 7 36 12 C33 15 29 15 26 15 C19 16 14 19 10 25 L6 28 Z";

export function Pawl({
  x = 0,
  y = 0,
  fill = "var(--pawl)",
  drop = false,
  flip = false,
  scale = 1,
}: {
  x?: number;
  y?: number;
  fill?: string;
  drop?: boolean;
  flip?: boolean;
  scale?: number;
}) {
  return (
    <g transform={`translate(${x} ${y}) scale(${flip ? -scale : scale} ${scale})`}>
      <g className={drop ? "pawl-drop" : undefined}>
        <path d={PAWL} fill={fill} stroke="var(--ink)" strokeWidth="1.4" />
        <circle cx="30" cy="6.5" r="2.6" fill="var(--ink)" />
      </g>
    </g>
  );
}

export function Logo() {
  return (
    <svg width="32" height="22" viewBox="0 0 40 28" aria-hidden="true">
      <path d="M0 26 L10 18 V23 L20 15 V23 L30 15 V23 H38 V27 H0 Z" fill="var(--rail-text)" />
      <path d="M16 14 C20 6 27 1 34 1 C39 2 38 8 33 9 C27 10 24 12 22 15 Z" fill="var(--rail-text)" />
    </svg>
  );
}

/** A horizontal ratchet: one tooth a unit, filled as far as it has clicked. */
export function Rack({
  teeth,
  done,
  pawl,
  flip,
  width,
  height = 26,
  undecidedAt,
  stuckAt,
}: {
  teeth: number;
  done: number;
  pawl: "here" | "resting" | "undecided" | "stuck" | "none";
  flip?: boolean;
  width: number;
  height?: number;
  undecidedAt?: boolean;
  stuckAt?: boolean;
}) {
  const w = width / teeth;
  const top = 34;
  const fill = {
    here: "var(--pawl)",
    resting: "var(--ink)",
    undecided: "var(--undecided)",
    stuck: "var(--outside)",
    none: "none",
  }[pawl];
  const at = Math.min(done, teeth - 1);
  return (
    <svg
      width="100%"
      height={top + height}
      viewBox={`0 0 ${width} ${top + height}`}
      aria-hidden="true"
      preserveAspectRatio="xMidYMax meet"
      style={{ overflow: "visible" }}
    >
      <defs>
        <pattern
          id="hatch-u"
          width="7"
          height="7"
          patternUnits="userSpaceOnUse"
          patternTransform="rotate(45)"
        >
          <rect width="7" height="7" fill="var(--ground)" />
          <rect width="4" height="7" fill="var(--undecided)" />
        </pattern>
      </defs>
      <g transform={flip ? `translate(${width} 0) scale(-1 1)` : undefined}>
        {Array.from({ length: teeth }, (_, i) => {
          const x = i * w;
          const tooth = `M${x} ${top + height - 6} L${x + w} ${top + 4} V${top + height - 6} Z`;
          const here = i === at;
          if (stuckAt && here)
            return <rect key={i} x={x} y={top + 4} width={w} height={height - 10} fill="var(--outside)" />;
          return (
            <path
              key={i}
              d={tooth}
              stroke={i < done ? "var(--railline)" : "var(--ink-2)"}
              strokeWidth="1.2"
              fill={undecidedAt && here ? "url(#hatch-u)" : i < done ? "var(--railline)" : "none"}
            />
          );
        })}
        {pawl !== "none" && (
          <Pawl
            x={at * w + (undecidedAt || stuckAt ? w * 0.7 : w * 0.2)}
            y={undecidedAt || stuckAt ? 7 : 15}
            fill={fill}
            scale={0.86}
          />
        )}
      </g>
    </svg>
  );
}

/** A bolt head with a painted stripe: straight when its side has met the hold, turned when not. */
export function BoltHead({ met, size = 40 }: { met: boolean; size?: number }) {
  return (
    <svg
      width={size}
      height={size * 0.8}
      viewBox="-25 -20 50 40"
      aria-hidden="true"
      style={{ flexShrink: 0 }}
    >
      <g transform={met ? undefined : "rotate(-38)"}>
        <path d="M-17 0 L-9 -15 H9 L17 0 L9 15 H-9 Z" fill="none" stroke="currentColor" strokeWidth="1.6" />
        <circle r="10" fill="none" stroke="currentColor" strokeWidth="1.4" />
        <path d="M-17 0 H17" stroke="currentColor" strokeWidth="4.5" />
      </g>
      {met ? (
        <path d="M-25 0 H25" stroke="currentColor" strokeWidth="4.5" />
      ) : (
        <path d="M-25 0 H-20 M20 0 H25" stroke="currentColor" strokeWidth="4.5" />
      )}
    </svg>
  );
}

type Verdict = "inside" | "not-yet-enough" | "too-close-to-call" | "outside";
const WORDS: Record<Verdict, string> = {
  inside: "Inside",
  "not-yet-enough": "Not yet enough",
  "too-close-to-call": "Too close to call",
  outside: "Outside",
};
const COLOUR: Record<Verdict, string> = {
  inside: "var(--inside)",
  "not-yet-enough": "var(--undecided)",
  "too-close-to-call": "var(--undecided)",
  outside: "var(--outside)",
};

/** Word and glyph together: pawl seated in a tooth, not down yet, on its tip, or past it. */
export function VerdictMark({ verdict }: { verdict: Verdict }) {
  const colour = COLOUR[verdict];
  const pawl = {
    inside: [17, 8],
    "not-yet-enough": [8, -6],
    "too-close-to-call": [25, -3],
    outside: [33, 10],
  }[verdict] as [number, number];
  return (
    <span
      className="inline-flex flex-shrink-0 items-center gap-2 font-title text-[21px] leading-tight font-semibold whitespace-nowrap"
      style={{ color: colour }}
    >
      <svg width="48" height="44" viewBox="0 -20 70 64" className="flex-shrink-0" aria-hidden="true">
        <defs>
          <pattern
            id="hatch-v"
            width="7"
            height="7"
            patternUnits="userSpaceOnUse"
            patternTransform="rotate(45)"
          >
            <rect width="4" height="7" fill={colour} />
          </pattern>
        </defs>
        <path
          d="M2 42 L26 26 V42 L50 26 V42 H66"
          fill={verdict === "too-close-to-call" ? "url(#hatch-v)" : colour}
          stroke={colour}
          strokeWidth="2"
          fillOpacity={verdict === "outside" || verdict === "not-yet-enough" ? 0 : 1}
        />
        <Pawl x={pawl[0]} y={pawl[1]} fill={colour} scale={0.8} />
      </svg>
      {WORDS[verdict]}
    </span>
  );
}
