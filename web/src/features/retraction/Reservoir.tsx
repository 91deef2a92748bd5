import type { Schemas } from "../../app/api";
import { ReservoirLevels } from "../hydraulics/views";
import { figure } from "../jobs/words";

/** The reservoir with the level now and after this piston is home; the answer is the core's. */
export function Reservoir({
  room,
  spec,
  level,
  displacedMl,
}: {
  room: Schemas["RoomResult"];
  spec: Schemas["ReservoirSpec"];
  level: number;
  displacedMl: number;
}) {
  const says: Record<Schemas["RoomVerdict"], string> = {
    "fits-under-max": "Fits under MAX",
    "over-max-under-brim": "Over MAX, under the brim",
    "draw-while-retracting": "At MIN: draw while they go back",
    "draw-off-first": `Draw off ${figure(room.drawOffMl)} mL first`,
  };
  return (
    <div className="flex items-center gap-4">
      <div className="flex h-[180px] w-[250px] flex-shrink-0">
        <ReservoirLevels
          spec={spec}
          stages={[
            ["now", level],
            ["after", room.levelAfter],
          ]}
        />
      </div>
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
