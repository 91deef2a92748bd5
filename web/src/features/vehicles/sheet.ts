import { type Schemas } from "../../app/api";
import { toNm, typedNumber, type TorqueUnit } from "../../app/units";

export type Sheet = Schemas["SpecSheet"];
export type Form = Schemas["SheetForm"];
export type Field = Schemas["SheetFormField"];
/** What stands in the fields, by the field's key. A fastener's line has its torque's unit beside them. */
export type Typed = Record<string, string>;

/** What a field is called, with its unit where that is not chosen beside it. */
export const called = (field: Field) =>
  field.kind === "list"
    ? `${field.says}, by ;`
    : field.unit && !field.unitIsChosen
      ? `${field.says}, ${field.unit}`
      : field.says;

const at = (sheet: unknown, path: string) =>
  path.split(".").reduce<unknown>((o, k) => (o as Record<string, unknown> | null | undefined)?.[k], sheet);

function asTyped(value: unknown): string {
  if (value === null || value === undefined) return "";
  if (typeof value === "boolean") return value ? "yes" : "no";
  return Array.isArray(value) ? value.join("; ") : String(value as string | number);
}

/** Whether a field says nothing: what is not asked for is not there. */
const isSilent = (field: Field, text: string) =>
  text.trim() === "" ||
  (field.kind === "yes-no" && text === "no") ||
  (field.kind === "choice" && !field.mayBeMissing && text === field.answers[0]?.key);

function asValue(field: Field, text: string, unit: TorqueUnit | ""): unknown {
  const isEmpty = text.trim() === "";
  switch (field.kind) {
    case "figure":
      return field.unitIsChosen ? (isEmpty ? null : toNm(typedNumber(text), unit)) : typedNumber(text);
    case "yes-no":
      return text === "yes";
    case "list":
      return isEmpty ? null : text.split(";").map((part) => part.trim());
    case "choice":
      // Where one answer stands for silence, silence is that answer.
      return isEmpty ? (field.mayBeMissing ? null : field.answers[0]?.key) : text;
    case "words":
      return isEmpty && field.mayBeMissing ? null : text;
  }
}

/** What stands in the fields for a sheet. */
export const fill = (form: Form, sheet: Sheet | undefined): Typed =>
  Object.fromEntries(form.groups.flatMap((g) => g.fields.map((f) => [f.key, asTyped(at(sheet, f.key))])));

export const fillLines = (form: Form, sheet: Sheet | undefined): Typed[] =>
  (sheet?.torques ?? []).map((line) => ({
    ...Object.fromEntries(form.fastener.map((f) => [f.key, asTyped(at(line, f.key))])),
    unit: "nm",
  }));

/** A fastener that nobody has described yet. */
export const newLine = (form: Form): Typed => ({
  ...Object.fromEntries(form.fastener.map((f) => [f.key, f.mayBeMissing ? "" : (f.answers[0]?.key ?? "")])),
  perCorner: "2",
  socketReaches: "yes",
  unit: "",
});

/** The sheet as it is typed; what the form does not ask stays as it is in the sheet it began with. */
export function build(form: Form, base: Sheet | undefined, values: Typed, lines: Typed[]): Sheet {
  const sheet = structuredClone(base ?? {}) as unknown as Record<string, unknown>;
  for (const { fields, mayBeMissing } of form.groups) {
    const part = fields[0]?.key.includes(".") ? fields[0].key.split(".")[0] : undefined;
    if (part && mayBeMissing && fields.every((f) => isSilent(f, values[f.key] ?? ""))) {
      sheet[part] = null;
      continue;
    }
    const said = fields.map((f) => [f.key.split(".").at(-1), asValue(f, values[f.key] ?? "", "")] as const);
    if (part) sheet[part] = { ...(sheet[part] as object | null), ...Object.fromEntries(said) };
    else Object.assign(sheet, Object.fromEntries(said));
  }
  sheet.torques = lines.map((line) => ({
    ...Object.fromEntries(
      form.fastener.map((f) => [f.key, asValue(f, line[f.key] ?? "", line.unit as TorqueUnit | "")]),
    ),
    // Made by the core from the rest.
    thread: "",
    wantedNm: 0,
  }));
  return sheet as unknown as Sheet;
}

/** The car's own sequence, a part a line, its seconds first. */
export const sequenceText = (sheet: Sheet | undefined) =>
  (sheet?.electric?.inCar ?? []).map((s) => `${s.seconds} ${s.says}`).join("\n");
export const sequenceOf = (text: string) =>
  text
    .split("\n")
    .filter((line) => line.trim() !== "")
    .map((line) => {
      const [, seconds, says] = /^\s*(\d*)\s*(.*)$/.exec(line)!;
      return { seconds: Number(seconds || 0), says: says!.trim() };
    });
