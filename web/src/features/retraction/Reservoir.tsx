import type { Schemas } from "../../app/api";
import { ReservoirLevels } from "../hydraulics/ReservoirLevels";

/** The reservoir's levels and what they ask for; the answer is the core's. */
export function Reservoir({
  spec,
  stages,
  says,
  stops,
}: {
  spec: Schemas["ReservoirSpec"];
  stages: [name: string, percent: number][];
  says: string;
  stops: boolean;
}) {
  return (
    <div className="flex items-center gap-4">
      <div className="flex h-[180px] w-[250px] flex-shrink-0">
        <ReservoirLevels spec={spec} stages={stages} />
      </div>
      <p className={`title m-0 text-[20px] ${stops ? "text-outside" : ""}`}>{says}</p>
    </div>
  );
}
