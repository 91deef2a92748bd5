import type { Schemas } from "../../app/api";
import { OpposedSeen } from "./OpposedSeen";
import { PistonFace } from "./PistonFace";

/** The piston as one faces it, which way it goes home, and what it is done with. */
export function RulingFace({
  view,
  ruling,
  size,
}: {
  view: Schemas["JobRetractionView"];
  ruling: Schemas["Ruling"];
  size: number;
}) {
  const { bench } = view;
  const opposed = ruling.method === "opposed-push";
  return (
    <div className="flex flex-wrap items-center justify-center gap-4">
      {opposed && bench?.creep ? (
        <OpposedSeen answer={bench.creep} home={view.piston.homeProtrusionMm} />
      ) : (
        <PistonFace
          ruling={{ direction: bench?.direction ?? ruling.direction, slots: ruling.slots }}
          size={size}
          slotDeg={bench?.slotNowDeg ?? null}
          wantedDeg={view.facts.wantedDeg ?? 0}
        />
      )}
      <div className={opposed ? "w-full" : "w-[150px]"}>
        {ruling.direction && (
          <p className="title m-0 text-[27px] capitalize">{bench?.direction ?? ruling.direction}</p>
        )}
        {!opposed && (
          <p className="m-0 text-[15px] text-ink-2">
            {ruling.direction
              ? bench?.direction && bench.direction !== ruling.direction
                ? "facing it, the other way now"
                : ruling.directionIsDefault
                  ? "facing it; a default, to be proved in the first half turn"
                  : "facing it, from the sheet"
              : "square on its face"}
          </p>
        )}
        <p className="mt-2 mb-0 text-[15px]">{ruling.tool}.</p>
      </div>
    </div>
  );
}
