import { expect, test } from "vitest";
import { round } from "./round";

const place = (r: number, deg: number) => [r, deg] as const;

test("a verdict that is here before its readings is drawn without a shape, and does not stop the page", () => {
  expect(round([], place)).toBe("");
});

test("a shape goes once round and comes back to where it began, every five degrees", () => {
  const shape = round(
    [
      { deg: 0, r: 10 },
      { deg: 90, r: 19 },
    ],
    place,
  ).split(" ");
  expect(shape).toHaveLength(72);
  expect(shape.slice(0, 2)).toEqual(["10,0", "10.5,5"]);
  expect(shape[18]).toBe("19,90");
  expect(shape.at(-1)!.split(",").map(Number)[1]).toBeCloseTo(355, 6);
});
