import { readFileSync } from "node:fs";
import { join } from "node:path";
import { dump, load, type DumpOptions } from "js-yaml";
import { describe, expect, it } from "vitest";
import { isPair, isSeq, parseDocument, visit, type Scalar } from "yaml";
import { codeFrame } from "../../../src/core/problem/codeFrame.js";
import { visible } from "../../../src/core/text/visible.js";
import { findPosition } from "../../../src/core/problem/findPosition.js";
import { below, pointerPlace, pointerToken, pointerTokens } from "../../../src/core/problem/place.js";
import { problem } from "../../../src/core/problem/problem.js";
import { ShownText } from "../../../src/core/problem/shownText.js";
import { ShownTexts } from "../../../src/core/problem/shownTexts.js";
import { plainPaint } from "../../../src/core/report/paint.js";
import { renderProblem } from "../../../src/core/report/renderProblem.js";
import { packageRoot } from "../../support/packageRoot.js";

const yaml = "paths:\n  /a/b:\n    get:\n      tags: [one, two]\n";
const at = (pointer: string, text = yaml, atKey = false) => {
  const { line, column } = findPosition({ ...pointerPlace("d", pointer), atKey }, text);
  return `${String(line)}:${String(column)}`;
};

describe("locations", () => {
  it.each([
    ["/paths/~1a~1b/get/tags/1", "4:19"],
    ["/paths/~1a~1b", "2:3"],
    ["", "1:1"],
    ["/paths/missing/deeper", "1:1"],
    ["/paths/~1a~1b/get/tags/9", "4:7"],
  ])("%s is at %s", (pointer, position) => {
    expect(at(pointer)).toBe(position);
  });

  it.each([300, 20_000])("in JSON that is nested %i levels deep", (levels) => {
    const text = `${'{"a":'.repeat(levels)}1${"}".repeat(levels)}`;
    for (const depth of [0, 1, 2, 150, 299])
      expect(at("/a".repeat(depth), text, true)).toBe(`1:${String(Math.max(1, depth * 5 - 3))}`);
    expect(at("/a/a/b", `{"a":{"a":{"c":"${"x".repeat(5000)}","b":2}}}`)).toBe("1:5023");
    expect(at("/a".repeat(250), text)).toBe(at("/a".repeat(250), text, true));
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

  it.each([
    ["a key with quotes, slashes and escapes", '/a~1b/x"y', '{ "a/b": { "x\\"y": 5 } }', "1:20"],
    ["the last of keys alike", "/k/n", '{ "k": { "n": 1 },\n  "k": { "n": 2 } }', "2:15"],
    ["an item behind strings that look like brackets", "/l/2", '{ "l": ["]}", "\\\\", [7]] }', "1:21"],
    ["the deepest that exists, where an item is none", "/l/7", '{\n "l": [1, 2] }', "2:2"],
    ["a container by its key", "/o", '{ "n": -1.5e3,\n "o": {} }', "2:2"],
    ["nothing, in an empty list", "/l/0", '{ "l": [ ] }', "1:3"],
  ])("in JSON find %s", (_name, pointer, text, position) => {
    JSON.parse(text);
    expect(at(pointer, text)).toBe(position);
  });

  it.each([
    ["comments before a value", "/a/b", "a: # one\n  # two\n  b: 1\n", "3:6"],
    ["a quoted key", "/x y", '"x y": 1\n', "1:8"],
    ["flow in block", "/a/1/b", "a: [1, {b: 2}]\n", "1:12"],
    ["a list in a list", "/a/1/0", "a:\n  - 1\n  - - 2\n", "3:7"],
    ["what is empty", "/b", "a: 1\nb:\nc: 2\n", "2:3"],
    ["an alias, not what it stands for", "/b", "a: &x { c: 1 }\nb: *x\n", "2:4"],
    ["a key that is asked with a question mark", "/k", "? k\n: v\n", "2:3"],
    ["the list alone, where an item is nothing but a dash", "/l/1", "l:\n-\n- x\n", "1:1"],
    ["the beginning, in a text that is no YAML", "/a", "a: [", "1:1"],
    ["the beginning, in a text without anything", "/a", "", "1:1"],
    ["the beginning, in a text of nothing but a comment", "/a", "# none\n", "1:1"],
    ["the only value there is", "/a", "one\n", "1:1"],
  ])("in YAML find %s", (_name, pointer, text, position) => {
    expect(at(pointer, text)).toBe(position);
  });

  it("in YAML of every style match another parser", () => {
    const data = load(readFileSync(join(packageRoot, "demo/contracts/v1/berths.yaml"), "utf8"));
    const styles: DumpOptions[] = [
      {},
      { flowLevel: 3 },
      { indent: 4 },
      { noArrayIndent: true },
      { forceQuotes: true, quotingType: '"' },
      { lineWidth: 30 },
    ];
    let compared = 0;
    for (const style of styles) {
      const text = dump(data, { noRefs: true, ...style });
      visit(parseDocument(text), {
        Scalar: (key, node, path) => {
          if (key === "key" || !node.range) return;
          const tokens = path.flatMap((each, at) => {
            if (isPair(each)) return [String((each.key as Scalar).value)];
            const next = path[at + 1] ?? node;
            return isSeq(each) ? [String(each.items.indexOf(next))] : [];
          });
          const pointer = tokens.map((token) => `/${pointerToken(token)}`).join("");
          const seen = new ShownText(text).positionAt(node.range[0]);
          expect(at(pointer, text), pointer).toBe(`${String(seen.line)}:${String(seen.column)}`);
          compared++;
        },
      });
    }
    expect(compared).toBeGreaterThan(1_500);
  });

  it("escape and unescape their tokens", () => {
    expect(below(pointerPlace("d", ""), "a/b~c", 3).pointer).toBe("/a~1b~0c/3");
    expect(pointerTokens("/a~1b~0c/3")).toEqual(["a/b~c", "3"]);
  });
});

describe("a code frame", () => {
  it("shows the line, the line before, and carets", () => {
    expect(codeFrame(new ShownText("one\ntwo three"), { line: 2, column: 5, length: 5 })).toEqual([
      "1 | one",
      "2 | two three",
      "  |     ^^^^^",
    ]);
  });

  it("shortens a long line around the column", () => {
    const [, row = "", carets = ""] = codeFrame(new ShownText(`first\n${"x".repeat(5000)}here${"y".repeat(5000)}`), {
      line: 2,
      column: 5001,
      length: 4,
    });
    expect(row.length).toBeLessThan(110);
    expect(row.slice(carets.indexOf("^"), carets.lastIndexOf("^") + 1)).toBe("here");
  });

  it("keeps control characters out of the terminal", () => {
    expect(visible("a\u001b[31mred\u202eb\tc")).toBe("a·[31mred·b  c");
  });
});

describe("a problem report", () => {
  const texts = new ShownTexts((document) => (document === "q.graphql" ? "query A {\n  boat\n}" : undefined));

  it("says what and where in its first line, then shows the line, then a fix", () => {
    const found = problem("query.invalid", "Cannot query field `boat`.", {
      place: { document: "q.graphql", offset: 12, length: 4 },
      why: "The server would refuse it.",
      hint: "Did you mean `boats`?",
    });
    expect(renderProblem(found, texts, plainPaint)).toEqual([
      "error query.invalid  q.graphql:2:3",
      "  Cannot query field `boat`.",
      "    1 | query A {",
      "    2 |   boat",
      "      |   ^^^^",
      "  The server would refuse it.",
      "  -> Did you mean `boats`?",
    ]);
  });

  it("names the file if there is no text, and counts other locations", () => {
    const place = { document: "gone.graphql", offset: 1, length: 1 };
    expect(
      renderProblem(problem("query.duplicate", "Twice.", { places: [place, place, place, place] }), texts, plainPaint),
    ).toEqual(["error query.duplicate  gone.graphql", "  Twice.", "  and 2 more places"]);
  });
});
