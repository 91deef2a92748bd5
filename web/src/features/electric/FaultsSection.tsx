import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, take, type Schemas } from "../../app/api";
import { ProblemNote } from "../../ui/Problem";
import { FAULT } from "./words";

/** Faults of the car that is not there: for practice, and to see what the bench makes of them. The lead's. */
export function FaultsSection() {
  const client = useQueryClient();
  const faults = useQuery({ queryKey: ["faults"], queryFn: () => take(api.GET("/api/car/faults")) });
  const set = useMutation({
    mutationFn: (body: Schemas["FaultCommand"]) => take(api.POST("/api/car/faults", { body })),
    onSuccess: (now) => client.setQueryData(["faults"], now),
  });
  if (!faults.data?.isOwn) return null;
  return (
    <section className="flex flex-col gap-2">
      <h2 className="text-[26px]">Stand-in car</h2>
      <p className="m-0 text-[15px] text-ink-2">
        Faults of the car that practice and demo jobs are linked to. No real car ever has them from here.
      </p>
      <div className="grid grid-cols-2 gap-2">
        {faults.data.all.map((fault) => {
          const on = faults.data.set.includes(fault);
          return (
            <button
              key={fault}
              type="button"
              className="btn"
              aria-pressed={on}
              disabled={set.isPending}
              onClick={() => set.mutate({ fault, on: !on })}
            >
              {FAULT[fault]}
            </button>
          );
        })}
      </div>
      <ProblemNote error={set.error} />
    </section>
  );
}
