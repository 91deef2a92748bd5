import { Fragment } from "react";
import { TORQUE_UNIT_NAMES, TORQUE_UNITS } from "../../app/units";
import { newLine, type Form, type Typed } from "./sheet";
import { SheetField } from "./SheetField";

/** The fasteners' lines of a sheet. Each torque has its unit beside it: none is assumed. */
export function SheetFasteners({
  form,
  lines,
  onChange,
}: {
  form: Form;
  lines: Typed[];
  onChange: (lines: Typed[]) => void;
}) {
  const set = (i: number, change: Typed) =>
    onChange(lines.map((line, j) => (j === i ? ({ ...line, ...change } as Typed) : line)));
  // The unit stands behind the last of the torques that it is for.
  const lastTorque = form.fastener.filter((f) => f.unitIsChosen).at(-1)?.key;
  return (
    <>
      {lines.map((line, i) => (
        <div
          key={i}
          className="grid grid-cols-6 gap-2 border-t border-rule py-2 max-[1100px]:grid-cols-4 max-[800px]:grid-cols-2"
          role="group"
          aria-label={`Fastener ${i + 1}`}
        >
          {form.fastener
            // Whether it may be reused is asked of what is turned on by an angle.
            .filter((f) => f.key !== "reuseAllowed" || line.thenAngleDeg?.trim())
            .map((field) => (
              <Fragment key={field.key}>
                <SheetField
                  field={field}
                  value={line[field.key] ?? ""}
                  onChange={(value) => set(i, { [field.key]: value })}
                />
                {field.key === lastTorque && (
                  <label className="field">
                    <span>Unit</span>
                    <select value={line.unit} onChange={(e) => set(i, { unit: e.target.value })}>
                      <option value="">choose</option>
                      {TORQUE_UNITS.map((unit) => (
                        <option key={unit} value={unit}>
                          {TORQUE_UNIT_NAMES[unit]}
                        </option>
                      ))}
                    </select>
                  </label>
                )}
              </Fragment>
            ))}
          <button type="button" className="btn" onClick={() => onChange(lines.filter((_, j) => j !== i))}>
            Take out
          </button>
        </div>
      ))}
      <button type="button" className="btn" onClick={() => onChange([...lines, newLine(form)])}>
        Add a fastener
      </button>
    </>
  );
}
