import { describe, expect, it } from "vitest";
import { codeFrame, visible } from "../../../src/core/problem/codeFrame.js";
import { findPosition } from "../../../src/core/problem/findPosition.js";
import { below, pointerPlace, pointerTokens } from "../../../src/core/problem/place.js";
import { problem } from "../../../src/core/problem/problem.js";
import { plainPaint } from "../../../src/core/report/paint.js";
import { renderProblem } from "../../../src/core/report/renderProblem.js";

const yaml = "paths:\n  /a/b:\n    get:\n      tags: [one, two]\n";
const at = (pointer: string, text = yaml, atKey = false) => {
  const { line, column } = findPosition({ ...pointerPlace("d", pointer), atKey }, text);
  return `${String(line)}:${String(column)}`;
};

describe("places", () => {
  it.each([
    ["/paths/~1a~1b/get/tags/1", "4:19"],
    ["/paths/~1a~1b", "2:3"],
    ["", "1:1"],
    ["/paths/missing/deeper", "1:1"],
    ["/paths/~1a~1b/get/tags/9", "4:7"],
  ])("%s is at %s", (pointer, position) => {
    expect(at(pointer)).toBe(position);
  });

  it("of JSON, of keys, and of characters", () => {
    expect(at("/a/b", '{\n  "a": { "b": 1 }\n}')).toBe("2:15");
    expect(at("/a/b", '{\n  "a": { "b": 1 }\n}', true)).toBe("2:10");
    expect(findPosition({ document: "d", offset: 8, length: 3 }, "one\ntwo three")).toEqual({
      line: 2,
      column: 5,
      length: 3,
    });
  });

  it("escape their tokens both ways", () => {
    expect(below(pointerPlace("d", ""), "a/b~c", 3).pointer).toBe("/a~1b~0c/3");
    expect(pointerTokens("/a~1b~0c/3")).toEqual(["a/b~c", "3"]);
  });
});

describe("a code frame", () => {
  it("shows the line, the one before, and carets", () => {
    expect(codeFrame("one\ntwo three", { line: 2, column: 5, length: 5 })).toEqual([
      "1 | one",
      "2 | two three",
      "  |     ^^^^^",
    ]);
  });

  it("cuts a long line to a window around the column", () => {
    const [, row = "", carets = ""] = codeFrame(`first\n${"x".repeat(5000)}here${"y".repeat(5000)}`, {
      line: 2,
      column: 5001,
      length: 4,
    });
    expect(row.length).toBeLessThan(110);
    expect(row.slice(carets.indexOf("^"), carets.lastIndexOf("^") + 1)).toBe("here");
  });

  it("keeps control characters off the terminal", () => {
    expect(visible("a\u001b[31mred\u202eb\tc")).toBe("a·[31mred·b  c");
  });
});

describe("a problem for a person", () => {
  const textOf = (document: string) => (document === "q.graphql" ? "query A {\n  boat\n}" : undefined);

  it("says in its first line what and where, then shows, then helps", () => {
    const found = problem("query.invalid", "Cannot query field `boat`.", {
      place: { document: "q.graphql", offset: 12, length: 4 },
      why: "The server would refuse it.",
      hint: "Did you mean `boats`?",
    });
    expect(renderProblem(found, textOf, plainPaint)).toEqual([
      "error query.invalid  q.graphql:2:3",
      "  Cannot query field `boat`.",
      "    1 | query A {",
      "    2 |   boat",
      "      |   ^^^^",
      "  The server would refuse it.",
      "  -> Did you mean `boats`?",
    ]);
  });

  it("without a text names the file, and counts further places", () => {
    const place = { document: "gone.graphql", offset: 1, length: 1 };
    expect(
      renderProblem(problem("query.duplicate", "Twice.", { places: [place, place, place, place] }), textOf, plainPaint),
    ).toEqual(["error query.duplicate  gone.graphql", "  Twice.", "  and 2 more places"]);
  });
});
