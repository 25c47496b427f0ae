import { commitAll, hasGit } from "../support/gitProject.js";
import { quaysContract, quaysProject, text } from "../support/quaysProject.js";
import { describe, expect, it } from "vitest";
import { demoProject, graphqlProject, type TemporaryProject } from "../support/temporaryProject.js";

const schema = "type Query { boat: Boat harbour: String } type Boat { id: ID! name: String! length: Float }";
const query = { boat: "query BoatNow { boat { id name } }" };

/** A project whose SDK was generated and committed, tagged v1. */
async function committed(more = ""): Promise<TemporaryProject> {
  const project = graphqlProject(schema, query);
  project.write("rhema.yaml", project.read("rhema.yaml") + more);
  expect((await project.run(["generate"])).code).toBe(0);
  commitAll(project, "v1");
  return project;
}

describe("--gate and --judge", () => {
  it("impact fails from the level on, for the configured verdict", async () => {
    const project = graphqlProject(schema, query);
    await project.run(["generate"]);
    const code = async (...flags: string[]): Promise<number | null> => (await project.run(["impact", ...flags])).code;
    project.write("schema.graphql", schema.replace("name: String! length", "name: String length"));
    expect([
      await code(),
      await code("--gate", "off"),
      await code("--judge", "code"),
      await code("--judge", "apps"),
    ]).toEqual([1, 0, 1, 1]);
    project.write("schema.graphql", schema.replace("harbour: String", "harbour: Int"));
    expect(await code("--gate", "risky")).toBe(0);
    expect((await project.run(["impact", "--gate", "sometimes"])).code).toBe(2);
  });

  it("generate does not write an SDK because of a gate, and says how to continue", async () => {
    const project = graphqlProject(schema, query);
    await project.run(["generate"]);
    const before = project.tree("src/sdk");
    project.write("schema.graphql", schema.replace("name: String! length", "name: String length"));
    const held = await project.run(["generate", "--gate", "breaking"]);
    expect(held.code).toBe(1);
    expect(held.out).toMatch(/^generate: app not written/);
    expect(held.err).toMatch(/gate\.held[\s\S]*--gate off/);
    expect(project.tree("src/sdk")).toEqual(before);
    expect((await project.run(["generate"])).code).toBe(0);
    expect(project.tree("src/sdk")).not.toEqual(before);
  });
});

describe.skipIf(!hasGit)("revisions", () => {
  it("source is compared with the SDK of the guarded revision, because the new one lacks what was removed", async () => {
    const project = demoProject();
    project.write("rhema.yaml", `${project.read("rhema.yaml")}guard: { since: "git:v1" }\n`);
    expect((await project.run(["generate"])).code).toBe(0);
    commitAll(project, "v1");
    const contract = project.read("contracts/berths.yaml");
    project.write(
      "contracts/berths.yaml",
      contract.replace(/^ {8}note: \{ type: string, description: A word.*\n/m, ""),
    );
    expect((await project.run(["generate"])).code).toBe(0);
    expect(project.read("src/sdk/berths/shapes.ts")).not.toContain("A word from the harbour master.");
    const { code, err } = await project.run(["check"]);
    expect([code, err]).toEqual([1, expect.stringMatching(/guard\.broken {2}src\/berths\.ts:13:113/)]);
    expect(err).toContain("`Berth.note` was removed from responses.");
    project.write("src/berths.ts", project.read("src/berths.ts").replace('${berth.note ?? ""}', ""));
    expect((await project.run(["check"])).code).toBe(0);
  });

  it("a break that was already generated is reported since the guarded revision until it is fixed", async () => {
    const project = await committed('guard: { since: "git:v1" }\n');
    expect(await project.run(["check"])).toMatchObject({ code: 0, err: "" });
    project.write("schema.graphql", schema.replace("name: String! length", "name: String length"));
    expect((await project.run(["generate"])).code).toBe(0);
    const { code, err, out } = await project.run(["check"]);
    expect(code).toBe(1);
    expect(err).toMatch(/guard\.broken {2}q\/boat\.graphql:1:27/);
    expect(err).toMatch(/Breaking since `git:v1`/);
    expect(out).toMatch(/^check: 1 reason to fail/);
    expect((await project.run(["check", "--gate", "off"])).code).toBe(0);
    project.write("q/boat.graphql", "query BoatNow { boat { id } }");
    await project.run(["generate"]);
    expect((await project.run(["check"])).code).toBe(0);
  });

  it("adapted source needs no more; for released apps somebody must accept the change", async () => {
    const project = quaysProject(
      {
        "src/list.ts":
          'import { load } from "./quays.js";\nexport const all = async () => (await load()).map(({ note }) => note.length);\n',
      },
      [],
    );
    project.write("rhema.yaml", `${project.read("rhema.yaml")}guard: { since: "git:v1" }\n`);
    await project.run(["generate"]);
    commitAll(project, "v1");
    project.write("quays.json", quaysContract({ id: text, name: text, note: text }, ["id", "name"]));
    await project.run(["generate"]);
    const broken = await project.run(["check", "--judge", "code"]);
    expect([broken.code, broken.err]).toEqual([1, expect.stringMatching(/guard\.broken {2}src\/list\.ts:2/)]);
    project.write("src/list.ts", project.read("src/list.ts").replace("note.length", "note?.length"));
    expect((await project.run(["check", "--judge", "code"])).code).toBe(0);
    const both = await project.run(["check"]);
    expect([both.code, both.err]).toEqual([
      1,
      expect.stringMatching(/accept it until a date: `guard\.accepted: \[\{ change:\s+answer\.field\.now-optional/),
    ]);
    const accepted =
      'accepted: [{ change: answer.field.now-optional, subject: Quay.note, reason: known, until: "2999-01-01" }] }';
    project.write("rhema.yaml", project.read("rhema.yaml").replace('"git:v1" }', `"git:v1", ${accepted}`));
    expect((await project.run(["check"])).code).toBe(0);
  });

  it("impact compares with a revision, and reports one that does not exist", async () => {
    const project = await committed();
    project.write("schema.graphql", schema.replace(" length: Float", ""));
    await project.run(["generate"]);
    expect((await project.run(["impact"])).out).toMatch(/nothing changed/);
    const since = await project.run(["impact", "--before", "git:v1", "--all"]);
    expect(since.out).toMatch(/fleet {2}v1 -> now[\s\S]*Boat\.length/);
    const unknown = await project.run(["impact", "--before", "git:v9"]);
    expect([unknown.code, unknown.err]).toEqual([2, expect.stringContaining("There is no revision `v9`")]);
    expect((await project.run(["impact", "--before", "git:--output=x"])).code).toBe(2);
    expect((await project.run(["impact", "--before", "nowhere.graphql"])).err).toMatch(/git:REVISION/);
  });

  it("releases are rated separately, by the queries that they were made with", async () => {
    const project = await committed('releases: { "1.0": "git:v1" }\n');
    project.write("q/boat.graphql", "query BoatNow { boat { id } }");
    project.write("schema.graphql", schema.replace(" name: String!", ""));
    await project.run(["generate"]);
    const { code, out } = await project.run(["impact"]);
    expect(out).toMatch(/fleet {2}release 1\.0 -> now/);
    expect(out).toMatch(/operations\.graphql \(v1\):\d+:\d+ {2}selects/);
    expect(code).toBe(1);
    expect((await project.run(["impact", "--judge", "code"])).code).toBe(0);
    expect((await project.run(["impact", "--before", "1.0", "--all"])).out).toMatch(/fleet {2}1\.0 -> now/);
  });

  it("the queries of a released app are validated against the new schema, whatever changed", async () => {
    const asking = (input: string) => `${schema}\ntype Mutation { moor(at: At): Boolean }\ninput At { ${input} }\n`;
    const project = await committed('releases: { "1.0": "git:v2" }\n');
    project.write("schema.graphql", asking("quay: String other: [Int]"));
    project.write("q/moor.graphql", "mutation Moor($quay: String, $n: Int) { moor(at: { quay: $quay, other: [$n] }) }");
    await project.run(["generate"]);
    commitAll(project, "v2");
    project.write("q/moor.graphql", "mutation MoorNow { moor }");
    for (const input of ["quay: String! other: [Int]", "quay: String other: [Int!]"]) {
      project.write("schema.graphql", asking(input));
      await project.run(["generate"]);
      const { code, out } = await project.run(["impact", "--judge", "apps"]);
      expect(out).toMatch(/^impact: .*1 query refused/);
      expect(out).toMatch(/query documents the new contract refuses: 1[\s\S]*operations\.graphql \(v2\)/);
      expect(code).toBe(1);
      expect((await project.run(["impact", "--judge", "code"])).code).toBe(0);
    }
    const accepted = `guard:\n  accepted:\n    - { change: ask.field.now-required, reason: known, until: 2999-01-01 }\n`;
    project.write("rhema.yaml", `${project.read("rhema.yaml")}${accepted}`);
    project.write("schema.graphql", asking("quay: String! other: [Int]"));
    await project.run(["generate"]);
    expect((await project.run(["impact", "--judge", "apps"])).code).toBe(0);
  });

  it("a contract that was adopted later is not compared with a revision, unless requested", async () => {
    const project = await committed('guard: { since: "git:v1" }\nreleases: { "1.0": "git:v1" }\n');
    project.write("new.graphql", "type Query { tide: Float }");
    const config = project.read("rhema.yaml").replace("sdks:", "  tides: { from: new.graphql }\nsdks:");
    project.write("rhema.yaml", config.replace("covers: [fleet]", "covers: [fleet, tides]"));
    expect((await project.run(["generate"])).code).toBe(0);
    expect((await project.run(["check"])).code).toBe(0);
    expect((await project.run(["impact"])).code).toBe(0);
    const asked = await project.run(["impact", "tides", "--before", "git:v1"]);
    expect([asked.code, asked.err]).toEqual([3, expect.stringContaining("revision.empty")]);
  });

  it("releases of REST clients too", async () => {
    const project = demoProject();
    await project.run(["generate"]);
    commitAll(project);
    const berths = project.read("contracts/berths.yaml");
    project.write("contracts/berths.yaml", berths.replace("operationId: getBerth", "operationId: readBerth"));
    await project.run(["generate"]);
    expect((await project.run(["impact", "berths", "--before", "git:HEAD", "--all"])).out).toMatch(/getBerth/);
  });
});
