import { toNm } from "../../app/units";
import { GROUPS, Line, Sheet, WHOLE, at, typed } from "./sheetFields";

/** What stands in the fields for a sheet. */
export const fill = (sheet: Sheet | undefined) =>
  Object.fromEntries(GROUPS.flatMap(([, fields]) => fields.map(([path]) => [path, typed(at(sheet, path))])));
export const fillLines = (sheet: Sheet | undefined): Line[] =>
  (sheet?.torques ?? []).map((t) => ({
    role: t.role,
    perCorner: String(t.perCorner),
    d: typed(t.threadDiameterMm),
    p: typed(t.threadPitchMm),
    cls: t.class,
    drive: t.drive,
    low: String(t.lowNm),
    high: typed(t.highNm),
    unit: "nm",
    singleUse: t.singleUse,
    socketReaches: t.socketReaches,
    holdingSpanner: t.holdingSpanner,
    then: typed(t.thenAngleDeg),
    reuse: t.reuseAllowed,
    note: t.note ?? "",
    locker: t.locker ?? "not-known",
    partNumber: t.partNumber ?? "",
    boltNotes: (t.boltNotes ?? []).join("; "),
  }));

const num = (text: string) => (text.trim() === "" ? null : Number(text.replace(",", ".")));

/** The sheet as it is typed; unknown fields of the original stay as they are. */
export function build(base: Sheet | undefined, values: Record<string, string>, lines: Line[]): Sheet {
  const sheet = structuredClone(base ?? {}) as unknown as Record<string, Record<string, unknown> | unknown>;
  for (const [, fields] of GROUPS) {
    const group = fields[0]![0].includes(".") ? fields[0]![0].split(".")[0]! : "";
    if (WHOLE.has(group) && fields.every(([path]) => (values[path] ?? "") === "" || values[path] === "no")) {
      sheet[group] = null;
      continue;
    }
    for (const [path, , kind] of fields) {
      const text = values[path] ?? "";
      const value =
        kind === "figure"
          ? num(text)
          : kind === "yes"
            ? text === "yes"
            : text.trim() === "" && kind !== "text"
              ? // Where one answer stands for silence, silence is that answer.
                typeof kind !== "string" && kind[0] !== ""
                ? kind[0]!
                : null
              : text;
      if (group === "") sheet[path] = value;
      else sheet[group] = { ...(sheet[group] as object | null), [path.split(".")[1]!]: value };
    }
  }
  sheet.torques = lines.map((l) => ({
    role: l.role,
    perCorner: num(l.perCorner),
    threadDiameterMm: num(l.d),
    threadPitchMm: num(l.p),
    class: l.cls,
    drive: l.drive,
    lowNm: toNm(num(l.low), l.unit),
    highNm: l.high.trim() === "" ? null : toNm(num(l.high), l.unit),
    singleUse: l.singleUse,
    socketReaches: l.socketReaches,
    holdingSpanner: l.holdingSpanner,
    thenAngleDeg: num(l.then),
    reuseAllowed: l.reuse,
    note: l.note.trim() || null,
    locker: l.locker,
    partNumber: l.partNumber.trim() || null,
    boltNotes: l.boltNotes.trim() === "" ? null : l.boltNotes.split(";").map((n) => n.trim()),
    thread: "",
    wantedNm: 0,
  }));
  return sheet as unknown as Sheet;
}

export const parts = (sheet: Sheet | undefined) =>
  (sheet?.electric?.inCar ?? []).map((s) => `${s.seconds} ${s.says}`).join("\n");
export const part = (line: string) => {
  const [, seconds, says] = /^\s*(\d*)\s*(.*)$/.exec(line)!;
  return { seconds: Number(seconds || 0), says: says!.trim() };
};
