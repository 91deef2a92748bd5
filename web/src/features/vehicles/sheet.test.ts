import { expect, test } from "vitest";
import {
  build,
  called,
  fill,
  fillLines,
  newLine,
  sequenceOf,
  type Field,
  type Form,
  type Sheet,
} from "./sheet";

const field = (key: string, kind: Field["kind"], more: Partial<Field> = {}): Field => ({
  key,
  says: key,
  kind,
  unit: "",
  unitIsChosen: false,
  least: null,
  most: null,
  mayBeMissing: false,
  answers: [],
  ...more,
});
const known = { answers: ["not-known", "yes", "no"].map((key) => ({ key, says: key })) };
const form: Form = {
  groups: [
    { says: "The sheet", mayBeMissing: false, fields: [field("code", "words")] },
    {
      says: "What the pad set carries",
      mayBeMissing: true,
      fields: [
        field("padSet.indicator", "choice", { ...known, mayBeMissing: true }),
        field("padSet.pin", "choice", known),
      ],
    },
    {
      says: "Drum",
      mayBeMissing: true,
      fields: [
        field("drum.maximumMm", "figure", { unit: "mm", mayBeMissing: true }),
        field("drum.leftRightPair", "yes-no"),
      ],
    },
  ],
  fastener: [
    field("lowNm", "figure", { unit: "N m", unitIsChosen: true }),
    field("threadPitchMm", "figure", { unit: "mm", mayBeMissing: true }),
    field("locker", "choice", known),
    field("boltNotes", "list", { mayBeMissing: true }),
  ],
  smallParts: [],
};
const read = (values: Record<string, string>, lines = [] as Record<string, string>[], base?: Sheet) =>
  build(form, base, values, lines) as unknown as Record<string, Record<string, unknown> | null> & {
    torques: Record<string, unknown>[];
  };

test("a part of which nothing is said is not there, and a no that somebody gave is something said", () => {
  const silent = read({ code: "A", "padSet.pin": "not-known", "drum.leftRightPair": "no" });
  expect([silent.padSet, silent.drum]).toEqual([null, null]);
  expect(read({ "padSet.pin": "no" }).padSet).toEqual({ indicator: null, pin: "no" });
  expect(read({ "drum.maximumMm": "191,0" }).drum).toEqual({ maximumMm: 191, leftRightPair: false });
});

// NIST SP 811: 1 lbf ft is 1.355818 N m.
test("a torque is read in the unit chosen beside it; what is not said of a fastener is silence as the format has it", () => {
  const line = { ...newLine(form), lowNm: "23", boltNotes: "upper: first; lower" };
  const torque = (unit: string) => read({}, [{ ...line, unit }]).torques[0]!.lowNm;
  expect(torque("lbf-ft")).toBeCloseTo(23 * 1.355818, 3);
  expect(torque("nm")).toBe(23);
  expect(read({}, [{ ...line, unit: "nm" }]).torques[0]).toMatchObject({
    threadPitchMm: null,
    locker: "not-known",
    boltNotes: ["upper: first", "lower"],
  });
});

test("a sheet that is read into the form and out again is what it was, with what the form does not ask", () => {
  const sheet = {
    code: "A",
    padSet: { indicator: "yes", pin: "yes" },
    drum: null,
    rotor: { newThicknessMm: 11 },
    torques: [
      { lowNm: 31, threadPitchMm: 1.25, locker: "no", boltNotes: ["a", "b"], thread: "", wantedNm: 0 },
    ],
  } as unknown as Sheet;
  expect(build(form, sheet, fill(form, sheet), fillLines(form, sheet))).toEqual(sheet);
});

test("a unit stands in a field's name where it is not chosen, and a sequence is read a part a line", () => {
  const names = form.fastener.map(called);
  expect(names).toEqual(["lowNm", "threadPitchMm, mm", "locker", "boltNotes, by ;"]);
  expect(sequenceOf("5 Hold the switch\n\nKey off")).toEqual([
    { seconds: 5, says: "Hold the switch" },
    { seconds: 0, says: "Key off" },
  ]);
});
