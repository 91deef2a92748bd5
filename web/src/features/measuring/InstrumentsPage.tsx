import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, take, type Schemas } from "../../app/api";
import { useSession } from "../../app/hooks";
import { ProblemNote } from "../../ui/Problem";
import { Shell } from "../../ui/Shell";
import { useInstruments } from "./fields";

type Instrument = Schemas["Instrument"];
const USES: [Schemas["InstrumentUse"], string][] = [
  ["outside", "Outside"],
  ["inside", "Inside"],
  ["depth", "Depth"],
  ["deflection", "Dial"],
];
const EMPTY: Instrument = {
  id: "",
  name: "",
  resolutionMm: 0.01,
  permissibleErrorMm: 0.02,
  isDefault: false,
  repeatabilityMm: null,
  calibratedUntil: null,
  uses: ["outside"],
};

/** The workshop's measuring instruments: what each resolves, how far it may be wrong, and until when that is certified. */
export function InstrumentsPage() {
  const list = useInstruments();
  const client = useQueryClient();
  const lead = useSession().data?.me?.isLead ?? false;
  const [form, setForm] = useState<Instrument | null>(null);
  const [typed, setTyped] = useState<Record<string, string>>({});
  const save = useMutation({
    mutationFn: (instruments: Instrument[]) =>
      take(api.PUT("/api/workshop/instruments", { body: instruments })),
    onSuccess: (saved) => {
      client.setQueryData(["instruments"], saved);
      setForm(null);
    },
  });
  const all = list.data?.map((i) => i.instrument) ?? [];
  const open = (i: Instrument) => {
    setForm(i);
    setTyped({});
    save.reset();
  };
  const figureField = (key: "resolutionMm" | "permissibleErrorMm" | "repeatabilityMm", label: string) => (
    <label className="field">
      <span>{label}</span>
      <input
        inputMode="decimal"
        value={typed[key] ?? form?.[key] ?? ""}
        onChange={(e) => {
          setTyped({ ...typed, [key]: e.target.value });
          const n = Number(e.target.value.replace(",", "."));
          if (form && !Number.isNaN(n)) setForm({ ...form, [key]: e.target.value.trim() === "" ? null : n });
        }}
      />
    </label>
  );
  return (
    <Shell title="Measuring instruments" sub="resolution, permissible error, calibration">
      <div className="grid h-full grid-cols-[minmax(0,1fr)_440px] gap-6 overflow-auto p-6 max-[900px]:grid-cols-1">
        <section aria-label="Instruments">
          {list.data?.map(({ instrument: i, inDate }) => (
            <div key={i.id} className="flex items-center justify-between gap-3 border-t border-rule py-2">
              <div>
                <span className="step-name">{i.name}</span>
                <div className="text-[15px] text-ink-2">
                  Reads to {i.resolutionMm} mm, error up to {i.permissibleErrorMm}
                  {i.repeatabilityMm ? `, repeats within ${i.repeatabilityMm}` : ""};{" "}
                  {i.uses?.join(", ") ?? "anything"}.{" "}
                  {i.isDefault ? "From memory, a default." : "From its certificate."}{" "}
                  <b className={inDate ? "" : "text-outside"}>
                    {i.calibratedUntil
                      ? inDate
                        ? `In calibration until ${i.calibratedUntil}.`
                        : `Out of calibration since ${i.calibratedUntil}: its readings are refused.`
                      : "No calibration kept."}
                  </b>
                </div>
              </div>
              {lead && (
                <button type="button" className="btn" onClick={() => open(i)}>
                  Change
                </button>
              )}
            </div>
          ))}
          {lead && (
            <button type="button" className="btn mt-3" onClick={() => open(EMPTY)}>
              Add an instrument
            </button>
          )}
          {!lead && <p className="text-ink-2">The lead keeps this list.</p>}
        </section>
        {form && (
          <form
            className="flex flex-col gap-2"
            aria-label="Instrument"
            onSubmit={(e) => {
              e.preventDefault();
              save.mutate([...all.filter((i) => i.id !== form.id), form]);
            }}
          >
            <h2 className="text-[26px]">{form.name || "A new instrument"}</h2>
            <div className="grid grid-cols-2 gap-2">
              <label className="field">
                <span>Tool-board name</span>
                <input value={form.id} onChange={(e) => setForm({ ...form, id: e.target.value })} />
              </label>
              <label className="field">
                <span>What it is</span>
                <input value={form.name} onChange={(e) => setForm({ ...form, name: e.target.value })} />
              </label>
              {figureField("resolutionMm", "Resolution, mm")}
              {figureField("permissibleErrorMm", "Error up to, mm")}
              {figureField("repeatabilityMm", "Repeats within, mm")}
              <label className="field">
                <span>In calibration until</span>
                <input
                  type="date"
                  value={form.calibratedUntil ?? ""}
                  onChange={(e) => setForm({ ...form, calibratedUntil: e.target.value || null })}
                />
              </label>
            </div>
            <div className="grid grid-cols-4 gap-1">
              {USES.map(([use, name]) => (
                <button
                  key={use}
                  type="button"
                  className="btn justify-center !px-2"
                  aria-pressed={form.uses?.includes(use) ?? true}
                  onClick={() =>
                    setForm({
                      ...form,
                      uses: (form.uses ?? []).includes(use)
                        ? (form.uses ?? []).filter((u) => u !== use)
                        : [...(form.uses ?? []), use],
                    })
                  }
                >
                  {name}
                </button>
              ))}
            </div>
            <button
              type="button"
              className="btn"
              aria-pressed={!form.isDefault}
              onClick={() => setForm({ ...form, isDefault: !form.isDefault })}
            >
              Figures from its certificate
            </button>
            <ProblemNote error={save.error} />
            <button className="btn-primary" disabled={save.isPending}>
              Keep it
            </button>
            {all.some((i) => i.id === form.id) && (
              <button
                type="button"
                className="btn btn-stop"
                onClick={() => save.mutate(all.filter((i) => i.id !== form.id))}
              >
                Take it off the board
              </button>
            )}
          </form>
        )}
      </div>
    </Shell>
  );
}
