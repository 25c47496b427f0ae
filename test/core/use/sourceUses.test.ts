import { printCoordinate } from "../../../src/core/use/coordinate.js";
import { describe, expect, it } from "vitest";
import { SourceIndex } from "../../../src/core/use/sourceUse.js";
import { sourceUses } from "../../../src/workspace/languages/typescript/sourceUses.js";
import { programOf } from "../../proof/random/compile.js";

const sdk = `
export type BerthStatus = "free" | "taken";
export interface Berth { id: string; note?: string; status: BerthStatus; owner?: Owner; kind: "stone" | "wood" }
export interface Owner { name: string; note: string }
export interface ReserveArgs { readonly berthId: string; readonly crew?: number }
export declare function getBerth(connection: object, args: { readonly id: string }): Promise<Berth>;
export declare function listBerths(connection: object): Promise<Berth[]>;
export declare function reserve(connection: object, args?: ReserveArgs): Promise<Berth>;
export declare function connectHarbour(): object;
`;

/** All uses in an app, as "coordinate kind line:column". */
function found(app: string, more: Readonly<Record<string, string>> = {}): string[] {
  const files = new Map([["sdk/harbour/index.ts", sdk], ["app.ts", app], ...Object.entries(more)]);
  const program = programOf(files);
  const texts = new Map([...files].map(([path, text]) => [`/virtual/${path}`, text]));
  return sourceUses({
    program,
    isSdkFile: (name) => name.includes("/sdk/harbour/"),
    connect: "connectHarbour",
    documentOf: (name) => (texts.has(name) && !name.includes("/sdk/") ? name.replace("/virtual/", "") : undefined),
  })
    .map(({ coordinate, kind, place }) => {
      const file = program.getSourceFile(`/virtual/${place.document}`)!;
      const { line, character } = file.getLineAndCharacterOfPosition(place.offset);
      return `${coordinate} ${kind} ${place.document}:${String(line + 1)}:${String(character + 1)}`;
    })
    .filter((text) => !/^(getBerth|listBerths|connection) /.test(text));
}

const start =
  'import { connectHarbour, getBerth, listBerths, reserve } from "./sdk/harbour/index.js";\nimport type { Berth, BerthStatus, Owner } from "./sdk/harbour/index.js";\nconst berth = await getBerth(connectHarbour(), { id: "n" });\n';
const noteUses = (all: readonly string[]) => all.filter((text) => text.startsWith("Berth.note"));

describe("uses of an SDK in source, with locations", () => {
  it("a field, and not a field with the same name in another type", () => {
    const all = found(
      `${start}export const a = berth.note;\nexport const b = { note: 1 }.note;\nexport const c = berth.owner?.note;`,
    );
    expect(noteUses(all)).toEqual(["Berth.note reads app.ts:4:24"]);
    expect(all).toContain("Owner.note reads app.ts:6:31");
  });

  it("destructuring, also with another name, in parameters and with a rest", () => {
    const all = found(
      `${start}const { note: words, id } = berth;\nconst { status, ...others } = berth;\nfunction show({ note }: Berth) { return note; }\nexport const all = [words, id, status, others.note, show(berth)];`,
    );
    expect(noteUses(all)).toEqual([
      "Berth.note reads app.ts:4:9",
      "Berth.note reads app.ts:6:17",
      "Berth.note reads app.ts:7:47",
    ]);
  });

  it("aliased and re-exported imports, and a namespace", () => {
    const again =
      'export { getBerth as fetchBerth } from "./sdk/harbour/index.js";\nexport type { Berth as Place } from "./sdk/harbour/index.js";';
    const app =
      'import * as sdk from "./sdk/harbour/index.js";\nimport { fetchBerth, type Place } from "./again.js";\nexport const read = async (place: Place) => [place.note, (await fetchBerth({}, { id: "" })).note, (await sdk.reserve({})).note];';
    const all = found(app, { "again.ts": again });
    expect(noteUses(all)).toEqual([
      "Berth.note reads app.ts:3:52",
      "Berth.note reads app.ts:3:93",
      "Berth.note reads app.ts:3:123",
    ]);
    expect(all).toContain("Berth names app.ts:3:35");
    expect(all).toContain("reserve calls app.ts:3:110");
    expect(all).toContain("ReserveArgs.crew? omits app.ts:3:106");
  });

  it("other names by default exports, assignments and dynamic imports", () => {
    const again =
      'import { getBerth } from "./sdk/harbour/index.js";\nimport * as all from "./sdk/harbour/index.js";\nexport default getBerth;\nexport import book = all.reserve;\nexport { all as whole };';
    const app =
      'import ask, { book as take, whole } from "./again.js";\nimport * as again from "./again.js";\nexport const asked = [ask({}, { id: "" }), take({}), whole.reserve({}), again.default({}, { id: "" }), again.book({})];\nconst { reserve: later, ...rest } = await import("./sdk/harbour/index.js");\nexport const more = [later({}), rest.listBerths({})];';
    const calls = found(app, { "again.ts": again }).filter((text) => text.startsWith("reserve calls app"));
    expect(calls).toEqual([
      "reserve calls app.ts:3:44",
      "reserve calls app.ts:3:60",
      "reserve calls app.ts:3:110",
      "reserve calls app.ts:4:9",
    ]);
  });

  it("a type test does not read fields", () => {
    const all = found(
      `${start}declare function show(what: any): void;\nexport const a = [Array.isArray(berth), Boolean(berth), String(berth.id)];`,
    );
    expect(all.filter((text) => text.includes(" reaches "))).toEqual([]);
    const shown = found(`${start}declare function show(what: any): void;\nshow(berth);`);
    expect(shown).toContain("Berth.* reaches app.ts:5:6");
  });

  it("spread copies keep their fields", () => {
    const all = found(
      `${start}const copy = { ...berth, extra: 1 };\nexport const a = copy.note;\nexport const b = copy.extra;`,
    );
    expect(noteUses(all)).toEqual(["Berth.note reads app.ts:5:23"]);
  });

  it("helpers that accept a key, keyof and computed keys", () => {
    const helpers = "function pick<T, K extends keyof T>(of: T, key: K): T[K] { return of[key]; }\n";
    const named = found(`${start}${helpers}export const a = pick(berth, "note");`);
    expect(noteUses(named)).toEqual(["Berth.note reads app.ts:5:30"]);
    const key = found(`${start}export const read = (key: "id" | "note") => berth[key];`);
    expect(key).toContain("Berth.* reaches app.ts:4:45");
    expect(found(`${start}export type Key = keyof Berth;`)).toContain("Berth.* reaches app.ts:4:19");
    expect(found(`${start}export const a = (berth as any).note;`)).toContain("Berth.* reaches app.ts:4:19");
    expect(found(`${start}export const a = berth["note"];`)).toContain("Berth.note reads app.ts:4:24");
  });

  it("values that are sent, omitted or built by hand", () => {
    const all = found(
      `${start}await reserve({}, { berthId: "a" });\nexport const made: Berth = { id: "", status: "free", kind: "wood" };`,
    );
    expect(all).toContain("ReserveArgs.berthId writes app.ts:4:21");
    expect(all).toContain("ReserveArgs.crew? omits app.ts:4:19");
    expect(all).toContain("Berth{} builds app.ts:5:28");
    expect(all).toContain("Berth.note? omits app.ts:5:28");
    expect(all).toContain("BerthStatus.free writes app.ts:5:46");
    expect(all).toContain("Berth.kind.wood writes app.ts:5:60");
  });

  it("values that are passed on, at any depth, each type once", () => {
    const links = Array.from(
      { length: 12 },
      (_, at) => `export interface Link${String(at)} { next: Link${String(at + 1)}[] }\n`,
    );
    const chain = `${links.join("")}export interface Link12 { first: Link0; note: string }\n`;
    const shown = Array.from({ length: 50 }, () => "show(first);\n").join("");
    const all = found(
      `import type { Link0 } from "./sdk/harbour/chain.js";\ndeclare const first: Link0;\ndeclare function show(what: any): void;\n${shown}`,
      { "sdk/harbour/chain.ts": chain },
    ).filter((text) => text.includes(" reaches "));
    expect(all).toHaveLength(13);
    expect(all).toContain("Link12.* reaches app.ts:4:6");
  });

  it("enums: compared, in a switch, and the same string elsewhere", () => {
    const all = found(
      `${start}export const a = berth.status === "free";\nswitch (berth.kind) {\n  case "stone":\n    break;\n}\nexport const b = "free";\nconst { status } = berth;\nexport const c = status !== "taken";\nexport type S = BerthStatus | Owner;`,
    );
    const values = all.filter((text) => /\.(free|taken|stone) /.test(text));
    expect(values).toEqual([
      "BerthStatus.free matches app.ts:4:35",
      "Berth.status.free matches app.ts:4:35",
      "Berth.kind.stone matches app.ts:6:8",
      "BerthStatus.taken matches app.ts:11:29",
      "Berth.status.taken matches app.ts:11:29",
    ]);
  });

  it("a change affects the uses of its direction, and is unclear if an object is passed on", () => {
    const place = { document: "a.ts", offset: 0, length: 1 };
    const index = new SourceIndex([
      { coordinate: printCoordinate("Berth.note"), kind: "reads", place },
      { coordinate: printCoordinate("Owner.*"), kind: "reaches", place },
    ]);
    expect([
      index.usesOf([printCoordinate("Berth.note")], "answer").length,
      index.usesOf([printCoordinate("Berth.note")], "ask").length,
    ]).toEqual([1, 0]);
    expect([index.mayReach([printCoordinate("Owner.name")]), index.mayReach([printCoordinate("Berth.id")])]).toEqual([
      true,
      false,
    ]);
  });
});
