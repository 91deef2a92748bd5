import type { Schemas } from "../app/api";
import { Pawl } from "./marks";

const NAMES: Record<Schemas["Stage"], string> = {
  look: "Look",
  "make-safe": "Make safe",
  free: "Free",
  judge: "Judge",
  clean: "Clean",
  retract: "Retract",
  fit: "Fit",
  torque: "Torque",
  close: "Close",
  prove: "Prove",
  record: "Record",
};

/** The stages as ratchet teeth: filled when finished, the pawl at the present one, an open tooth with its count where steps are left behind. */
export function Spine({ teeth, stage }: { teeth: Schemas["SpineTooth"][]; stage: Schemas["Stage"] }) {
  return (
    <ol className="relative m-0 flex h-full w-full list-none flex-col p-0" aria-label="Stages">
      {teeth.map((t) => {
        const here = t.stage === stage;
        const name = NAMES[t.stage];
        return (
          <li
            key={t.stage}
            className={`relative flex min-h-0 flex-1 items-center pl-4 ${t.finished ? "text-rail-text" : here ? "" : "text-ink-2"}`}
            aria-current={here ? "step" : undefined}
          >
            <svg
              className="absolute inset-0 h-full w-[120px] max-[1100px]:w-[96px]"
              viewBox="0 0 120 60"
              preserveAspectRatio="none"
              aria-hidden="true"
            >
              <path d="M0 0 H98 L119 60 H0 Z" fill={t.finished ? "var(--rail)" : "none"} />
              <path
                d="M98 0 L119 60 H98"
                fill="none"
                stroke="var(--railline)"
                strokeWidth="1.5"
                vectorEffect="non-scaling-stroke"
              />
            </svg>
            <span
              className={`title relative ${here ? "max-[1100px]:!text-[24px]" : "max-[1100px]:!text-[18px]"}`}
              style={{
                fontSize: here ? (name.length > 7 ? 23 : name.length > 6 ? 27 : 31) : 20,
                fontWeight: here ? 600 : 500,
              }}
            >
              {name}
              {!t.finished &&
                !here &&
                t.stepsLeft > 0 &&
                teeth.findIndex((x) => x.stage === t.stage) < teeth.findIndex((x) => x.stage === stage) && (
                  <span className="block font-sans text-[13px]">{t.stepsLeft} open</span>
                )}
            </span>
            {here && (
              <svg
                className="absolute top-0 right-[14px] max-[1100px]:right-0 h-[44px] w-[52px] overflow-visible"
                viewBox="0 0 52 44"
                aria-hidden="true"
              >
                <g transform="translate(48 4) rotate(68) scale(1.15)">
                  <Pawl x={0} y={0} drop />
                </g>
              </svg>
            )}
          </li>
        );
      })}
    </ol>
  );
}
