import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { api, take, type JobView, type Schemas } from "../../app/api";
import { ProblemNote } from "../../ui/Problem";

/** The workshop's own scenarios come in as files; their format is published. */
export function OwnScenario() {
  const client = useQueryClient();
  const [kept, setKept] = useState<string | null>(null);
  const read = useMutation({
    mutationFn: async (file: File) => {
      const body = JSON.parse(await file.text()) as Schemas["Scenario"];
      return take(api.POST("/api/practice/scenarios", { body }));
    },
    onSuccess: (card) => {
      setKept(card.title);
      void client.invalidateQueries({ queryKey: ["practice"] });
    },
  });
  return (
    <div>
      <h2 className="text-[24px]">A scenario of your own</h2>
      <p className="m-0 mb-2 text-[17px]">
        From the car of one that is here, from a file, or from a finished job: its record makes one of it.
      </p>
      <Link to="/practice/make" className="btn mr-2">
        Make a scenario
      </Link>
      <label className="btn cursor-pointer">
        Read a scenario in
        <input
          type="file"
          accept="application/json,.json"
          className="sr-only"
          onChange={(e) => {
            const file = e.target.files?.[0];
            e.target.value = "";
            if (file) read.mutate(file);
          }}
        />
      </label>
      {kept && (
        <p role="status" className="m-0 mt-2 text-[17px]">
          “{kept}” is among the scenarios.
        </p>
      )}
      <ProblemNote error={read.error} />
    </div>
  );
}

/** A scenario as a file, and of the workshop's own its end. */
export function KeptScenario({ card }: { card: Schemas["ScenarioCard"] }) {
  const client = useQueryClient();
  const remove = useMutation({
    mutationFn: () => take(api.DELETE("/api/practice/scenarios/{id}", { params: { path: { id: card.id } } })),
    onSuccess: () => client.invalidateQueries({ queryKey: ["practice"] }),
  });
  return (
    <>
      <a
        className="btn"
        href={`/api/practice/scenarios/${card.id}`}
        download={`${card.id}.json`}
        aria-label={`As a file: ${card.title}`}
      >
        File
      </a>
      {card.isOwn && (
        <button
          type="button"
          className="btn"
          aria-label={`Remove ${card.title}`}
          disabled={remove.isPending}
          onClick={() => remove.mutate()}
        >
          Remove
        </button>
      )}
      <ProblemNote error={remove.error} />
    </>
  );
}

/** A finished job becomes a scenario: what it is called and what the driver says is asked, the rest is its readings. */
export function ScenarioFromJob({ job }: { job: JobView }) {
  const client = useQueryClient();
  const [open, setOpen] = useState(false);
  const [title, setTitle] = useState("");
  const [driverSays, setDriverSays] = useState("");
  const make = useMutation({
    mutationFn: () =>
      take(
        api.POST("/api/practice/scenarios/from-job", {
          body: { jobId: job.id, id: `job-${job.id.slice(0, 8)}`, title, driverSays },
        }),
      ),
    onSuccess: () => client.invalidateQueries({ queryKey: ["practice"] }),
  });
  if (!open)
    return (
      <button type="button" className="btn" onClick={() => setOpen(true)}>
        Make a scenario of it
      </button>
    );
  return (
    <div className="flex w-full flex-wrap items-end gap-2">
      <label className="field min-w-[220px] flex-1">
        <span>Title</span>
        <input value={title} maxLength={80} onChange={(e) => setTitle(e.target.value)} />
      </label>
      <label className="field min-w-[220px] flex-1">
        <span>What the driver says</span>
        <input value={driverSays} maxLength={300} onChange={(e) => setDriverSays(e.target.value)} />
      </label>
      <button type="button" className="btn" disabled={make.isPending} onClick={() => make.mutate()}>
        Make it
      </button>
      {make.data && (
        <p role="status" className="m-0 w-full text-[17px]">
          “{make.data.title}” is among the scenarios: plate, names, VIN, notes and pictures stayed here.
        </p>
      )}
      <ProblemNote error={make.error} />
    </div>
  );
}
