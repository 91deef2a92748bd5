import { expect, test } from "vitest";
import { fromMm, lengthIn, toMm, typedNumber } from "./units";

test("a comma and a point are the same figure, and what is no figure is told from what was not typed", () => {
  expect(typedNumber("48,5")).toBe(48.5);
  expect(typedNumber(" ")).toBeNull();
  expect(typedNumber("4x")).toBeNaN();
});

// An inch is 25.4 mm exactly: the international yard and pound agreement of 1959.
test("a length that is typed in inches is millimetres for the core, and comes back as it was typed", () => {
  expect(toMm("0.5", "inch")).toBeCloseTo(12.7, 9);
  expect(fromMm(12.7, "inch")).toBe("0.5");
  expect(fromMm(9.2, "mm", 2)).toBe("9.20");
});

test("an axis is marked in whoever's unit it is read, and a tenth of a millimetre is not lost to inches", () => {
  expect(lengthIn("mm").with(3.21)).toBe("3.2 mm");
  expect(lengthIn("inch").with(3.21)).toBe("0.126 in");
  expect(
    lengthIn("mm")
      .marks(11, 6)
      .map((m) => m.text),
  ).toEqual(["0", "2", "4", "6", "8", "10"]);
  const inches = lengthIn("inch").marks(11, 6);
  expect(inches.map((m) => m.text)).toEqual(["0", "0.1", "0.2", "0.3", "0.4"]);
  expect(inches[1]!.mm).toBeCloseTo(2.54, 9);
});
