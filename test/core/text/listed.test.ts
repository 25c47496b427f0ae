import { expect, it } from "vitest";
import { listed } from "../../../src/core/text/listed.js";

it.each([
  [[], undefined, ""],
  [["a"], undefined, "a"],
  [["a", "b"], undefined, "a and b"],
  [["a", "b", "c"], undefined, "a, b and c"],
  [["a", "b", "c"], 3, "a, b and c"],
  [["a", "b", "c", "d"], 3, "a, b and 2 more"],
])("%j, at most %s: %s", (items, most, said) => {
  expect(listed(items, most)).toBe(said);
});
