import { chmodSync, cpSync, mkdirSync, readFileSync, statSync, symlinkSync, utimesSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { describe, expect, it } from "vitest";
import { contractWith, okay } from "../support/smallContract.js";
import { packageRoot } from "../support/packageRoot.js";
import { demoProject, graphqlProject, restProject, TemporaryProject } from "../support/temporaryProject.js";

interface GenerateJson {
  readonly exitCode: number;
  readonly sdks: {
    name: string;
    state: string;
    files: Record<string, number>;
    contracts: { name: string; untyped: number; calls: number }[];
    impacts: { changes: { code: string; use: string }[] }[];
    problems: { code: string; message: string }[];
  }[];
}
const generateJson = async (project: TemporaryProject, ...flags: string[]) =>
  JSON.parse((await project.run(["--json", "generate", ...flags])).out) as GenerateJson;

describe("generate", () => {
  it("reports contracts, SDK and time, and writes the pin and the ledger next to the SDK", async () => {
    const project = demoProject();
    const { code, out, err } = await project.run(["generate"]);
    expect(code).toBe(0);
    expect(err).toMatch(
      /^warning query\.deprecated {2}queries\/voyage-details\.graphql:5:5\n {2}The field `Voyage\.remarks`/,
    );
    const [headline = "", ...rows] = out.trimEnd().split("\n");
    expect(headline).toBe("generate: quay-board written");
    expect(rows[0]).toMatch(/berths +REST 1\.4\.0 +15 operations +\d+ types +all typed +contracts\/berths\.yaml/);
    expect(rows[1]).toMatch(/passages +GraphQL +9 queries +\d+ types +all typed +contracts\/passages\.graphql/);
    expect(rows[2]).toMatch(/quay-board +written +58 new, 0 unchanged files +src\/sdk/);
    expect(rows[3]).toMatch(/took \d+\.\d\d s/);
    expect(Object.keys(project.tree(".rhema"))).toEqual([
      "ledger.json",
      "pins/quay-board/berths.openapi.json",
      "pins/quay-board/passages.graphql",
      "pins/quay-board/passages.operations.graphql",
    ]);
    expect(project.read(".rhema/ledger.json")).not.toMatch(/\d{4}-\d\d-\d\dT/);
  });

  it("does not change an unchanged project, also if a file was only touched", async () => {
    const project = demoProject();
    await project.run(["generate"]);
    const before = statSync(project.path("src/sdk/README.md")).mtimeMs;
    utimesSync(project.path("src/sdk/berths/shapes.ts"), 1, 1);
    utimesSync(project.path("contracts/berths.yaml"), 1, 1);
    expect(await generateJson(project)).toMatchObject({
      exitCode: 0,
      sdks: [{ state: "unchanged", files: { unchanged: 58 } }],
    });
    expect(statSync(project.path("src/sdk/README.md")).mtimeMs).toBe(before);
  });

  it("gives the same bytes in another folder, time zone, language and file order, and with CRLF line endings", async () => {
    const one = demoProject();
    const two = demoProject();
    for (const path of [
      "contracts/berths.yaml",
      "contracts/passages.graphql",
      "rhema.yaml",
      "queries/crew.graphql",
      "queries/fleet.graphql",
    ])
      two.write(path, two.read(path).replaceAll("\n", "\r\n"));
    expect(
      (await one.run(["generate"], { TZ: "Pacific/Kiritimati", LANG: "tr_TR.UTF-8", LC_ALL: "tr_TR.UTF-8" })).code,
    ).toBe(0);
    expect((await two.run(["generate"], { TZ: "America/St_Johns", LANG: "C" })).code).toBe(0);
    expect(two.tree("src/sdk")).toEqual(one.tree("src/sdk"));
    expect({ ...two.tree(".rhema"), "ledger.json": "" }).toEqual({ ...one.tree(".rhema"), "ledger.json": "" });
    const ledger = (project: TemporaryProject) => JSON.parse(project.read(".rhema/ledger.json")) as unknown;
    expect(ledger(two)).toEqual(ledger(one));
  });

  it("treats a CRLF checkout of its own output as unedited", async () => {
    const project = demoProject();
    await project.run(["generate"]);
    for (const path of ["src/sdk/berths/shapes.ts", "src/sdk/wire/send.ts"])
      project.write(path, project.read(path).replaceAll("\n", "\r\n"));
    expect((await generateJson(project)).sdks[0]?.state).toBe("unchanged");
    project.write("queries/extra.graphql", "query Extra { ports { id } }");
    expect((await generateJson(project)).sdks[0]?.state).toBe("written");
  });

  it("detects an edit that keeps size and time, does not write the SDK, and replaces it with --force", async () => {
    const project = demoProject();
    await project.run(["generate"]);
    const path = project.path("src/sdk/berths/shapes.ts");
    const { atime, mtime } = statSync(path);
    const edited = project.read("src/sdk/berths/shapes.ts").replace("quay: string", "quay: strinG");
    writeFileSync(path, edited);
    utimesSync(path, atime, mtime);
    const held = await project.run(["generate"]);
    expect(held.code).toBe(1);
    expect(held.out).toMatch(/^generate: quay-board not written/);
    expect(held.err).toContain("`src/sdk/berths/shapes.ts` was edited.");
    expect(project.read("src/sdk/berths/shapes.ts")).toBe(edited);
    expect((await project.run(["generate", "--force"])).code).toBe(0);
    expect(project.read("src/sdk/berths/shapes.ts")).toContain("quay: string");
  });

  it("removes its own old files and keeps a hand-written file next to them", async () => {
    const project = demoProject();
    await project.run(["generate"]);
    project.write("src/sdk/passages/calls/mine.ts", "export const mine = 1;\n");
    project.write("queries/fleet.graphql", "query WholeFleet { vessels { id } }");
    expect((await generateJson(project)).sdks[0]).toMatchObject({ state: "written", files: { added: 2, removed: 2 } });
    expect([
      project.exists("src/sdk/passages/calls/fleet.ts"),
      project.exists("src/sdk/passages/calls/whole-fleet.ts"),
    ]).toEqual([false, true]);
    expect(project.read("src/sdk/passages/calls/mine.ts")).toBe("export const mine = 1;\n");
  });

  it("moves the whole SDK if `into` changes", async () => {
    const project = demoProject();
    await project.run(["generate"]);
    project.write("rhema.yaml", project.read("rhema.yaml").replace("src/sdk", "src/client"));
    expect((await project.run(["generate"])).code).toBe(0);
    expect([project.exists("src/sdk"), project.exists("src/client/README.md")]).toEqual([false, true]);
  });

  it("--dry-run reports and writes nothing", async () => {
    const project = demoProject();
    expect((await generateJson(project, "--dry-run")).sdks[0]).toMatchObject({
      state: "would be written",
      files: { added: 58 },
    });
    expect([project.exists("src/sdk"), project.exists(".rhema")]).toEqual([false, false]);
  });

  it("does not write an SDK with invalid queries and keeps the old one; --partial leaves them out", async () => {
    const project = demoProject();
    await project.run(["generate"]);
    const before = project.tree("src/sdk");
    project.write("queries/fleet.graphql", "query Fleet { vessels { nam } }");
    const held = await project.run(["generate"]);
    expect(held.code).toBe(1);
    expect(held.err).toContain("error query.invalid  queries/fleet.graphql:1:25");
    expect(held.err).toContain("-> Did you mean `name`?");
    expect(project.tree("src/sdk")).toEqual(before);
    const partial = await project.run(["generate", "--partial"]);
    expect(partial.code).toBe(0);
    expect(partial.out).toMatch(/8 queries +1 left out/);
    expect(project.exists("src/sdk/passages/calls/fleet.ts")).toBe(false);
  });

  it("reports changes since the pin and which of them this project uses, with locations", async () => {
    const project = demoProject();
    await project.run(["generate"]);
    cpSync(join(packageRoot, "demo/contracts/v2"), project.path("contracts"), { recursive: true });
    const { out } = await project.run(["generate", "--dry-run"]);
    expect(out).toMatch(/berths since the pin \(1\.4\.0 -> 2\.0\.0\): \d+ changes, \d+ break what this project uses/);
    expect(out).toMatch(/x `Berth\.note` was removed from responses\. {2}src\/berths\.ts:\d+:\d+/);
  });

  it("generates one SDK of several, and several contracts with types of the same name", async () => {
    const project = new TemporaryProject({
      "package.json": '{ "type": "module" }',
      "a.json": JSON.stringify(contractWith({ Berth: { type: "object", properties: { a: { type: "string" } } } })),
      "b.json": JSON.stringify(contractWith({ Berth: { type: "object", properties: { b: { type: "string" } } } })),
      "rhema.json": JSON.stringify({
        contracts: { a: { from: "a.json" }, b: { from: "b.json" } },
        sdks: {
          both: { language: "typescript", covers: ["a", "b"], into: "src/both" },
          one: { language: "typescript", covers: ["b"], into: "src/one" },
        },
      }),
    });
    expect((await generateJson(project, "one")).sdks.map(({ name }) => name)).toEqual(["one"]);
    expect((await generateJson(project)).sdks.map(({ name, state }) => [name, state])).toEqual([
      ["both", "written"],
      ["one", "unchanged"],
    ]);
    expect(project.compile()).toBe("");
  });

  it("counts as untyped exactly the locations without a type in the contract", async () => {
    const data = contractWith({
      A: { type: "object", properties: { x: {}, y: { type: "array" }, z: { type: "object" }, w: { type: "string" } } },
      Unused: {},
    });
    (data["paths"] as Record<string, unknown>)["/s/Unused"] = undefined;
    expect((await generateJson(restProject(data))).sdks[0]?.contracts[0]).toMatchObject({ untyped: 3 });
    const scalars = graphqlProject("scalar A scalar B type Query { a: A a2: A b: B }", { q: "query Q { a a2 }" });
    expect((await generateJson(scalars)).sdks[0]?.contracts[0]).toMatchObject({ untyped: 1 });
  });

  it("lists each call that an error skipped, with its cause and location", async () => {
    const project = restProject(contractWith({ Good: { type: "string" }, Bad: { $ref: "#/components/schemas/Godo" } }));
    const { code, out } = await project.run(["generate"]);
    expect(code).toBe(0);
    expect(out).toContain("api: 1 part skipped and not in the SDK, because the contract is not valid there");
    expect(out.replace(/\s+/g, " ")).toMatch(
      /GET \/s\/Bad contract\.reference api\.yaml:1:\d+ The reference `#\/components\/schemas\/Godo` does not resolve\. The closest name is `Good`\./,
    );
    expect(project.compile()).toBe("");
  });

  it("generates only operations of `only` and `skip` and their types, with shared parameters on the connection", async () => {
    const project = demoProject();
    project.write(
      "rhema.yaml",
      project
        .read("rhema.yaml")
        .replace(
          "from: contracts/berths.yaml",
          'from: contracts/berths.yaml\n    only: ["GET /berths/**", vessels]\n    skip: [registerVessel, "* /vessels/*", nothing]\n    standing: [berthId, pagesize]',
        ),
    );
    const { out, err } = await project.run(["generate"]);
    expect(out).toMatch(/3 operations|2 operations/);
    expect(err).toContain("`nothing` matches no operation of `berths`.");
    expect(err).toContain("Did you mean `pageSize`?");
    const shapes = project.read("src/sdk/berths/shapes.ts");
    expect([shapes.includes("interface Berth "), shapes.includes("Reservation")]).toEqual([true, false]);
    expect(project.read("src/sdk/berths/connect.ts")).toContain("readonly standing: { readonly berthId: string }");
    expect(project.read("src/sdk/berths/calls/berths.ts")).toContain("args.berthId ?? connection.standing.berthId");
    expect(project.compile({}, ["src/sdk"])).toBe("");
  });

  it("gives the same SDK for a schema in many files, a folder or a glob", async () => {
    const parts = {
      "s/a.graphql": "type Query { boat: Boat }",
      "s/deep/b.gql": "extend type Query { n: Int } type Boat { id: ID! }",
      "q/q.graphql": "query Q { boat { id } n }",
    };
    const config = (from: string) =>
      `contracts: { fleet: { from: ${from}, queries: [q/*.graphql] } }\nsdks: { app: { language: typescript, covers: [fleet], into: out } }\n`;
    const trees: Record<string, string>[] = [];
    for (const from of ["s", '"s/**/*"', "[s/a.graphql, s/deep/b.gql]"]) {
      const project = new TemporaryProject({ ...parts, "rhema.yaml": config(from) });
      expect((await project.run(["generate"])).code).toBe(0);
      trees.push(project.tree("out"));
    }
    expect(trees[1]).toEqual(trees[0]);
    expect(trees[2]).toEqual(trees[0]);
  });

  it("gives the same SDK for YAML and JSON", async () => {
    const data = contractWith({ A: { type: "object", properties: { x: { type: "string" } } } });
    const yaml = restProject(`openapi: 3.1.0
info: { title: Small, version: "1" }
components: { schemas: { A: { properties: { x: { type: string } }, type: object } } }
paths: { /s/A: { get: { operationId: get A, responses: { 200: { description: ok, content: { application/json: { schema: { $ref: "#/components/schemas/A" } } } } } } } }
`);
    const json = restProject(data);
    await yaml.run(["generate"]);
    await json.run(["generate"]);
    expect(yaml.tree("src/sdk")).toEqual(json.tree("src/sdk"));
  });

  it("changes one field if one field of the contract changed", async () => {
    const project = demoProject();
    await project.run(["generate"]);
    const before = project.tree("src/sdk");
    project.write(
      "contracts/berths.yaml",
      project
        .read("contracts/berths.yaml")
        .replace(
          "        quay: { type: string, examples: [north] }\n",
          "        quay: { type: string, examples: [north] }\n        photo: { type: string }\n",
        ),
    );
    await project.run(["generate"]);
    const after = project.tree("src/sdk");
    const changed = Object.keys(after).filter((path) => after[path] !== before[path]);
    expect(changed).toEqual(["berths/shapes.ts"]);
  });
});

describe("user files", () => {
  it("in the output folder are refused, kept with --force, and never replaced", async () => {
    const project = restProject(contractWith({ A: { type: "string" } }), {
      "src/sdk/README.md": "mine",
      "src/sdk/notes.txt": "mine too",
    });
    const refused = await project.run(["generate"]);
    expect(refused.code).toBe(1);
    expect(refused.err).toContain("`src/sdk/README.md` is in the output folder");
    expect((await project.run(["generate", "--force"])).code).toBe(1);
    expect(project.read("src/sdk/README.md")).toBe("mine");
    const beside = restProject(contractWith({ A: { type: "string" } }), { "src/sdk/notes.txt": "mine" });
    expect((await beside.run(["generate"])).err).toContain("`src/sdk` is not empty");
    expect((await beside.run(["generate", "--force"])).code).toBe(0);
    expect(beside.read("src/sdk/notes.txt")).toBe("mine");
  });

  it("that block the output are reported, and nothing else happens", async () => {
    const file = restProject(contractWith({ A: { type: "string" } }), { "src/sdk": "a file" });
    expect((await file.run(["generate"])).code).toBe(1);
    expect(file.read("src/sdk")).toBe("a file");
    const blocked = restProject(contractWith({ A: { type: "string" } }), { src: "a file where a folder should be" });
    const { code, err } = await blocked.run(["generate"]);
    expect(code).toBe(2);
    expect(err).toContain("output.unwritable");
    expect(blocked.read("src")).toBe("a file where a folder should be");
  });

  it.skipIf(process.getuid?.() === 0)("in a folder without permission are reported", async () => {
    const project = restProject(contractWith({ A: { type: "string" } }));
    mkdirSync(project.path("src"));
    chmodSync(project.path("src"), 0o500);
    expect((await project.run(["generate"])).err).toContain("output.unwritable");
  });

  it.each(["../elsewhere", "/tmp/elsewhere", ".", "src/../..", "link/out"])(
    "are safe, because an SDK cannot be written to %s",
    async (into) => {
      const project = restProject(contractWith({ A: { type: "string" } }));
      symlinkSync(packageRoot, project.path("link"));
      project.write("rhema.yaml", project.read("rhema.yaml").replace("src/sdk", into));
      const { code, err } = await project.run(["generate"]);
      expect([code, err.includes("path.outside  rhema.yaml:8:11")]).toEqual([2, true]);
    },
  );

  it("outside the folder cannot be reached by names from a contract", async () => {
    const data = contractWith(
      { "../../evil": { type: "object", properties: { a: { type: "string" } } } },
      { "/x": { get: { operationId: "../../../evil", tags: ["../../../evil"], responses: {} } } },
    );
    const project = restProject(data);
    expect((await project.run(["generate"])).code).toBe(0);
    expect(Object.keys(project.tree("src")).every((path) => path.startsWith("sdk/"))).toBe(true);
    expect(project.compile()).toBe("");
  });

  it("are safe if the ledger is invalid: nothing is written", async () => {
    const project = demoProject();
    await project.run(["generate"]);
    project.write(".rhema/ledger.json", "{");
    const { code, err } = await project.run(["generate", "--force"]);
    expect([code, err.includes("state.unreadable")]).toEqual([2, true]);
  });

  it("are independent of fields named __proto__ and constructor, which the SDK supports", async () => {
    const properties = JSON.parse('{"__proto__": {"type": "string"}, "constructor": {"type": "integer"}}') as object;
    const project = restProject(
      JSON.stringify(contractWith({ A: { type: "object", required: ["__proto__"], properties } })),
    );
    await project.run(["generate"]);
    expect(project.read("src/sdk/api/shapes.ts")).toContain(
      '__proto__: string;\n  constructor?: number | (typeof Object.prototype)["constructor"];',
    );
    expect(readFileSync(project.path(".rhema/pins/app/api.openapi.json"), "utf8")).toContain('"__proto__"');
  });

  it("get notes about long integers that lose digits, and about changed names", async () => {
    const long = { type: "integer", format: "int64" };
    const answer = {
      type: "object",
      properties: { id: long, many: { type: "array", items: long }, few: { type: "integer" } },
    };
    const data = contractWith(
      { Hive: answer },
      {
        "/a": {
          get: {
            operationId: "getHive",
            parameters: [{ name: "since", in: "query", schema: long }],
            responses: okay({}),
          },
        },
        "/b": { get: { operationId: "GetHive", responses: okay({}) } },
      },
    );
    const project = restProject(data);
    const notesOf = async (): Promise<string[]> =>
      ((await generateJson(project)).sdks[0]?.problems ?? []).flatMap(({ code, message }) =>
        ["contract.integers", "contract.names"].includes(code) ? [message] : [],
      );
    expect(await notesOf()).toEqual([
      "3 places have 64-bit integers, which become `number` in `app`: `Hive.id`, `Hive.many`, `getA(since)`.",
      "3 names are used more than once and changed: `getA` instead of `getHive`, `getB` instead of `getHive`, `getSHive` instead of `getHive`.",
    ]);
    for (const int64 of ["bigint", "number"]) {
      project.write(
        "rhema.yaml",
        `${project.read("rhema.yaml").replace(/ {4}settings.*\n/, "")}    settings: { int64: ${int64} }\n`,
      );
      expect(await notesOf()).toHaveLength(1);
    }
    const queries = graphqlProject("scalar Date\ntype Query { d: Date }", { a: "query Date { d }" });
    const { err } = await queries.run(["generate"]);
    expect(err).toMatch(/1 name is used more than once and changed: `Date_\w{4}` instead of\s+`Date`/);
    expect(err).toContain("Rename the query");
  });
});
