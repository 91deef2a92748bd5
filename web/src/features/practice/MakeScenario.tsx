import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useNavigate, useSearchParams } from "react-router";
import { api, ApiError, take, type Schemas } from "../../app/api";
import { useDraft } from "../../app/hooks";
import { newId } from "../../app/ids";
import { typedNumber } from "../../app/units";
import { ProblemNote } from "../../ui/Problem";
import { Shell } from "../../ui/Shell";
import { Tick } from "../../ui/Tick";
import { SCOPES } from "../jobs/words";

const SIDES = ["left", "right"] as const;

/** A scenario of the workshop's own: the car of one that is here, with another truth. */
export function MakeScenario() {
  const [query, setQuery] = useSearchParams();
  const home = useQuery({ queryKey: ["practice"], queryFn: () => take(api.GET("/api/practice")) });
  const from = query.get("from") ?? home.data?.scenarios[0]?.id;
  const form = useQuery({
    queryKey: ["practice", "form"],
    queryFn: () => take(api.GET("/api/practice/form")),
    staleTime: Infinity,
  });
  const base = useQuery({
    queryKey: ["practice", "scenario", from],
    queryFn: () => take(api.GET("/api/practice/scenarios/{id}", { params: { path: { id: from! } } })),
    enabled: from !== undefined,
    staleTime: Infinity,
  });
  return (
    <Shell title="A scenario of your own" sub="What is true of a car that is not there">
      <div className="flex h-full flex-col gap-3 px-5 pt-4">
        <ProblemNote error={home.error ?? form.error ?? base.error} />
        {home.data && (
          <label className="field max-w-[560px] flex-none">
            <span>Begin with the car of</span>
            <select value={from} onChange={(e) => setQuery({ from: e.target.value }, { replace: true })}>
              {home.data.scenarios.map((s) => (
                <option key={s.id} value={s.id}>
                  {s.title}: {s.vehicle}
                </option>
              ))}
            </select>
          </label>
        )}
        {form.data && base.data && <Fields key={base.data.id} form={form.data} base={base.data} />}
      </div>
    </Shell>
  );
}

type Figures = Record<string, unknown>;

function Fields({ form, base }: { form: Schemas["ScenarioForm"]; base: Schemas["Scenario"] }) {
  const navigate = useNavigate();
  const client = useQueryClient();
  const [draft, keep, clear] = useDraft(`scenario from ${base.id}`);
  const scope = (draft.scope ?? base.scope) as Schemas["JobScope"];
  const of = (key: string, stored: unknown) => draft[key] ?? (stored == null ? "" : String(stored));
  const figure = (key: string, stored: unknown) => typedNumber(of(key, stored));
  const list = (key: string, stored: string[]) =>
    draft[key] === undefined ? stored : draft[key].split(" ").filter((x) => x);
  const crowfoot = base.truth.crowfoot;
  const crowfootAt = of("crowfoot.role", crowfoot?.role);
  // What cannot be read is said before anything is sent; what can be read and cannot be is the server's to say.
  const unread = [
    ...(isUnread(figure("odometerKm", base.odometerKm)) ? ["odometer"] : []),
    ...(crowfootAt && isUnread(figure("crowfoot.extensionMm", crowfoot?.extensionMm)) ? ["crowfoot"] : []),
    ...(crowfootAt && isUnread(figure("crowfoot.wrenchMm", crowfoot?.wrenchMm)) ? ["wrench"] : []),
    ...form.car.filter((f) => isUnread(figure(f.key, (base.truth as Figures)[f.key]))).map((f) => f.says),
    ...SIDES.flatMap((side) =>
      form.corner
        .filter((f) =>
          isUnread(figure(`${side}.${f.key}`, (base.truth[side] as Figures)[f.key]), f.isOptional),
        )
        .map((f) => f.says),
    ),
  ];
  const save = useMutation({
    mutationFn: () => {
      // Kept with the draft: sent again after a lost answer it is the same one.
      const id = draft.id ?? `own-${newId().slice(0, 8)}`;
      keep("id", id);
      const corner = (side: (typeof SIDES)[number]) => ({
        ...base.truth[side],
        ...Object.fromEntries(
          form.corner.map((f) => [f.key, figure(`${side}.${f.key}`, (base.truth[side] as Figures)[f.key])]),
        ),
        starLoosensUp: of(`${side}.star`, base.truth[side].starLoosensUp) === "true",
        faults: list(`${side}.faults`, base.truth[side].faults),
      });
      const body = {
        ...base,
        id,
        title: draft.title ?? "",
        driverSays: of("driverSays", base.driverSays),
        odometerKm: figure("odometerKm", base.odometerKm),
        scope,
        truth: {
          ...base.truth,
          ...Object.fromEntries(form.car.map((f) => [f.key, figure(f.key, (base.truth as Figures)[f.key])])),
          left: corner("left"),
          right: corner("right"),
          crowfoot: crowfootAt
            ? {
                role: crowfootAt,
                extensionMm: figure("crowfoot.extensionMm", crowfoot?.extensionMm),
                wrenchMm: figure("crowfoot.wrenchMm", crowfoot?.wrenchMm),
              }
            : null,
          faults: list("faults", base.truth.faults),
        },
        traps: list("traps", base.traps),
        trains: list("trains", base.trains),
      };
      return take(api.POST("/api/practice/scenarios", { body: body as Schemas["Scenario"] }));
    },
    onSuccess: () => {
      clear();
      void client.invalidateQueries({ queryKey: ["practice"] });
      void navigate("/practice");
    },
  });
  const wrong = (name: string) => (save.error instanceof ApiError ? save.error.field(name) : undefined);
  const field = (key: string, label: string, stored: unknown, name = key, isFigure = true) => (
    <div key={key} className="min-w-0">
      <label className="field">
        <span>{label}</span>
        <input
          value={of(key, stored)}
          inputMode={isFigure ? "decimal" : "text"}
          aria-invalid={!!wrong(name)}
          onChange={(e) => keep(key, e.target.value)}
        />
      </label>
      {wrong(name) && <p className="wrong m-0 mt-1">{wrong(name)}</p>}
    </div>
  );
  const ticks = (
    key: string,
    label: string,
    choices: { key: string; says: string; more: string | null }[],
    stored: string[],
  ) => {
    const on = list(key, stored);
    return (
      <fieldset className="m-0 min-w-0 border-0 p-0">
        <legend className="mb-1 text-[15px] text-ink-2">{label}</legend>
        {choices.map((c) => (
          <Tick
            key={c.key}
            checked={on.includes(c.key)}
            onChange={(yes) => keep(key, (yes ? [...on, c.key] : on.filter((x) => x !== c.key)).join(" "))}
          >
            <span>
              {c.says}
              {c.more && <span className="block text-[15px] text-ink-2">{c.more}</span>}
            </span>
          </Tick>
        ))}
      </fieldset>
    );
  };
  return (
    <form
      className="flex min-h-0 flex-1 flex-col"
      onSubmit={(e) => {
        e.preventDefault();
        save.mutate();
      }}
    >
      <div
        className="grid min-h-0 flex-1 grid-cols-[4fr_6fr_4fr] content-start items-start gap-6 overflow-auto pb-4 max-[1000px]:grid-cols-1"
        tabIndex={0}
        role="group"
        aria-label="The scenario"
      >
        <section className="flex min-w-0 flex-col gap-2" aria-label="The car">
          <h2 className="text-[26px]">The car</h2>
          {field("title", "Title", "", "title", false)}
          {field("driverSays", "What the driver says", base.driverSays, "driverSays", false)}
          <label className="field">
            <span>Renewed</span>
            <select value={scope} onChange={(e) => keep("scope", e.target.value)}>
              {SCOPES.map(([key, says]) => (
                <option key={key} value={key}>
                  {says}
                </option>
              ))}
            </select>
          </label>
          {field("odometerKm", "Odometer, km", base.odometerKm)}
          {form.car.map((f) => field(f.key, ranged(f), (base.truth as Figures)[f.key], `truth.${f.key}`))}
          <label className="field">
            <span>Reached with a crowfoot only</span>
            <select value={crowfootAt} onChange={(e) => keep("crowfoot.role", e.target.value)}>
              <option value="">Nothing</option>
              {form.fasteners.map((r) => (
                <option key={r.key} value={r.key}>
                  {r.says}
                </option>
              ))}
            </select>
          </label>
          {crowfootAt && (
            <div className="grid grid-cols-2 gap-2">
              {field(
                "crowfoot.extensionMm",
                "Crowfoot, mm",
                crowfoot?.extensionMm,
                "truth.crowfoot.extensionMm",
              )}
              {field("crowfoot.wrenchMm", "Wrench, mm", crowfoot?.wrenchMm, "truth.crowfoot.wrenchMm")}
            </div>
          )}
          {ticks("faults", "What else is so", form.carFaults, base.truth.faults)}
        </section>
        <section className="flex min-w-0 flex-col gap-2" aria-label="The corners">
          <div className="grid grid-cols-2 gap-4">
            {SIDES.map((side) => (
              <div key={side} role="group" aria-label={side} className="flex min-w-0 flex-col gap-2">
                <h2 className="text-[26px]">{side === "left" ? "Left" : "Right"}</h2>
                {form.corner
                  .filter((f) => !f.isOptional || (base.truth[side] as Figures)[f.key] !== null)
                  .map((f) =>
                    field(
                      `${side}.${f.key}`,
                      ranged(f),
                      (base.truth[side] as Figures)[f.key],
                      `truth.${side}.${f.key}`,
                    ),
                  )}
                {base.truth[side].drumMm !== null && (
                  <label className="field">
                    <span>Star wheel loosens</span>
                    <select
                      value={of(`${side}.star`, base.truth[side].starLoosensUp)}
                      onChange={(e) => keep(`${side}.star`, e.target.value)}
                    >
                      <option value="false">Down</option>
                      <option value="true">Up</option>
                    </select>
                  </label>
                )}
                {ticks(`${side}.faults`, "To be found there", form.cornerFaults, base.truth[side].faults)}
              </div>
            ))}
          </div>
        </section>
        <section className="flex min-w-0 flex-col gap-2" aria-label="What it is about">
          <h2 className="text-[26px]">What it is about</h2>
          {ticks("trains", "Shows", form.trains, base.trains)}
          {ticks("traps", "Mistakes it invites", form.traps, base.traps)}
        </section>
      </div>
      <div className="flex flex-none flex-col gap-2 border-t-2 border-ink py-3">
        <ProblemNote error={save.error} />
        {unread.length > 0 && (
          <p className="wrong m-0" role="status">
            A plain figure is wanted: {[...new Set(unread)].join(", ").toLowerCase()}.
          </p>
        )}
        <button type="submit" className="btn-primary" disabled={save.isPending || unread.length > 0}>
          Keep this scenario
        </button>
      </div>
    </form>
  );
}

const isUnread = (value: number | null, isOptional = false) =>
  Number.isNaN(value) || (value === null && !isOptional);

const ranged = (f: Schemas["TruthFigure"]) => `${f.says}, ${f.least} to ${f.most} ${f.unit}`;
