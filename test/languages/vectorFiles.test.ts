import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { Ajv } from "ajv";
import { describe, expect, it } from "vitest";
import { packageRoot } from "../support/packageRoot.js";
import { vectorRows } from "./vectors/vectorRows.js";
import { calledKinds } from "./vectors/vectorSteps.js";

const folder = join(packageRoot, "vectors");
const read = (file: string): unknown => JSON.parse(readFileSync(join(folder, file), "utf8"));
const files = readdirSync(folder).filter((file) => file !== "schema.json");
const ajv = new Ajv({ allErrors: true, strict: false });
ajv.addSchema(read("schema.json") as object, "vectors");
const validator = (file: string) => {
  const found = ajv.getSchema(`vectors#/definitions/${file.replace(".json", "")}`);
  if (!found) throw new Error(`vectors/schema.json does not describe ${file}.`);
  return found;
};

describe("vector files", () => {
  it.each(files)("%s matches the schema, and each row tests something of its own", (file) => {
    const validate = validator(file);
    expect([validate(read(file)), validate.errors]).toEqual([true, null]);
    const rows = vectorRows(file.replace(".json", ""));
    expect(new Set(rows.map(({ why }) => why)).size).toBe(rows.length);
    const bare = rows.map(({ why: _why, rule: _rule, ...row }) => JSON.stringify(row));
    expect(new Set(bare).size).toBe(rows.length);
  });

  it.each(files)("%s must not contain unknown keys", (file) => {
    const text = JSON.stringify(read(file));
    const validate = validator(file);
    expect(validate(JSON.parse(text.replace('"why":', '"because":"x","why":')))).toBe(false);
    expect(validate(JSON.parse(text.replace('"about":', '"version":1,"about":')))).toBe(false);
  });

  it("have 400 rows that are calls of an SDK", () => {
    const counts = calledKinds.map((kind) => vectorRows(kind).length);
    expect(Math.min(...counts)).toBeGreaterThanOrEqual(25);
    expect(counts.reduce((sum, count) => sum + count, 0)).toBeGreaterThanOrEqual(400);
  });
});
