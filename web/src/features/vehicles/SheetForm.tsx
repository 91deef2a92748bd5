import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate } from "react-router";
import { api, ApiError, take, type Schemas } from "../../app/api";
import { useSession } from "../../app/hooks";
import { queries } from "../../app/queries";
import { ProblemNote } from "../../ui/Problem";
import { Shell } from "../../ui/Shell";
import { MeasuredHere } from "./MeasuredHere";
import { build, fill, fillLines, sequenceOf, sequenceText, type Form, type Sheet } from "./sheet";
import { SheetFasteners } from "./SheetFasteners";
import { SheetField } from "./SheetField";

type Fitting = Schemas["Fitting"];

/** Every field of a spec sheet, and its torque lines; saved as a whole. */
export function SheetForm({ form, base, isNew }: { form: Form; base: Sheet | undefined; isNew: boolean }) {
  const session = useSession();
  const client = useQueryClient();
  const navigate = useNavigate();
  const isLead = session.data?.me?.isLead ?? false;
  const [values, setValues] = useState(() => fill(form, base));
  const [lines, setLines] = useState(() => fillLines(form, base));
  const [fittings, setFittings] = useState<Fitting[]>(() => base?.fittings ?? []);
  const [sequence, setSequence] = useState(() => sequenceText(base));
  const [whole, setWhole] = useState(base);
  const sheet = build(form, whole, values, lines);
  // A list with nothing in it says no more than none, and stays what it was.
  const said = <T,>(list: T[], was: T[] | null | undefined) => (list.length > 0 || was ? list : null);
  sheet.fittings = said(fittings, whole?.fittings);
  if (sheet.electric) sheet.electric.inCar = said(sequenceOf(sequence), whole?.electric?.inCar);
  const look = useMutation({ mutationFn: () => take(api.POST("/api/spec-sheets/look", { body: sheet })) });
  const save = useMutation({
    mutationFn: () => take(api.POST("/api/spec-sheets", { body: sheet })),
    onSuccess: async (s) => {
      // The form it goes to is filled from the sheets as they are then.
      await client.invalidateQueries({ queryKey: queries.sheets.queryKey });
      void navigate(`/workshop/spec-sheets/${s.code}`);
    },
  });
  const read = useMutation({
    mutationFn: (text: string) => take(api.POST("/api/spec-sheets/csv/read", { body: { text } })),
    onSuccess: (r) => {
      if (!r.sheet) return;
      setWhole(r.sheet);
      setValues(fill(form, r.sheet));
      setLines(fillLines(form, r.sheet));
      setFittings(r.sheet.fittings ?? []);
      setSequence(sequenceText(r.sheet));
    },
  });
  const error = save.error ?? look.error;
  const wrong = (path: string) => (error instanceof ApiError ? error.field(path) : undefined);
  const isThere = (key: string) => fittings.some((f) => f === key);
  const noUnit = lines.some((l) => l.unit === "");
  return (
    <Shell
      title={isNew ? "New spec sheet" : `Spec sheet ${base?.code ?? ""}`}
      sub={isNew && base ? "a copy: give it its own code" : base?.title}
    >
      <div className="grid h-full grid-cols-[minmax(0,1fr)_380px] max-[900px]:block max-[900px]:overflow-auto">
        <section className="flex min-h-0 flex-col gap-4 overflow-auto p-6" aria-label="Figures">
          {form.groups.map(({ says, fields }) => (
            <fieldset key={says} className="m-0 border-0 border-t-2 border-ink p-0 pt-2" disabled={!isLead}>
              <legend className="sr-only">{says}</legend>
              <h2 className="mb-2 text-[22px]">{says}</h2>
              <div className="grid grid-cols-4 gap-2 max-[1100px]:grid-cols-3 max-[800px]:grid-cols-2">
                {fields.map((field) => (
                  <SheetField
                    key={field.key}
                    field={field}
                    value={values[field.key] ?? ""}
                    isFixed={field.key === "code" && !isNew}
                    wrong={wrong(field.key)}
                    onChange={(value) => setValues({ ...values, [field.key]: value })}
                  />
                ))}
              </div>
            </fieldset>
          ))}
          <fieldset className="m-0 border-0 border-t-2 border-ink p-0 pt-2" disabled={!isLead}>
            <legend className="sr-only">Small parts and sequence</legend>
            <h2 className="mb-2 text-[22px]">Small parts the vehicle has</h2>
            <div className="flex flex-wrap gap-2">
              {form.smallParts.map(({ key, says }) => (
                <button
                  key={key}
                  type="button"
                  className="btn"
                  aria-pressed={isThere(key)}
                  onClick={() =>
                    setFittings(
                      isThere(key) ? fittings.filter((f) => f !== key) : [...fittings, key as Fitting],
                    )
                  }
                >
                  {says}
                </button>
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
            <SheetFasteners form={form} lines={lines} onChange={setLines} />
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
