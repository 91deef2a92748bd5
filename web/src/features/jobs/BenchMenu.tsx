import { DropdownMenu } from "radix-ui";
import { Link } from "react-router";
import type { JobView, Schemas } from "../../app/api";

type Lane = Schemas["SheetLane"];
type Kind = Schemas["BenchKind"];

export const BENCH_NAME: Record<Kind, string> = {
  look: "Which brake",
  retract: "Retract bench",
  rotor: "Rotor bench",
  shoes: "Shoe bench",
  pads: "Pad bench",
  fluid: "Fluid bench",
  torques: "Torque card",
};

/** Where a bench of a job is. */
export const benchPath = (jobId: string, kind: Kind, lane: Lane) =>
  `/jobs/${jobId}/${kind}${lane === "car" ? "" : `/${lane}`}`;

/** Every bench of a lane, two touches from any step. */
export function BenchMenu({ job, lane }: { job: JobView; lane: Lane }) {
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger
        className="btn !min-h-12 !px-3"
        aria-label={`Benches, ${lane === "car" ? "car" : `${lane} corner`}`}
      >
        Benches
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="end"
          className="z-20 flex min-w-[200px] flex-col rounded border-2 border-ink bg-plate p-1"
        >
          {job.sheet.benches
            .filter((b) => b.lane === lane)
            .map((b) => (
              <DropdownMenu.Item key={b.kind} asChild>
                <Link
                  className="flex min-h-12 items-center rounded px-3 text-[19px] text-ink no-underline outline-none data-[highlighted]:bg-ink data-[highlighted]:text-plate"
                  to={benchPath(job.id, b.kind, lane)}
                >
                  {BENCH_NAME[b.kind]}
                </Link>
              </DropdownMenu.Item>
            ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
