import { expect, it } from "vitest";
import { readContract } from "../../src/core/readContract.js";
import { Side } from "../../src/workspace/sources/side.js";

const schema = "type Query { berth(id: ID!): Berth }\ntype Berth { id: ID! note: String }\n";
const query = { document: "berth.graphql", text: "query OneBerth($id: ID!) { berth(id: $id) { id } }" };
const planning = {
  configured: { from: ["a"] },
  plannedFor: { language: "toy", settings: { unions: "closed" } },
} as const;

function side(text = schema): Side {
  const reading = readContract("passages", [{ document: "passages.graphql", text }]);
  if (!reading.contract) throw new Error("It cannot be read.");
  return new Side({ ...reading, contract: reading.contract });
}

it("a side reads the same documents once for each typing of fragments, and others separately", () => {
  const now = side();
  const inline = now.queries([query], "inline");
  expect(now.queries([{ ...query }], "inline")).toBe(inline);
  expect(now.checkedQueries([query])).toBe(inline);
  expect(now.queries([query], "sealed")).not.toBe(inline);
  const other = { ...query, text: query.text.replace("{ id }", "{ id note }") };
  expect(now.queries([other], "inline")?.uses.map(({ coordinate }) => coordinate)).toContain("Berth.note");
  expect(now.queries([query], "inline")).toBe(inline);
});

it("a side is planned once for each set of documents, language and settings", () => {
  const now = side();
  const plan = now.plan([query], "inline", planning);
  expect(now.plan([{ ...query }], "inline", planning)).toBe(plan);
  expect(now.plan([query], "sealed", planning)).not.toBe(plan);
  const open = { ...planning.plannedFor, settings: { unions: "open" } } as const;
  expect(now.plan([query], "inline", { ...planning, plannedFor: open })).not.toBe(plan);
  expect(now.plan([], "inline", planning).calls).toEqual([]);
});

it("a side is labelled with its version, or with its source", () => {
  const rest = (version: string): Side => {
    const text = JSON.stringify({ openapi: "3.1.0", info: { title: "Berths", version }, paths: {} });
    const reading = readContract("berths", [{ document: "berths.json", text }]);
    if (!reading.contract) throw new Error("It cannot be read.");
    return new Side({ ...reading, contract: reading.contract }, { label: "pin" });
  };
  expect([rest("2.1").label, rest("").label, side().label]).toEqual(["2.1", "pin", "now"]);
});
