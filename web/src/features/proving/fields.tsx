/** A figure of a proof: what is usual or was noted before stands in it until something is typed. */
export function Field({
  label,
  value,
  hint,
  wrong,
  onChange,
}: {
  label: string;
  value: string;
  hint?: string | number | null | undefined;
  wrong?: string | undefined;
  onChange: (text: string) => void;
}) {
  return (
    <div className="min-w-0">
      <label className="field">
        <span>{label}</span>
        <input
          inputMode="decimal"
          value={value}
          placeholder={hint === null || hint === undefined ? undefined : String(hint)}
          aria-invalid={!!wrong}
          onChange={(e) => onChange(e.target.value)}
        />
      </label>
      {wrong && <p className="wrong m-0 mt-1">{wrong}</p>}
    </div>
  );
}

/** Yes or no about the car. */
export function Toggle({
  on,
  onChange,
  children,
}: {
  on: boolean;
  onChange: (on: boolean) => void;
  children: React.ReactNode;
}) {
  return (
    <button
      type="button"
      className="btn justify-center text-center"
      aria-pressed={on}
      onClick={() => onChange(!on)}
    >
      {children}
    </button>
  );
}
