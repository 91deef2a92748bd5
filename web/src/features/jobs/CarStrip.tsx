import type { Schemas } from "../../app/api";

/** The state of the car now. An inverse block means: do not. On a phone only those remain. */
export function CarStrip({ facts }: { facts: Schemas["StripFact"][] }) {
  const wheelsOff = facts.find((f) => f.label === "Wheels off")?.value !== "0";
  return (
    <div className="m-0 flex h-16 items-stretch overflow-hidden border-t-2 border-ink bg-plate max-[800px]:h-auto max-[800px]:flex-wrap max-[800px]:border-t-0 [@media(max-height:700px)]:h-[52px]">
      <div
        className="flex w-[124px] flex-shrink-0 items-center justify-center max-[1100px]:hidden"
        aria-hidden="true"
      >
        <svg width="108" height="44" viewBox="0 0 108 44">
          <rect
            x="4"
            y="8"
            width="98"
            height="28"
            rx="10"
            fill="var(--plate)"
            stroke="var(--ink)"
            strokeWidth="1.6"
          />
          <path
            d="M78 9 C86 16 86 28 78 35 M90 12 C96 18 96 26 90 32"
            fill="none"
            stroke="var(--ink)"
            strokeWidth="1.4"
          />
          {[3, 36].map((y) => (
            <rect
              key={y}
              x="20"
              y={y}
              width="16"
              height="5"
              fill={wheelsOff ? "var(--pawl)" : "var(--ink)"}
              stroke="var(--ink)"
            />
          ))}
          {[3, 36].map((y) => (
            <rect key={y} x="74" y={y} width="16" height="5" fill="var(--ink)" />
          ))}
        </svg>
      </div>
      <dl className="m-0 flex min-w-0 flex-1 items-stretch max-[800px]:flex-wrap" aria-label="The car now">
        {facts.map((f) => (
          <div
            key={f.label}
            className={`min-w-0 flex-auto border-l border-rule px-3 py-2 leading-tight [@media(max-height:700px)]:py-1 ${f.doNot ? "bg-ink text-plate forced-colors:outline-4 forced-colors:-outline-offset-4 forced-colors:outline-double" : "max-[800px]:hidden"}`}
          >
            <dt className={`truncate text-[14px] ${f.doNot ? "" : "text-ink-2"}`}>{f.label}</dt>
            <dd className="m-0 truncate text-[16px] font-bold max-[1200px]:text-[15px]" title={f.value}>
              {f.value}
            </dd>
          </div>
        ))}
      </dl>
    </div>
  );
}
