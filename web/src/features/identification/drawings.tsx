import type { Schemas } from "../../app/api";

type Look = Schemas["Look"];
type Seen = Schemas["Seen"];
const P = { stroke: "var(--ink)", strokeWidth: 1.5 };
const iron = { ...P, fill: "var(--iron)" };
const key = { ...P, fill: "var(--ink)" };
const plate = { ...P, fill: "var(--plate)" };

const Caliper = () => <path d="M14 18 H66 L72 24 V42 L66 48 H14 L8 42 V24 Z" {...iron} />;
const Rotor = () => (
  <>
    <circle cx="38" cy="30" r="25" {...iron} />
    <circle cx="38" cy="30" r="11" {...plate} />
  </>
);
const Face = ({ children }: { children?: React.ReactNode }) => (
  <>
    <circle cx="40" cy="30" r="26" fill="var(--lining)" stroke="var(--ink)" strokeWidth="1.5" />
    <circle cx="40" cy="30" r="21" fill="var(--iron)" stroke="var(--ink)" strokeWidth="1.5" />
    {children}
  </>
);

const LOOKS: Record<Look, React.ReactNode> = {
  "cabin-control": null,
  "brake-by-wire": (
    <>
      <path d="M12 6 V30 L6 46 H22" fill="none" {...P} strokeWidth={4} />
      <path d="M16 24 l5 -5 5 9 5 -9 5 9 5 -9 4 4" {...P} fill="none" strokeWidth={2.4} />
      <rect x="48" y="12" width="24" height="26" {...key} />
    </>
  ),
  "puller-box": (
    <>
      <rect x="6" y="12" width="34" height="34" rx="3" {...key} />
      <path
        d="M40 24 C52 24 50 12 60 12 H76 M40 34 C52 34 50 48 60 48 H76"
        fill="none"
        {...P}
        strokeWidth={3}
      />
    </>
  ),
  "caliper-lever": (
    <>
      <Caliper />
      <path d="M48 34 L66 8 L72 12 L56 38 Z" {...key} />
      <circle cx="52" cy="36" r="6" {...key} />
      <path d="M68 10 H80" {...P} strokeWidth={3} />
    </>
  ),
  "caliper-motor": (
    <>
      <Caliper />
      <path d="M24 24 C36 20 56 24 60 33 C58 44 36 46 26 42 C20 38 20 28 24 24 Z" {...key} />
      <rect x="56" y="42" width="12" height="9" {...key} />
    </>
  ),
  "plate-cable": (
    <>
      <Rotor />
      <path d="M46 36 C56 40 62 46 80 50" fill="none" stroke="var(--ink)" strokeWidth="6" />
    </>
  ),
  "plate-motor": (
    <>
      <Rotor />
      <rect x="46" y="32" width="26" height="15" rx="4" {...key} />
    </>
  ),
  "second-caliper": (
    <>
      <Rotor />
      <path d="M14 14 A30 30 0 0 0 12 46 L22 40 A18 18 0 0 1 24 20 Z" {...iron} />
      <path d="M62 16 A30 30 0 0 1 66 36 L55 34 A18 18 0 0 0 52 23 Z" {...key} />
    </>
  ),
  "brake-hose": (
    <>
      <Caliper />
      <path d="M40 33 C44 10 60 8 80 8" fill="none" stroke="var(--ink)" strokeWidth="6" />
      <circle cx="40" cy="33" r="6" {...key} />
    </>
  ),
  "hat-hole": (
    <>
      <Rotor />
      <circle cx="38" cy="30" r="18" {...plate} />
      <ellipse cx="48" cy="38" rx="6" ry="5" {...key} />
    </>
  ),
  "opposed-pistons": (
    <>
      <rect x="36" y="4" width="8" height="52" {...iron} />
      <rect x="8" y="18" width="24" height="24" {...iron} />
      <rect x="48" y="18" width="24" height="24" {...iron} />
      <rect x="24" y="22" width="8" height="16" {...key} />
      <rect x="48" y="22" width="8" height="16" {...key} />
    </>
  ),
  "rear-hex-plug": (
    <>
      <Caliper />
      <circle cx="40" cy="33" r="14" {...plate} />
      <path d="M32 33 L36 26 H44 L48 33 L44 40 H36 Z" {...key} />
    </>
  ),
  "piston-face": <Face />,
  "pad-pin": (
    <>
      <path d="M10 14 H70 V46 H10 Z" {...iron} />
      <circle cx="40" cy="30" r="6" {...key} />
    </>
  ),
  "pad-spring-clip": (
    <>
      <path d="M10 14 H70 V46 H10 Z" {...iron} />
      <path
        d="M28 40 V22 C28 16 34 16 36 22 V38 M52 40 V22 C52 16 46 16 44 22 V38"
        fill="none"
        stroke="var(--ink)"
        strokeWidth="3.5"
      />
    </>
  ),
  "push-moves": (
    <>
      <path d="M8 10 H44 V20 H24 V42 H44 V52 H8 Z" {...iron} />
      <rect x="28" y="22" width="24" height="18" {...plate} />
      <path d="M82 31 H62 M68 23 L58 31 L68 39 Z" {...key} strokeWidth={4} />
    </>
  ),
};

const SEEN: Partial<Record<Seen, React.ReactNode>> = {
  "hand-lever": <path d="M8 50 H50 L44 40 L74 10 L66 4 L30 38 L10 44 Z" {...key} />,
  "foot-pedal": (
    <>
      <path d="M46 4 H70 V12 H46 Z" {...iron} />
      <path d="M56 12 L48 34" {...P} strokeWidth={4} />
      <path d="M20 40 L46 26 L54 38 L28 52 Z" {...key} />
    </>
  ),
  switch: (
    <>
      <rect x="8" y="6" width="64" height="46" rx="6" {...iron} />
      <rect x="20" y="14" width="40" height="30" {...plate} />
      <path d="M40 18 L47 26 H33 Z" {...key} />
      <path d="M40 40 L47 32 H33 Z" {...plate} />
    </>
  ),
  "plain-cup": <Face />,
  "two-notches": (
    <Face>
      <rect x="36" y="8" width="8" height="12" {...key} />
      <rect x="36" y="40" width="8" height="12" {...key} />
    </Face>
  ),
  cross: (
    <Face>
      <path d="M36 12 H44 V26 H58 V34 H44 V48 H36 V34 H22 V26 H36 Z" {...key} />
    </Face>
  ),
  "three-lobes": (
    <Face>
      <circle cx="40" cy="19" r="5.5" {...key} />
      <circle cx="30" cy="36" r="5.5" {...key} />
      <circle cx="50" cy="36" r="5.5" {...key} />
    </Face>
  ),
  "v-shape": (
    <Face>
      <path d="M24 18 H32 L40 36 L48 18 H56 L44 46 H36 Z" {...key} />
    </Face>
  ),
};

/** What a look is at; with an answer that is a shape of its own, that shape. Faded and struck when the answer is no. */
export function LookDrawing({ look, seen, width = 84 }: { look: Look; seen?: Seen; width?: number }) {
  const no = seen === "no";
  const drawing = (seen && SEEN[seen]) ?? LOOKS[look];
  return (
    <svg width={width} height={width * 0.7} viewBox="0 0 84 58" aria-hidden="true" className="flex-shrink-0">
      <g opacity={no ? 0.35 : 1}>{drawing}</g>
      {no && <path d="M6 52 L78 6" stroke="var(--ink)" strokeWidth="2.4" />}
    </svg>
  );
}
