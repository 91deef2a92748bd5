import type { ReactNode } from "react";

/** A row that is ticked or not, as wide as a glove wants it. */
export function Tick({
  checked,
  onChange,
  children,
}: {
  checked: boolean;
  onChange: (checked: boolean) => void;
  children: ReactNode;
}) {
  return (
    <label className="flex min-h-12 items-center gap-3 border-t border-rule text-[17px]">
      <input
        type="checkbox"
        className="h-6 w-6 flex-shrink-0 accent-[var(--railline)]"
        checked={checked}
        onChange={(e) => onChange(e.target.checked)}
      />
      {children}
    </label>
  );
}
