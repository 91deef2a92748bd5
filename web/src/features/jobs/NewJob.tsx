import { newId } from "../../app/ids";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef } from "react";
import { Link, useNavigate, useSearchParams } from "react-router";
import { api, ApiError, occurredAt, take, type Schemas, type Side } from "../../app/api";
import { useDraft } from "../../app/hooks";
import { queries } from "../../app/queries";
import { ProblemNote } from "../../ui/Problem";
import { Shell } from "../../ui/Shell";
import { SCOPES } from "./words";

const EMPTY = {
  plate: "",
  make: "",
  model: "",
  use: "",
  vin: "",
  sheetCode: "",
  odometer: "",
  bay: "",
  complaint: "",
};

/** A car comes in: which one, what the driver says, what is renewed. */
export function NewJob() {
  const known = useQuery(queries.vehicles);
  const sheets = useQuery(queries.sheets);
  // Kept over a reload, with the ids that it is opened under: opened twice by a lost answer it is one job.
  const [draft, keep, clear] = useDraft("new job");
  const f = { ...EMPTY, ...draft };
  const scope = (draft.scope || "pads") as Schemas["JobScope"];
  const setScope = (next: Schemas["JobScope"]) => keep("scope", next);
  const calipers = (draft.calipers ? draft.calipers.split(" ") : []) as Side[];
  const setCalipers = (next: Side[]) => keep("calipers", next.join(" "));
  const purpose: Schemas["JobPurpose"] = draft.purpose === "practice" ? "practice" : "real";
  const ids = useRef({
    jobId: draft.jobId || newId(),
    eventId: draft.eventId || newId(),
    occurredAt: draft.occurredAt || occurredAt(),
  });
  const navigate = useNavigate();
  const client = useQueryClient();
  const open = useMutation({
    mutationFn: (anyway: boolean) =>
      take(
        api.POST("/api/jobs", {
          body: {
            ...ids.current,
            expectedVersion: 0,
            bay: Number(f.bay),
            vehicle: { plate: f.plate, make: f.make, model: f.model, use: f.use, vin: f.vin.trim() || null },
            sheetCode: f.sheetCode,
            odometerKm: Number(f.odometer),
            complaint: f.complaint,
            scope,
            newCalipers: calipers,
            purpose,
            anyway,
          },
        }),
      ),
    onMutate: () => {
      for (const [key, value] of Object.entries(ids.current)) keep(key, value);
    },
    onSuccess: (a) => {
      clear();
      void client.invalidateQueries({ queryKey: queries.board.queryKey });
      void navigate(`/jobs/${a.jobId}`);
    },
    onError: (e) => {
      // Answered with a no: the next try is another command, and another job should the first have been opened after all.
      if (e instanceof ApiError) ids.current = { jobId: newId(), eventId: newId(), occurredAt: occurredAt() };
    },
  });
  const choose = (wanted: string) => {
    const v = known.data?.find((k) => k.vehicle.plate === wanted);
    if (!v) return;
    const { plate, make, model, use, vin } = v.vehicle;
    const fields = { plate, make, model, use, vin: vin ?? "", sheetCode: v.sheetCode };
    for (const [key, value] of Object.entries(fields)) keep(key, value);
  };
  // From a vehicle's own page it is chosen already.
  const [query, setQuery] = useSearchParams();
  const asked = query.get("plate");
  useEffect(() => {
    if (asked === null || !known.data) return;
    choose(asked);
    setQuery({}, { replace: true });
  });
  const set = (key: keyof typeof EMPTY) => (e: React.ChangeEvent<HTMLInputElement | HTMLSelectElement>) =>
    keep(key, e.target.value);
  const wrong = (name: string) => (open.error instanceof ApiError ? open.error.field(name) : undefined);
  const field = (
    key: keyof typeof EMPTY,
    label: string,
    name: string,
    more: React.InputHTMLAttributes<HTMLInputElement> = {},
  ) => (
    <div>
      <label className="field">
        <span>{label}</span>
        <input value={f[key]} onChange={set(key)} aria-invalid={!!wrong(name)} {...more} />
      </label>
      {wrong(name) && <p className="wrong m-0 mt-1">{wrong(name)}</p>}
    </div>
  );
  return (
    <Shell title="New job">
      <form
        className="mx-auto grid h-full max-w-[1100px] content-start gap-x-6 gap-y-3 overflow-auto p-6 min-[900px]:grid-cols-2"
        onSubmit={(e) => {
          e.preventDefault();
          open.mutate(false);
        }}
      >
        <div className="flex flex-col gap-3">
          <h2 className="text-[26px]">The car</h2>
          <label className="field">
            <span>Known vehicle</span>
            <select value="" onChange={(e) => choose(e.target.value)}>
              <option value="">Choose, or fill in below</option>
              {known.data?.map((k) => (
                <option key={k.vehicle.plate} value={k.vehicle.plate}>
                  {k.vehicle.plate}: {k.vehicle.make} {k.vehicle.model}, {k.vehicle.use}
                </option>
              ))}
            </select>
          </label>
          <div className="grid grid-cols-2 gap-3">
            {field("plate", "Plate", "vehicle.plate")}
            {field("vin", "VIN, if known", "vin", { maxLength: 17 })}
            {field("make", "Maker", "vehicle.make")}
            {field("model", "Model", "vehicle.model")}
          </div>
          {field("use", "What the vehicle is used for", "vehicle.use")}
          <div>
            <label className="field">
              <span>Spec sheet</span>
              <select value={f.sheetCode} onChange={set("sheetCode")} aria-invalid={!!wrong("sheetCode")}>
                <option value="">Choose</option>
                {sheets.data?.map((s) => (
                  <option key={s.code} value={s.code}>
                    {s.code}: {s.title}
                  </option>
                ))}
              </select>
            </label>
            {sheets.data?.length === 0 && (
              <p className="m-0 mt-1 text-[15px]">No spec sheet yet: the lead reads one in under Workshop.</p>
            )}
            {wrong("sheetCode") && <p className="wrong m-0 mt-1">{wrong("sheetCode")}</p>}
          </div>
          <button
            type="button"
            className="btn"
            aria-pressed={purpose === "practice"}
            onClick={() => keep("purpose", purpose === "practice" ? "" : "practice")}
          >
            Practice: no real car. It stays so for ever.
          </button>
        </div>
        <div className="flex flex-col gap-3">
          <h2 className="text-[26px]">The job</h2>
          <div className="grid grid-cols-2 gap-3">
            {field("bay", "Bay", "bay", { inputMode: "numeric" })}
            {field("odometer", "Odometer, km", "odometerKm", { inputMode: "numeric" })}
          </div>
          {field("complaint", "What the driver says", "complaint")}
          <fieldset className="m-0 grid grid-cols-2 gap-2 border-0 p-0">
            <legend className="mb-1 text-[15px] text-ink-2">What is renewed, both sides</legend>
            {SCOPES.map(([key, says]) => (
              <button
                key={key}
                type="button"
                className="btn"
                aria-pressed={scope === key}
                onClick={() => setScope(key)}
              >
                {says}
              </button>
            ))}
          </fieldset>
          <fieldset className="m-0 grid grid-cols-2 gap-2 border-0 p-0">
            <legend className="mb-1 text-[15px] text-ink-2">New calipers</legend>
            {(["left", "right"] as const).map((side) => (
              <button
                key={side}
                type="button"
                className="btn"
                aria-pressed={calipers.includes(side)}
                onClick={() =>
                  setCalipers(
                    calipers.includes(side) ? calipers.filter((c) => c !== side) : [...calipers, side],
                  )
                }
              >
                {side === "left" ? "Left caliper" : "Right caliper"}
              </button>
            ))}
          </fieldset>
          <p className="m-0 text-[15px] text-ink-2">
            Spec sheet and house rules are copied into the job: later changes do not touch it.
          </p>
          <ProblemNote error={open.error} />
          {open.error instanceof ApiError && open.error.problem.open && (
            <div className="flex flex-wrap gap-2">
              {open.error.problem.open.map((o) => (
                <Link key={o.jobId} className="btn no-underline" to={`/jobs/${o.jobId}`}>
                  Go to job {o.number}
                </Link>
              ))}
              <button
                type="button"
                className="btn"
                disabled={open.isPending}
                onClick={() => open.mutate(true)}
              >
                Open another job all the same
              </button>
            </div>
          )}
          <button className="btn-primary" disabled={open.isPending}>
            Start the job
          </button>
        </div>
      </form>
    </Shell>
  );
}
