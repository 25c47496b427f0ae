import { readFileSync } from "node:fs";
import { join } from "node:path";
import { describe, expect, it } from "vitest";
import { form, header, segment } from "../../runtimes/typescript/wire/parameters.js";
import { deepObject, jsonQuery, label, matrix, piped, spaced } from "../../runtimes/typescript/wire/rarerParameters.js";
import { packageRoot } from "../support/temporaryProject.js";

interface Row {
  readonly writer: string;
  readonly name?: string;
  readonly value: unknown;
  readonly explode?: boolean;
  readonly text: string;
}

const { rows } = JSON.parse(readFileSync(join(packageRoot, "vectors/parameters.json"), "utf8")) as { rows: Row[] };
const writers: Record<string, (row: Row) => string | undefined> = {
  form: ({ name = "", value, explode }) => form(name, value, explode),
  segment: ({ value, explode }) => segment(value, explode),
  header: ({ value, explode }) => header(value, explode),
  spaced: ({ name = "", value }) => spaced(name, value),
  piped: ({ name = "", value }) => piped(name, value),
  deepObject: ({ name = "", value }) => deepObject(name, value),
  jsonQuery: ({ name = "", value }) => jsonQuery(name, value),
  label: ({ value, explode }) => label(value, explode),
  matrix: ({ name = "", value, explode }) => matrix(name, value, explode),
};

describe("the vectors of parameter styles", () => {
  it.each(rows)("$writer $name $value $explode", (row) => {
    expect(writers[row.writer]?.(row)).toBe(row.text);
  });

  it("absent values write nothing", () => {
    expect([form("a", undefined), deepObject("a", undefined), jsonQuery("a", undefined), header(undefined)]).toEqual([
      "",
      "",
      "",
      undefined,
    ]);
    expect(form("a", { x: undefined, y: 1 })).toBe("y=1");
  });
});
