import { called, type Field } from "./sheet";

// Characters: words that may have more, and answers that do, are given two places of the row.
const LONG = 40;
const LONG_ANSWER = 15;

/** A field of a spec sheet, as its kind is asked; what is wrong with it stands under it. */
export function SheetField({
  field,
  value,
  isFixed,
  wrong,
  onChange,
}: {
  field: Field;
  value: string;
  isFixed?: boolean;
  wrong?: string | undefined;
  onChange: (value: string) => void;
}) {
  const name = called(field);
  const isWide =
    field.kind === "words"
      ? (field.most ?? 0) > LONG
      : field.answers.some((a) => a.says.length > LONG_ANSWER);
  if (field.kind === "yes-no")
    return (
      <button
        type="button"
        className="btn h-full w-full"
        aria-pressed={value === "yes"}
        onClick={() => onChange(value === "yes" ? "no" : "yes")}
      >
        {name}
      </button>
    );
  return (
    <div className={isWide ? "col-span-2" : ""}>
      <label className="field">
        <span>{name}</span>
        {field.kind === "choice" ? (
          <select value={value} onChange={(e) => onChange(e.target.value)}>
            {field.mayBeMissing && <option value="">not given</option>}
            {field.answers.map((a) => (
              <option key={a.key} value={a.key}>
                {a.says}
              </option>
            ))}
          </select>
        ) : (
          <input
            value={value}
            inputMode={field.kind === "figure" ? "decimal" : "text"}
            aria-invalid={!!wrong}
            disabled={isFixed}
            onChange={(e) => onChange(e.target.value)}
          />
        )}
      </label>
      {wrong && <p className="wrong m-0 mt-1">{wrong}</p>}
    </div>
  );
}
