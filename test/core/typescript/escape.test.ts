import { runInNewContext } from "node:vm";
import ts from "typescript";
import { describe, expect, it } from "vitest";
import {
  docComment,
  propertyAccess,
  propertyName,
  quoted,
  templateText,
} from "../../../src/core/languages/typescript/names/escape.js";

const hostile = [
  "*/ alert()",
  "/* x",
  "`${alert()}`",
  '"; alert(); "',
  "'",
  "\\",
  "\\\\`",
  "\n",
  "\r\n",
  "\u2028\u2029",
  "\u0000\u001b",
  "\u202e\u2066",
  "$",
  "${",
  "$\\{",
  "</script>",
  "@internal",
  "// eslint-disable",
  "\ud83d\ude00",
  "\ud800",
];

/** The value of a piece of source. */
function valueOf(source: string): unknown {
  const { outputText, diagnostics } = ts.transpileModule(`found = ${source};`, {
    reportDiagnostics: true,
    compilerOptions: { target: ts.ScriptTarget.ES2022 },
  });
  expect(diagnostics).toEqual([]);
  // The text is our own escaper's output. Running it proves that it is only a value.
  const scope: { found?: unknown } = {};
  runInNewContext(outputText, scope);
  return scope.found;
}

describe("text from the contract cannot change generated code", () => {
  it.each(hostile)("as a string: %j", (text) => {
    expect(valueOf(quoted(text))).toBe(text);
  });

  it.each(hostile)("as a template: %j", (text) => {
    expect(valueOf(`\`${templateText(text)}\``)).toBe(text.replace(/\r\n?/g, "\n"));
  });

  it.each(hostile)("as a comment: %j", (text) => {
    const comment = docComment({ paragraphs: [text, `${text}\nand more`], deprecated: text }, "  ");
    expect(comment.indexOf("*/")).toBe(comment.trimEnd().length - 2);
    expect(valueOf(`1\n${comment}`)).toBe(1);
    expect(comment.match(/(^|\s)@\w+/g)?.map((tag) => tag.trim())).toEqual(["@deprecated"]);
  });

  it.each([...hostile, "plain", "größe", "class", "__proto__", "1a", ""])("as a property: %j", (name) => {
    expect(valueOf(`(({ [${quoted(name)}]: 7 }))${propertyAccess("", name).replace(/^\./, ".")}`)).toBe(7);
    expect(
      ts.transpileModule(`interface X { ${propertyName(name)}: string }`, { reportDiagnostics: true }).diagnostics,
    ).toEqual([]);
  });

  it("empty text gives no comment", () => {
    expect(docComment({ paragraphs: ["", "  "] })).toBe("");
  });
});
