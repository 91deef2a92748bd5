import { Dialog } from "radix-ui";
import { Link } from "react-router";
import type { JobView, Schemas } from "../../app/api";
import { Overlay } from "../../ui/Overlay";

type Lane = Schemas["SheetLane"];
type Kind = Schemas["BenchKind"];

const LANES: [Lane, string][] = [
  ["left", "Left corner"],
  ["car", "Car"],
  ["right", "Right corner"],
];

export const BENCH_NAME: Record<Kind, string> = {
  look: "Which brake",
  retract: "Retract bench",
  rotor: "Rotor bench",
  shoes: "Shoe bench",
  pads: "Pad bench",
  fluid: "Fluid bench",
  torques: "Torque card",
  electric: "Electric bench",
  prove: "Parking brake proved",
  "bed-in": "Bed-in",
};

/** Where a bench of a job is. */
export const benchPath = (jobId: string, kind: Kind, lane: Lane) =>
  `/jobs/${jobId}/${kind}${lane === "car" ? "" : `/${lane}`}`;

/** Every bench that the job has, two touches from any step. */
export function BenchMenu({ job, className = "" }: { job: JobView; className?: string }) {
  return (
    <Dialog.Root>
      <Dialog.Trigger
        className={`flex min-h-11 items-center border-0 bg-transparent p-0 text-inherit ${className}`}
      >
        Benches
      </Dialog.Trigger>
      <Overlay title="Benches" wide>
        <div className="grid grid-cols-3 gap-3 max-[700px]:grid-cols-1">
          {LANES.map(([lane, name]) => (
            <section key={lane} className="flex flex-col gap-2">
              <h3 className="title m-0 text-[20px]">{name}</h3>
              {job.sheet.benches
                .filter((b) => b.lane === lane)
                .map((b) => (
                  <Link
                    key={b.kind}
                    className="btn !min-h-16 !text-[22px]"
                    to={benchPath(job.id, b.kind, lane)}
                  >
                    {BENCH_NAME[b.kind]}
                  </Link>
                ))}
              {lane === "car" && (
                <Link
                  className="btn !min-h-16 !text-[22px]"
                  to={`/vehicles/${encodeURIComponent(job.opened.vehicle.plate)}`}
                >
                  This vehicle
                </Link>
              )}
            </section>
          ))}
        </div>
      </Overlay>
    </Dialog.Root>
  );
}
