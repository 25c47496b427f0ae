import { describe, expect, it } from "vitest";
import { namesAlike, mayBeRenamed } from "../../../src/core/change/compare/mayBeRenamed.js";
import { compareGraphql } from "../../../src/core/change/compare/compareGraphql.js";
import { compareRest } from "../../../src/core/change/compare/compareRest.js";
import type { Change } from "../../../src/core/change/change.js";
import { readQueries } from "../../support/readGraphql.js";
import { readRest } from "../../support/readRest.js";
import { contractWith, okay } from "../../support/smallContract.js";
import { typescriptFacts } from "../../support/typescriptSdk.js";

describe("names that probably mean the same thing", () => {
  it.each([
    ["crew", "crewSize"],
    ["vesselId", "vessel"],
    ["note", "notes"],
    ["recieved", "received"],
    ["desc", "description"],
    ["created_at", "createdOn"],
    ["berthStatus", "status", "Berth"],
    ["id", "berthId", "Berth"],
  ])("%s and %s", (a, b, owner = "") => {
    expect([namesAlike(a, b, owner), namesAlike(b, a, owner)]).toEqual([true, true]);
  });

  it.each([
    ["ownerId", "teamId"],
    ["senderName", "recipientName"],
    ["name", "firstName"],
    ["createdAt", "updatedAt"],
    ["minLength", "maxLength"],
    ["minLength", "minDepth"],
    ["note", "photo"],
    ["berthOwner", "berthCaptain"],
    ["", ""],
  ])("but not %s and %s", (a, b) => {
    expect([namesAlike(a, b), namesAlike(b, a)]).toEqual([false, false]);
  });

  it("also if one description fits both, or both have the same limits or the same default number", () => {
    const depth = "Depth at low water in metres.";
    expect(mayBeRenamed({ name: "draught", description: depth }, { name: "depth", description: depth })).toBe(true);
    expect(mayBeRenamed({ name: "draught", description: "A note." }, { name: "sort", description: "A note." })).toBe(
      false,
    );
    const limited = (maximum: number) => ({
      shape: { kind: "number" as const, constraints: { minimum: 0, maximum } },
      nullable: true,
    });
    const within = (one: number, other: number) =>
      mayBeRenamed({ name: "draught", type: limited(one) }, { name: "depth", type: limited(other) });
    expect([within(12, 12), within(12, 9)]).toEqual([true, false]);
    expect(mayBeRenamed({ name: "limit", default: 10 }, { name: "first", default: 10 })).toBe(true);
    expect(mayBeRenamed({ name: "limit", default: 0 }, { name: "first", default: 0 })).toBe(false);
  });
});

const messages = (changes: readonly Change[]) => changes.map(({ code, message }) => `${code}: ${message}`).sort();
const rest = (before: unknown, after: unknown) =>
  messages(compareRest(readRest(before).contract, readRest(after).contract, typescriptFacts()));
const graphql = (before: string, after: string) =>
  messages(compareGraphql(readQueries(before).contract, readQueries(after).contract, typescriptFacts()));
const record = (...names: string[]) => ({
  type: "object",
  required: names,
  properties: Object.fromEntries(names.map((name) => [name, { type: "string" }])),
});

describe("a rename is reported", () => {
  it("as possible, if the names suggest it", () => {
    const [before, after] = [record("note"), record("notes")].map((Berth) => contractWith({ Berth }));
    expect(rest(before, after)).toEqual([
      "answer.field.renamed: `Berth.note` was removed. It may have been renamed to `notes`.",
    ]);
  });

  it.each([
    ["another name", ["note"], ["photo"]],
    ["a second candidate among the new ones", ["crew"], ["crewSize", "crewList"]],
    ["a second candidate among the old ones", ["crewSize", "crewList"], ["crew"]],
  ])("not with %s", (_what, before, after) => {
    const found = rest(contractWith({ Berth: record(...before) }), contractWith({ Berth: record(...after) }));
    expect(found.map((text) => text.slice(0, 18)).filter((text) => text !== "answer.field.new: ")).toEqual(
      before.map(() => "answer.field.gone:"),
    );
  });

  it("of an operation, but not if another one only happens to have the same response", () => {
    const path = (name: string) =>
      contractWith(
        { Berth: record("id") },
        { [name]: { get: { responses: okay({ $ref: "#/components/schemas/Berth" }) } } },
      );
    expect(
      rest(path("/quays/{id}/picture"), path("/vessels/{id}/picture")).some((text) => text.includes("perhaps")),
    ).toBe(false);
    expect(rest(path("/tides/{day}"), path("/v2/tide-tables/{day}"))).toContain(
      "operation.moved: GET /tides/{day} was removed. It may have moved to GET /v2/tide-tables/{day}.",
    );
  });

  it("of a type that most locations now use instead, and never of one that replaces another type", () => {
    const boats = (type: string, more = "") =>
      `type Query { boat: ${type} first: ${type} other: Buoy } type Buoy { id: ID name: String } type ${type} { id: ID name: String } ${more}`;
    expect(graphql(boats("Boat"), boats("Vessel"))).toEqual([
      "type.renamed: The object `Boat` was removed. It may have been renamed to `Vessel`.",
    ]);
    const [before, after] = ["a: Boat b: Int", "a: Buoy b: Int c: Pier"].map(
      (fields) =>
        `type Query { ${fields} d: Buoy } type Buoy { id: ID name: String } type ${fields.includes("Pier") ? "Pier" : "Boat"} { id: ID name: String }`,
    );
    const found = graphql(before ?? "", after ?? "");
    expect(found.some((text) => text.startsWith("type.renamed"))).toBe(false);
    expect(found).toContain("type.gone: The object `Boat` was removed.");
  });
});
