import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate } from "react-router";
import { api, ApiError, take, type Schemas } from "../../app/api";
import { useSession } from "../../app/hooks";
import { queries } from "../../app/queries";
import { TORQUE_UNITS, type TorqueUnit } from "../../app/units";
import { ProblemNote } from "../../ui/Problem";
import { Shell } from "../../ui/Shell";
import { MeasuredHere } from "./MeasuredHere";
import { build, fill, fillLines, part, parts } from "./sheetBuild";
import { CLASSES, FITTINGS, GROUPS, KNOWN, Line, ROLES, Sheet } from "./sheetFields";

/** Every field of a spec sheet, and its torque lines; saved as a whole. */
export function SheetForm({ base, isNew }: { base: Sheet | undefined; isNew: boolean }) {
  const session = useSession();
  const client = useQueryClient();
  const navigate = useNavigate();
  const isLead = session.data?.me?.isLead ?? false;
  const [values, setValues] = useState(() => fill(base));
  const [lines, setLines] = useState(() => fillLines(base));
  const [fittings, setFittings] = useState<Schemas["Fitting"][]>(() => base?.fittings ?? []);
  const [sequence, setSequence] = useState(() => parts(base));
  const [whole, setWhole] = useState(base);
  const sheet = build(whole, values, lines);
  sheet.fittings = fittings;
  if (sheet.electric)
    sheet.electric.inCar = sequence
      .split("\n")
      .filter((l) => l.trim() !== "")
      .map(part);
  const look = useMutation({ mutationFn: () => take(api.POST("/api/spec-sheets/look", { body: sheet })) });
  const save = useMutation({
    mutationFn: () => take(api.POST("/api/spec-sheets", { body: sheet })),
    onSuccess: (s) => {
      void client.invalidateQueries({ queryKey: queries.sheets.queryKey });
      void navigate(`/workshop/spec-sheets/${s.code}`);
    },
  });
  const read = useMutation({
    mutationFn: (text: string) => take(api.POST("/api/spec-sheets/csv/read", { body: { text } })),
    onSuccess: (r) => {
      if (!r.sheet) return;
      setWhole(r.sheet);
      setValues(fill(r.sheet));
      setLines(fillLines(r.sheet));
      setFittings(r.sheet.fittings ?? []);
      setSequence(parts(r.sheet));
    },
  });
  const error = save.error ?? look.error;
  const wrong = (path: string) => (error instanceof ApiError ? error.field(path) : undefined);
  const noUnit = lines.some((l) => l.unit === "");
  const set = (i: number, change: Partial<Line>) =>
    setLines(lines.map((l, j) => (j === i ? { ...l, ...change } : l)));
  return (
    <Shell
      title={isNew ? "New spec sheet" : `Spec sheet ${base?.code ?? ""}`}
      sub={isNew && base ? "a copy: give it its own code" : base?.title}
    >
      <div className="grid h-full grid-cols-[minmax(0,1fr)_380px] max-[900px]:block max-[900px]:overflow-auto">
        <section className="flex min-h-0 flex-col gap-4 overflow-auto p-6" aria-label="Figures">
          {GROUPS.map(([title, fields]) => (
            <fieldset key={title} className="m-0 border-0 border-t-2 border-ink p-0 pt-2" disabled={!isLead}>
              <legend className="sr-only">{title}</legend>
              <h2 className="mb-2 text-[22px]">{title}</h2>
              <div className="grid grid-cols-4 gap-2 max-[1100px]:grid-cols-3 max-[800px]:grid-cols-2">
                {fields.map(([path, name, kind]) => (
                  <div key={path} className={kind === "text" && path !== "code" ? "col-span-2" : ""}>
                    {kind === "yes" ? (
                      <button
                        type="button"
                        className="btn h-full w-full"
                        aria-pressed={values[path] === "yes"}
                        onClick={() =>
                          setValues({ ...values, [path]: values[path] === "yes" ? "no" : "yes" })
                        }
                      >
                        {name}
                      </button>
                    ) : (
                      <label className="field">
                        <span>{name}</span>
                        {typeof kind === "string" ? (
                          <input
                            value={values[path]}
                            inputMode={kind === "figure" ? "decimal" : "text"}
                            aria-invalid={!!wrong(path)}
                            disabled={path === "code" && !isNew}
                            onChange={(e) => setValues({ ...values, [path]: e.target.value })}
                          />
                        ) : (
                          <select
                            value={values[path]}
                            onChange={(e) => setValues({ ...values, [path]: e.target.value })}
                          >
                            {kind.map((k) => (
                              <option key={k} value={k}>
                                {k === "" ? "not given" : k.replaceAll("-", " ")}
                              </option>
                            ))}
                          </select>
                        )}
                      </label>
                    )}
                    {wrong(path) && <p className="wrong m-0 mt-1">{wrong(path)}</p>}
                  </div>
                ))}
              </div>
            </fieldset>
          ))}
          <fieldset className="m-0 border-0 border-t-2 border-ink p-0 pt-2" disabled={!isLead}>
            <legend className="sr-only">Small parts and sequence</legend>
            <h2 className="mb-2 text-[22px]">Small parts the vehicle has</h2>
            <div className="flex flex-wrap gap-2">
              {FITTINGS.map((f) => (
                <Toggle
                  key={f}
                  label={f.replaceAll("-", " ")}
                  on={fittings.includes(f)}
                  flip={() =>
                    setFittings(fittings.includes(f) ? fittings.filter((x) => x !== f) : [...fittings, f])
                  }
                />
              ))}
            </div>
            {sheet.electric && (
              <label className="field mt-2">
                <span>
                  Into service by the car itself: a part a line, its seconds first, such as 5 Hold the switch
                  down
                </span>
                <textarea
                  className="w-full"
                  rows={4}
                  value={sequence}
                  onChange={(e) => setSequence(e.target.value)}
                />
              </label>
            )}
          </fieldset>
          <fieldset className="m-0 border-0 border-t-2 border-ink p-0 pt-2" disabled={!isLead}>
            <legend className="sr-only">Fasteners</legend>
            <h2 className="mb-2 text-[22px]">Fasteners</h2>
            {lines.map((l, i) => (
              <div
                key={i}
                className="grid grid-cols-6 gap-2 border-t border-rule py-2 max-[1100px]:grid-cols-4"
                role="group"
                aria-label={`Fastener ${i + 1}`}
              >
                <Pick label="Fastener" value={l.role} options={ROLES} onChange={(role) => set(i, { role })} />
                <Small label="A corner" value={l.perCorner} onChange={(perCorner) => set(i, { perCorner })} />
                <Small label="Torque, or from" value={l.low} onChange={(low) => set(i, { low })} />
                <Small label="To" value={l.high} onChange={(high) => set(i, { high })} />
                <Pick
                  label="Unit"
                  value={l.unit}
                  options={["", ...TORQUE_UNITS]}
                  onChange={(unit) => set(i, { unit: unit as TorqueUnit })}
                />
                <Small label="Drive" value={l.drive} onChange={(drive) => set(i, { drive })} />
                <Small label="Thread, mm" value={l.d} onChange={(d) => set(i, { d })} />
                <Small label="Pitch, mm" value={l.p} onChange={(p) => set(i, { p })} />
                <Pick label="Class" value={l.cls} options={CLASSES} onChange={(cls) => set(i, { cls })} />
                <Toggle
                  label="New each time"
                  on={l.singleUse}
                  flip={() => set(i, { singleUse: !l.singleUse })}
                />
                <Toggle
                  label="Crowfoot only"
                  on={!l.socketReaches}
                  flip={() => set(i, { socketReaches: !l.socketReaches })}
                />
                <Toggle
                  label="Pin is held"
                  on={l.holdingSpanner}
                  flip={() => set(i, { holdingSpanner: !l.holdingSpanner })}
                />
                <Pick
                  label="Thread locker"
                  value={l.locker}
                  options={KNOWN}
                  onChange={(locker) => set(i, { locker })}
                />
                <Small
                  label="Part number"
                  value={l.partNumber}
                  onChange={(partNumber) => set(i, { partNumber })}
                />
                <Small label="Note" value={l.note} onChange={(note) => set(i, { note })} />
                <Small
                  label="Each bolt, by ;"
                  value={l.boltNotes}
                  onChange={(boltNotes) => set(i, { boltNotes })}
                />
                <Small label="Then, degrees" value={l.then} onChange={(then) => set(i, { then })} />
                {l.then.trim() !== "" && (
                  <Toggle label="May be reused" on={l.reuse} flip={() => set(i, { reuse: !l.reuse })} />
                )}
                <button
                  type="button"
                  className="btn"
                  onClick={() => setLines(lines.filter((_, j) => j !== i))}
                >
                  Take out
                </button>
              </div>
            ))}
            <button
              type="button"
              className="btn"
              onClick={() =>
                setLines([
                  ...lines,
                  {
                    role: "slide-pin",
                    perCorner: "2",
                    d: "",
                    p: "",
                    cls: "not-known",
                    drive: "",
                    low: "",
                    high: "",
                    unit: "",
                    singleUse: false,
                    socketReaches: true,
                    holdingSpanner: false,
                    then: "",
                    reuse: false,
                    note: "",
                    locker: "not-known",
                    partNumber: "",
                    boltNotes: "",
                  },
                ])
              }
            >
              Add a fastener
            </button>
          </fieldset>
        </section>
        <section
          className="flex min-h-0 flex-col gap-3 overflow-auto border-l-2 border-ink bg-plate p-5"
          aria-label="Questions"
        >
          {base && !isNew && (
            <MeasuredHere
              code={base.code}
              values={values}
              put={isLead ? (field, value) => setValues({ ...values, [field]: value }) : undefined}
            />
          )}
          <h2 className="text-[24px]">Before it is kept</h2>
          <div className="flex flex-wrap gap-2">
            {!isNew && base && (
              <>
                <Link className="btn" to={`/workshop/spec-sheets/new?copy=${encodeURIComponent(base.code)}`}>
                  Copy
                </Link>
                <a className="btn" href={`/api/spec-sheets/${encodeURIComponent(base.code)}/json`} download>
                  JSON
                </a>
                <a className="btn" href={`/api/spec-sheets/${encodeURIComponent(base.code)}/csv`} download>
                  CSV
                </a>
              </>
            )}
            <label className="btn cursor-pointer focus-within:outline-3 focus-within:outline-measure">
              Read a CSV
              <input
                type="file"
                accept=".csv,text/csv"
                className="sr-only"
                onChange={(e) => {
                  void e.target.files?.[0]?.text().then((t) => read.mutate(t));
                  e.target.value = "";
                }}
              />
            </label>
          </div>
          <ProblemNote error={read.error} />
          {read.data && (
            <div className="text-[15px]" role="status">
              <p className="m-0 font-bold">
                {read.data.lines.filter((l) => l.taken).length} lines understood,{" "}
                {read.data.lines.filter((l) => !l.taken).length} not.
                {read.data.sheet ? " Read into the form." : " Not whole yet: the form stays as it was."}
              </p>
              {read.data.lines
                .filter((l) => !l.taken)
                .map((l) => (
                  <p key={l.line} className="m-0">
                    Line {l.line}: {l.says}
                  </p>
                ))}
              {read.data.errors.map((e) => (
                <p key={e.field + e.message} className="wrong m-0">
                  {e.message}
                </p>
              ))}
            </div>
          )}
          {look.data && (
            <div className="flex flex-col gap-1">
              {look.data.length === 0 && (
                <p className="m-0 text-[17px]">Nothing odd, and nothing left open.</p>
              )}
              {look.data.map((q) => (
                <p
                  key={q.field + q.says}
                  className={`m-0 border-l-4 pl-2 text-[15px] ${q.isDefault ? "border-rule" : "border-undecided font-bold"}`}
                >
                  <span className="text-ink-2">{q.field}</span> {q.says}
                </p>
              ))}
            </div>
          )}
          <ProblemNote error={error} />
          {noUnit && <p className="m-0 text-[15px]">Choose each torque's unit: it is never assumed.</p>}
          {isLead ? (
            <div className="mt-auto flex flex-col gap-2">
              <button
                type="button"
                className="btn"
                disabled={noUnit || look.isPending}
                onClick={() => look.mutate()}
              >
                Look for slips
              </button>
              <button
                type="button"
                className="btn-primary"
                disabled={noUnit || save.isPending}
                onClick={() => save.mutate()}
              >
                Keep the sheet
              </button>
            </div>
          ) : (
            <p className="m-0">The lead keeps the spec sheets.</p>
          )}
        </section>
      </div>
    </Shell>
  );
}

function Small({ label, value, onChange }: { label: string; value: string; onChange: (v: string) => void }) {
  return (
    <label className="field">
      <span>{label}</span>
      <input value={value} onChange={(e) => onChange(e.target.value)} />
    </label>
  );
}

function Toggle({ label, on, flip }: { label: string; on: boolean; flip: () => void }) {
  return (
    <button type="button" className="btn" aria-pressed={on} onClick={flip}>
      {label}
    </button>
  );
}

function Pick({
  label,
  value,
  options,
  onChange,
}: {
  label: string;
  value: string;
  options: readonly string[];
  onChange: (v: string) => void;
}) {
  return (
    <label className="field">
      <span>{label}</span>
      <select value={value} onChange={(e) => onChange(e.target.value)}>
        {options.map((o) => (
          <option key={o} value={o}>
            {o === "" ? "choose" : o.replaceAll("-", " ")}
          </option>
        ))}
      </select>
    </label>
  );
}
