import { describe, expect, it } from "vitest";
import { settledSettings } from "../../../src/core/languages/settings.js";
import { description } from "../../../src/core/languages/typescript/description.js";
import type { LoweredRest } from "../../../src/core/sdk/lower/loweredSdk.js";
import { lowerSdk } from "../../../src/core/sdk/lower/lowerSdk.js";
import { choiceNames, memberNames, unionNames } from "../../../src/core/sdk/lower/values/partNames.js";
import { tellApart } from "../../../src/core/sdk/lower/values/tellApart.js";
import { planRest } from "../../../src/core/sdk/planRest.js";
import { readRest } from "../../support/readRest.js";
import { contractWith } from "../../support/smallContract.js";

const text = { type: "string" };

function lowered(document: unknown, settings: Record<string, unknown> = {}): LoweredRest {
  const sdk = lowerSdk(
    { name: "board", contracts: [planRest(readRest(document).contract, {})] },
    settledSettings(description.settings, settings),
  );
  const [contract] = sdk.contracts;
  if (contract?.protocol !== "rest") throw new Error("It is a REST contract.");
  return contract;
}

/** The planned shape of a schema in a response. */
function planned(schema: object, others: Record<string, object> = {}) {
  const { types } = lowered(contractWith({ ...others, Subject: schema }));
  const found = types.get("Subject");
  if (!found) throw new Error("Subject is not reached.");
  return { shape: found.shape, types };
}

describe("decisions for all languages", () => {
  const call = (operation: object, path = "/berths") => {
    const [only] = lowered({
      openapi: "3.1.0",
      info: { title: "T", version: "1" },
      paths: { [path]: operation },
    }).calls;
    if (!only) throw new Error("There is one call.");
    return only;
  };
  const ok = { "200": { description: "fine" } };

  it("how each part of a request is written", () => {
    const parameter = (name: string, location: string, more: object = {}) => ({
      name,
      in: location,
      schema: text,
      ...more,
    });
    const list = { schema: { type: "array", items: text } };
    const { request } = call(
      {
        get: {
          parameters: [
            parameter("id", "path", { required: true, style: "matrix" }),
            parameter("tags", "query", { ...list, style: "pipeDelimited", explode: false }),
            parameter("more", "query", { ...list, style: "pipeDelimited", explode: true }),
            parameter("raw", "query", { allowReserved: true }),
            parameter("X-Trace", "header", { content: { "application/json": { schema: text } }, schema: undefined }),
            parameter("session", "cookie"),
            parameter("Cookie", "header"),
          ],
          responses: ok,
        },
      },
      "/berths/{id}/of",
    );
    expect(request.path.map((step) => (step.kind === "text" ? step.text : [step.name, step.writer]))).toEqual([
      "/berths/",
      ["id", "matrix"],
      "/of",
    ]);
    expect(request.query.map(({ name, writer, explode }) => [name, writer, explode])).toEqual([
      ["tags", "piped", false],
      ["more", "form", true],
      ["raw", "reserved", true],
    ]);
    expect(request.headers.map(({ name, writer }) => [name, writer])).toEqual([["X-Trace", "json"]]);
    expect(request.cookies.map(({ name, writer }) => [name, writer])).toEqual([
      ["Cookie", "whole"],
      ["session", "form"],
    ]);
  });

  it("how each status is read, and what a fake returns", () => {
    const json = { "application/json": { schema: { type: "integer", format: "int64" } } };
    const { answers, failures, fake } = lowered(
      {
        openapi: "3.1.0",
        info: { title: "T", version: "1" },
        paths: {
          "/berths": {
            get: {
              responses: {
                "204": { description: "none" },
                "200": { description: "one", content: json },
                "404": { description: "no", content: { "text/plain": { schema: text } } },
              },
            },
          },
        },
      },
      { int64: "bigint", verify: "answers" },
    ).calls[0]!;
    const leaf = { kind: "leaf", leaf: { kind: "integer", as: "bigint" } };
    expect(answers).toEqual([
      { status: "200", as: "json", isExact: true, conversion: leaf, check: { kind: "integer" } },
      { status: "204", as: "none", isExact: false },
    ]);
    expect(failures).toEqual([{ status: "404", as: "text", isExact: false }]);
    expect(fake).toMatchObject({ status: 200, mediaType: "application/json" });
  });

  it("which parts of the runtime are used", () => {
    const features = (operation: object, settings = {}) => [
      ...lowered(
        {
          openapi: "3.1.0",
          info: { title: "T", version: "1" },
          paths: { "/a": { post: { ...operation, responses: ok } } },
        },
        settings,
      ).features,
    ];
    expect(features({})).toEqual(["rest"]);
    const form = { requestBody: { content: { "multipart/form-data": { schema: { type: "object" } } } } };
    expect(features(form).sort()).toEqual(["forms", "progress", "rarer parameters", "rest"]);
    expect(features({}, { failures: "return", dates: "decoded" }).sort()).toEqual(["conversions", "outcomes", "rest"]);
  });

  it("how union members are distinguished: by tag, or by the most specific test", () => {
    const record = (name: string, ...required: string[]) => ({
      [name]: { type: "object", required, properties: Object.fromEntries(required.map((each) => [each, text])) },
    });
    const others = { ...record("Sail", "kind", "mast"), ...record("Tug", "kind") };
    const refs = ["Sail", "Tug"].map((name) => ({ $ref: `#/components/schemas/${name}` }));
    const told = planned({ oneOf: refs, discriminator: { propertyName: "kind" } }, others);
    if (told.shape.kind !== "union") throw new Error("It is a union.");
    expect(tellApart(told.shape, told.types)).toEqual({
      by: "tag",
      field: "kind",
      rows: [
        { value: "Sail", at: 0 },
        { value: "Tug", at: 1 },
      ],
    });
    const untold = planned({ anyOf: [{ enum: ["none", "all"] }, ...[...refs].reverse()] }, others);
    if (untold.shape.kind !== "union") throw new Error("It is a union.");
    expect(tellApart(untold.shape, untold.types)).toMatchObject({
      by: "form",
      forms: [
        { kind: "text", values: ["none", "all"] },
        { kind: "record", needs: ["kind", "mast"] },
        { kind: "record", needs: ["kind"] },
      ],
    });
  });
});

describe("names of nested types", () => {
  it("of fields and enums come from their own words, and from their parents if they collide", () => {
    const { shape } = planned({
      type: "object",
      properties: { berthId: text, "berth-size": text, berthSize: text, "+1": text, "-1": text },
    });
    if (shape.kind !== "record") throw new Error("It is a record.");
    expect([...memberNames(shape.fields).values()].sort()).toEqual([
      "berthId",
      "berthMinusSize",
      "berthSize",
      "minus1",
      "plus1",
    ]);
    const choice = planned({ enum: ["free", "FREE", "not-free", ""] });
    if (choice.shape.kind !== "choice") throw new Error("It is a choice.");
    const names = [...choiceNames(choice.shape.values).values()];
    expect(new Set(names.map((name) => name.toLowerCase())).size).toBe(4);
    expect(names).toContain("notFree");
  });

  it("of union members come from their tag, or from their type or kind", () => {
    const { shape, types } = planned(
      { oneOf: [{ $ref: "#/components/schemas/Sail" }, { type: "array", items: text }, { type: "number" }] },
      { Sail: { type: "object", properties: { mast: text } } },
    );
    if (shape.kind !== "union") throw new Error("It is a union.");
    expect([...unionNames(shape, types).values()].sort()).toEqual(["number", "sail", "textList"]);
  });
});
