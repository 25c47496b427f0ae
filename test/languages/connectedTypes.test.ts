import { describe, expect, it } from "vitest";
import { languages, loadLanguage } from "../../src/core/languages/index.js";
import type { Language } from "../../src/core/languages/language.js";
import { printSdk } from "../../src/core/languages/printSdk.js";
import { planRest } from "../../src/core/sdk/planRest.js";
import { workspaceLanguages } from "../../src/workspace/languages/index.js";
import { runtimeSources } from "../../src/workspace/generate/runtimeSources.js";
import { readQueries } from "../support/readGraphql.js";
import { readRest } from "../support/readRest.js";
import { contractWith } from "../support/smallContract.js";

type Schema = Readonly<Record<string, unknown>>;

const ref = (name: string): Schema => ({ $ref: `#/components/schemas/${name}` });

/** Types of which each contains two that are one step further, so that there are too many paths to walk. */
const kinds: Readonly<Record<string, (own: string, next: readonly Schema[]) => Schema>> = {
  records: (_, [left, right]) => ({ type: "object", required: ["left"], properties: { left, right } }),
  lists: (_, next) => ({ type: "array", items: { anyOf: next } }),
  "lists that are never empty": (_, next) => ({ type: "array", items: { anyOf: next }, minItems: 2 }),
  maps: (_, next) => ({ type: "object", additionalProperties: { oneOf: next } }),
  tuples: (_, next) => ({ type: "array", prefixItems: next, minItems: 2, items: false }),
  unions: (own, next) => ({
    anyOf: [...next, { type: "object", required: [own], properties: { [own]: { type: "string" } } }],
  }),
  "records put together": (own, next) => ({
    allOf: [...next, { type: "object", properties: { [own]: { type: "string" } } }],
  }),
};

function connected(kind: string, steps: number): unknown {
  const types: Record<string, Schema> = {};
  for (let at = 0; at < steps; at++)
    for (const [own, other] of [
      ["Quay", "Pier"],
      ["Pier", "Quay"],
    ] as const) {
      const name = `${own}${String(at)}`;
      types[name] = kinds[kind]?.(name, [ref(`${own}${String(at + 1)}`), ref(`${other}${String(at + 1)}`)]) ?? {};
    }
  for (const own of ["Quay", "Pier"])
    types[`${own}${String(steps)}`] = {
      type: "object",
      required: [own],
      properties: { [own]: { type: "string", format: "date-time" } },
    };
  types["Harbour"] = { type: "object", required: ["quay"], properties: { quay: ref("Quay0") } };
  const content = { "application/json": { schema: ref("Quay0") } };
  const held = { "application/json": { schema: ref("Harbour") } };
  return contractWith(types, {
    "/quays": {
      post: {
        operationId: "build",
        requestBody: { content: { ...content, "multipart/form-data": { schema: ref("Form") } } },
        responses: { 200: { description: "fine", content }, 201: { description: "made", content: held } },
      },
    },
  });
}

/** The files of an SDK with all features that look into types. */
function printed(language: Language, runtime: ReadonlyMap<string, string>, document: unknown): number {
  const { contract } = readRest(document);
  const settings = { testing: true, verify: "answers", dates: "decoded" };
  const sdk = { name: "app", contracts: [planRest(contract, {})] };
  const files = printSdk(language, sdk, { runtime, scalars: new Map(), settings });
  return [...files.values()].reduce((sum, text) => sum + text.length, 0);
}

describe.each(languages.map(({ id }) => id))("types that contain each other many times, in %s", (id) => {
  it.each(Object.keys(kinds))("%s are printed in linear size", async (kind) => {
    const language = await loadLanguage(id);
    const tools = await workspaceLanguages.find((each) => each.id === id)?.loadTools();
    const runtime = runtimeSources(tools?.runtimeFolder ?? "");
    const once = printed(language, runtime, connected(kind, 20));
    // A union lists its members after opening them, so that its text grows at most with the square of the steps.
    expect(printed(language, runtime, connected(kind, 40))).toBeLessThan(4 * once);
  });
});

it("fragments that spread each other many times are each visited once", () => {
  const steps = 40;
  const fragments = Array.from({ length: steps }, (_, at) => {
    const next = String(at + 1);
    return `fragment Left${String(at)} on Craft { id ...Left${next} ... on Tug { ...Right${next} } ...Right${next} }
      fragment Right${String(at)} on Craft { id ...Right${next} ... on Ferry { ...Left${next} } }`;
  });
  const { uses } = readQueries(
    "type Query { craft: Craft } interface Craft { id: ID! } type Tug implements Craft { id: ID! pull: Int } type Ferry implements Craft { id: ID! seats: Int }",
    `query First { craft { ...Left0 } } ${fragments.join("\n")}
      fragment Left${String(steps)} on Craft { ... on Tug { pull } } fragment Right${String(steps)} on Craft { ... on Ferry { seats } }`,
  );
  expect(new Set(uses.map(({ coordinate }) => coordinate))).toContain("Ferry.seats");
});
