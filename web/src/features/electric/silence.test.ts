import { expect, test } from "vitest";
import { isSilent } from "./silence";

test("a silent line is lost after a second while a motor may run, and after five at rest", () => {
  expect(isSilent(0, 1000, true)).toBe(false);
  expect(isSilent(0, 1001, true)).toBe(true);
  expect(isSilent(0, 5000, false)).toBe(false);
  expect(isSilent(0, 5001, false)).toBe(true);
});
