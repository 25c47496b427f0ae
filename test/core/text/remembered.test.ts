import { expect, it } from "vitest";
import { remembered } from "../../../src/core/text/remembered.js";

it("a text is computed once, and again only after very many others", () => {
  const asked: string[] = [];
  const doubled = remembered((text) => {
    asked.push(text);
    return text + text;
  });
  expect([doubled("a"), doubled("b"), doubled("a"), doubled("")]).toEqual(["aa", "bb", "aa", ""]);
  expect(asked).toEqual(["a", "b", ""]);
  for (let at = 0; at < 30_000; at++) doubled(String(at));
  expect(doubled("a")).toBe("aa");
  expect(asked.filter((text) => text === "a")).toHaveLength(2);
});
