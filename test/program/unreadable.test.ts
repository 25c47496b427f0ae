import { describe, expect, it } from "vitest";
import { contractWith } from "../support/smallContract.js";
import { TemporaryProject } from "../support/temporaryProject.js";

const good = JSON.stringify(contractWith({ Berth: { type: "object", properties: { id: { type: "string" } } } }));
/** Each way in which a contract is not available or cannot be read, and the report. */
const unreadable: Record<string, { readonly from: string; readonly text?: string; readonly said: string }> = {
  missing: { from: "missing.yaml", said: "does not exist" },
  broken: { from: "broken.yaml", text: "openapi: 3.1.0\n  info: [", said: "broken.yaml:2" },
  other: { from: "other.yaml", text: "a: 1\n", said: "other.yaml" },
  glob: { from: "none/*.yaml", said: "No file matches" },
  far: { from: "http://127.0.0.1:1/far.yaml", said: "cannot be reached" },
  secret: { from: "http://127.0.0.1:1/${NOT_SET_ANYWHERE}.yaml", said: "NOT_SET_ANYWHERE" },
};
const names = Object.keys(unreadable);

/** A project with an SDK for a valid contract, one for each invalid one, and one for both. */
function project(): TemporaryProject {
  const made = new TemporaryProject({ "package.json": '{ "type": "module" }', "good.json": good });
  const contracts = names.map((name) => {
    const { from = "", text } = unreadable[name] ?? {};
    if (text !== undefined) made.write(from, text);
    return `  ${name}: { from: "${from}" }\n`;
  });
  const sdk = (name: string, covers: readonly string[]): string =>
    `  ${name}: { language: typescript, covers: [${covers.join(", ")}], into: src/${name} }\n`;
  const sdks = [
    ...names.map((name) => sdk(`a-${name}`, [name])),
    sdk("board", ["good"]),
    sdk("mixed", ["good", "broken", "missing"]),
  ];
  made.write("rhema.yaml", `contracts:\n  good: { from: good.json }\n${contracts.join("")}sdks:\n${sdks.join("")}`);
  return made;
}

describe("contracts that cannot be read", () => {
  it("are reported all at once, and only the SDKs that cover them are not written", async () => {
    const app = project();
    const { code, out, err } = await app.run(["generate"]);
    expect(code).toBe(3);
    for (const name of names) expect([name, err.includes(unreadable[name]?.said ?? "?")]).toEqual([name, true]);
    expect(out).toContain("held back");
    expect(out).toMatch(/board +written/);
    expect(app.compile()).toBe("");
    expect(app.exists("src/mixed")).toBe(false);
    const again = await app.run(["--json", "generate"]);
    const said = JSON.parse(again.out) as { exitCode: number; sdks: { name: string; state: string; problems: [] }[] };
    expect([again.code, said.exitCode]).toEqual([3, 3]);
    expect(said.sdks.filter(({ state }) => state !== "held back").map(({ name }) => name)).toEqual(["board"]);
    expect(said.sdks.find(({ name }) => name === "mixed")?.problems).toHaveLength(2);
    expect((await app.run(["generate", "board"])).code).toBe(0);
  });

  it("are all reported by check, which still rates the others", async () => {
    const app = project();
    await app.run(["generate"]);
    const { code, out, err } = await app.run(["check"]);
    expect(code).toBe(3);
    for (const name of ["missing", "broken", "other", "glob"])
      expect([name, err.includes(unreadable[name]?.said ?? "?")]).toEqual([name, true]);
    expect(out).toMatch(/board +up to date/);
    expect((await app.run(["check", "board"])).code).toBe(0);
  });

  it.each([["play", "--port", "0"], ["outline"], ["impact"], ["observe", "--har", "none.har"]])(
    "are all reported by %s",
    async (...args) => {
      const { code, err } = await project().run(args);
      expect(code).toBe(3);
      for (const name of ["missing", "broken", "other", "glob"])
        expect([name, err.includes(unreadable[name]?.said ?? "?")]).toEqual([name, true]);
    },
  );

  it("do not stop pull and try for other contracts", async () => {
    const app = project();
    const { code, err } = await app.run(["pull"]);
    expect(code).toBe(3);
    for (const name of ["far", "secret"])
      expect([name, err.includes(unreadable[name]?.said ?? "?")]).toEqual([name, true]);
    expect((await app.run(["try", "GET /s/Berth"])).code).toBe(0);
    expect((await app.run(["try", "listNothing"])).code).toBe(3);
  });
});
