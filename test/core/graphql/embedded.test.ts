import { describe, expect, it } from "vitest";
import { embeddedQueries, embeddedSchemas } from "../../../src/core/languages/typescript/embedded.js";
import { findPosition } from "../../../src/core/problem/findPosition.js";
import { readGraphqlContract } from "../../../src/core/graphql/readGraphqlContract.js";
import { readQueryDocuments } from "../../../src/core/graphql/documents/readQueryDocuments.js";
import { fleetSchema } from "../../support/readGraphql.js";

const imported = 'import { gql, graphql } from "somewhere";\n';
/** The GraphQL in a file, without the blanks before it. */
const found = (text: string, document = "app.ts", tags?: string[]): string[] => {
  const { texts } = embeddedQueries({ document, text }, tags);
  for (const each of texts) expect(each.text.length).toBeLessThanOrEqual(text.length);
  return texts.map((each) => each.text.trim().replace(/\s+/g, " "));
};
const codes = (text: string, document = "app.ts", tags?: string[]): string[] =>
  embeddedQueries({ document, text }, tags).problems.map(({ code, places }) => {
    const [place] = places;
    const { line, column } = place ? findPosition(place, text) : { line: 0, column: 0 };
    return `${code} ${String(line)}:${String(column)}`;
  });

describe("queries inside source code", () => {
  it.each<[name: string, document: string, text: string]>([
    ["a tagged template", "a.ts", "const q = gql`query A { a }`;"],
    ["with a type argument", "a.ts", "const q = gql<Answer>`query A { a }`;"],
    ["a member as tag", "a.mjs", "export default client.gql`query A { a }`"],
    ["passed to a function", "a.tsx", "const q = graphql(`query A { a }`); const b = <div>{`x`}</div>;"],
    ["passed as a string", "a.js", "const q = gql('query A { a }')"],
    ["marked by a comment", "a.jsx", "const q = /* GraphQL */ `query A { a }`; <p/>"],
    ["marked by its first line", "a.cjs", "const q = `#graphql\n query A { a }`"],
    ["in CommonJS", "a.cjs", "const { gql } = require('x'); module.exports = gql`query A { a }`;"],
    [
      "in TypeScript with all its syntax",
      "a.mts",
      "@frozen class X<const T> { accessor q = gql`query A { a }` satisfies Y; declare z: T }",
    ],
    ["in code that does not end well", "a.ts", "const q = gql`query A { a }`; const const = 1;"],
    ["with flow types", "a.js", "// @flow\nfunction f(x: ?number) { return gql`query A { a }` }"],
  ])("%s", (_, document, text) => {
    expect(found(imported + text, document).map((each) => each.replace("#graphql ", ""))).toEqual(["query A { a }"]);
  });

  it("in the script blocks of Vue and Svelte files, but not in their markup", () => {
    const vue = `<template>\n  <p title="a > b">gql\`query No { a }\`</p>\n</template>\n<script setup lang="ts">\nconst q: X = gql\`query A { a }\`;\n</script>\n<script>\nexport default { q: gql\`query B { a }\` };\n</script>\n<style>p { color: red }</style>\n`;
    expect(found(vue, "Board.vue")).toEqual(["query A { a }", "query B { a }"]);
    expect(codes(vue.replace("query A { a }", "query A { ${x} }"), "Board.vue")[0]).toBe("query.interpolated 5:28");
    expect(
      found("<script lang='ts'>\n  let q = gql`query A { a }` as Q;\n</script>\n{#if q}<p/>{/if}", "Board.svelte"),
    ).toEqual(["query A { a }"]);
  });

  it("only with the configured tags", () => {
    const text = "const a = harbour`query A { a }`; const b = gql`query B { b }`; const c = gqlx`query C { c }`;";
    expect(found(text, "a.ts", ["harbour"])).toEqual(["query A { a }"]);
    expect(found(text, "a.ts", [])).toEqual([]);
    expect(found(text)).toEqual(["query B { b }"]);
  });

  it("a schema that belongs to the app is not a query", () => {
    const text = 'const own = gql`"""Words""" extend type Query { mine: Int }`; const q = gql`query A { a }`;';
    expect(found(imported + text)).toEqual(["query A { a }"]);
  });

  it("with interpolated fragments after, before and between definitions", () => {
    expect(
      found(
        `${imported}const q = gql\`\${A}\nquery A { a { ...F } }\n\${F}\n# then\n\${G} fragment G on X { x }\${H}\``,
      ),
    ).toEqual(["query A { a { ...F } } # then fragment G on X { x }"]);
  });

  it.each([
    ["inside a selection", "query A { a { ${fields} } }"],
    ["as a fragment's spread", "query A { a { ...${name} } }"],
    ["as a name", "query ${name} { a }"],
    ["as an argument", "query A { a(id: ${id}) }"],
    ["inside a string", 'query A { a(id: "x${id}") }'],
    ["inside a variable's type", "query A($x: ${T}) { a }"],
  ])("an interpolation %s is refused with its location", (_, query) => {
    const column = `gql\`${query}`.indexOf("${") + 1;
    expect(codes(`${imported}gql\`${query}\``)).toEqual([`query.interpolated 2:${String(column)}`]);
  });

  it("warns once per file about a tag that is never imported, but not about one that is declared in any way", () => {
    const use = "const q = gql`query A { a }`; const r = gql`query B { a }`;";
    expect(codes(use)).toEqual(["query.tag 1:11"]);
    for (const declared of [
      'import gql from "x"',
      'import * as gql from "x"',
      "const { a: gql } = require('x')",
      "function gql() {}",
      'import gql = require("x")',
    ])
      expect(codes(`${declared};\n${use}`)).toEqual([]);
    expect(codes("function make(gql) { return gql`query A { a }` }")).toEqual([]);
    expect(codes("const q = /* GraphQL */ `query A { a }`")).toEqual([]);
  });

  it("reports where a file cannot be read, and does not parse a file without a mark", () => {
    expect(codes(`${imported}const q = gql\`query A { a }\`;\nconst = `)).toEqual(["query.host 3:7"]);
    expect(codes("const = ; const graphqlish = 1; // gql is a word")).toEqual([]);
  });

  it("keeps locations exact after escapes, and decodes the escapes", () => {
    const text = `${imported}const q = gql\`query A { # \\\`tick\\\` \\u{1F600}\n  boats(text: "a\\\\nb\\\\u0041") { id } \\u006eope }\`;`;
    const { texts } = embeddedQueries({ document: "a.ts", text });
    expect(texts[0]?.text).toContain('"a\\nb\\u0041"');
    expect(texts[0]?.text).toContain("`tick` 😀");
    expect(texts[0]?.text.indexOf("{ id }")).toBe(text.indexOf("{ id }"));
    const { schema } = readGraphqlContract("fleet", [{ document: "s.graphql", text: fleetSchema }]);
    if (!schema) throw new Error("no schema");
    const positions = readQueryDocuments(schema, texts).problems.map(({ message, places }) => [
      message,
      places[0] && findPosition(places[0], text).line,
      places[0] && "offset" in places[0] && text.slice(places[0].offset, places[0].offset + 6),
    ]);
    expect(positions).toEqual([
      ["`Query.boats` has no argument `text`.", 3, "text: "],
      ["Cannot query field `nope` on type `Query`.", 3, "\\u006e"],
    ]);
  });

  it("an error in one literal does not affect the others of its file", () => {
    const text = `${imported}const a = gql\`query A { boats { id }\`;\nconst b = gql\`query B { boats { nope } }\`;`;
    const { texts } = embeddedQueries({ document: "a.ts", text });
    const { schema } = readGraphqlContract("fleet", [{ document: "s.graphql", text: fleetSchema }]);
    if (!schema) throw new Error("no schema");
    const told = readQueryDocuments(schema, texts).problems.map(({ code, places }) => [
      code,
      places[0] && findPosition(places[0], text).line,
    ]);
    expect(told).toEqual([
      ["query.syntax", 2],
      ["query.invalid", 3],
    ]);
  });
});

describe("a schema inside a module", () => {
  it("is read from marked strings, otherwise from strings that begin like a schema", () => {
    const texts = (text: string): string[] =>
      embeddedSchemas({ document: "s.ts", text }).texts.map((each) => each.text.trim());
    expect(texts("const a = /* GraphQL */ `type A { a: Int }`; const b = 'type B { b: Int }';")).toEqual([
      "type A { a: Int }",
    ]);
    expect(
      texts(
        'export const a = `"""Words""" type A { a: Int }`; const b = \'input B { b: Int }\'; const c = \'typewriter\';',
      ),
    ).toEqual(['"""Words""" type A { a: Int }', "input B { b: Int }"]);
    expect(texts("const more = gql`query Q { a }`; const a = gql`${base} type A { a: Int }`;")).toEqual([
      "type A { a: Int }",
    ]);
    expect(texts("export const a = 1;")).toEqual([]);
  });
});
