import { commitAll, hasGit } from "../support/gitProject.js";
import { describe, expect, it } from "vitest";
import { graphqlProject, type TemporaryProject } from "../support/temporaryProject.js";

const schema = "type Query { boat: Boat } type Boat { id: ID! name: String length: Float }";

/** Three releases: 1.9 and 1.10 select a name, 1.11 does not. Now nobody gets names. */
async function released(releases: string): Promise<TemporaryProject> {
  const project = graphqlProject(schema, { boat: "query BoatNow { boat { id name } }" });
  for (const [tag, fields] of [
    ["v1.9", "id name"],
    ["v1.10", "name length"],
    ["v1.11", "id"],
  ] as const) {
    project.write("q/boat.graphql", `query BoatNow { boat { ${fields} } }`);
    expect((await project.run(["generate"])).code).toBe(0);
    commitAll(project, tag);
  }
  project.write("rhema.yaml", `${project.read("rhema.yaml")}${releases}`);
  project.write("schema.graphql", schema.replace(" name: String", ""));
  expect((await project.run(["generate"])).code).toBe(0);
  return project;
}

const inline =
  'releases: { "1.9": { at: git:v1.9, share: 0.04 }, "1.10": { at: git:v1.10, share: 0.085 }, "1.11": { at: git:v1.11, share: 0.8 } }\n';
const plain = 'releases: { "1.9": git:v1.9, "1.10": git:v1.10, "1.11": git:v1.11 }\n';

describe.skipIf(!hasGit)("the share of users that a change affects", () => {
  it("is shown for each change, from the shares of the affected releases", async () => {
    const project = await released(inline);
    const { code, out } = await project.run(["impact"]);
    expect(code).toBe(1);
    expect(out).toContain("breaks releases 1.9 and 1.10, 12.5 % of users");
    expect(out.match(/answer\.field\.gone {2}code/g)).toHaveLength(1);
    expect(out).toMatch(/boat\.graphql|operations\.graphql \(v1\.9\)[^]*operations\.graphql \(v1\.10\)/);
    expect(out.trim()).toMatch(/nothing breaks in: the newest release, 1\.11\nunknown for the rest, 7\.5 % of users$/);
    const { releases, served } = JSON.parse((await project.run(["impact", "--json"])).out) as {
      releases: { release: string; share: number; changes: { users?: object }[] }[];
      served: object;
    };
    expect(releases.map(({ release, share }) => [release, share])).toEqual([
      ["1.9", 0.04],
      ["1.10", 0.085],
      ["1.11", 0.8],
    ]);
    expect(releases[0]?.changes[0]?.users).toEqual({ releases: ["1.9", "1.10"], share: 0.125 });
    expect(served).toMatchObject({ from: "1.11", newest: "1.11" });
    const markdown = (await project.run(["impact", "--report", "markdown"])).out;
    expect(markdown).toContain("breaks releases 1.9 and 1.10, 12.5 % of users");
    expect(markdown).toContain("Nothing breaks in: the newest release, 1.11.");
    expect((await project.run(["impact", "--report", "html"])).out).toContain("12.5 % of users");
  });

  it("limits what a gate accepts", async () => {
    const project = await released(inline);
    const code = async (...flags: string[]) => (await project.run(["impact", ...flags])).code;
    expect([await code("--most-users", "12%"), await code("--most-users", "0.13")]).toEqual([1, 0]);
    expect(await code("--most-users", "12%", "--judge", "code")).toBe(0);
    expect(await code("--most-users", "130%")).toBe(2);
    project.write("rhema.yaml", project.read("rhema.yaml").replace(", share: 0.8", ""));
    const { code: unknown, err } = await project.run(["impact", "--most-users", "12%"]);
    expect([unknown, err]).toEqual([3, expect.stringContaining("`1.11` has no share of users")]);
  });

  it.each([
    ["from: shares.csv", 'release,share\n1.9,0.01\n"1.10",.02\n1.12,0.5\n'],
    ["run: cat shares.csv", "share, Release\r\n0.01,1.9\r\n2e-2,1.10\r\n"],
  ])("is read from a list: %s", async (source, csv) => {
    const project = await released(`${plain}shares: { ${source} }\n`);
    project.write("shares.csv", csv);
    const { out } = await project.run(["impact"]);
    expect(out).toContain("breaks releases 1.9 and 1.10, 3 % of users");
    expect(out).toContain("unknown for the rest, 97 % of users");
  });

  it.each([
    ["release,share\n1.9,0.8\n1.10,0.3\n", "is 1.1, which is more than 1"],
    ["release,share\n1.9,80 %\n", "`80 %`, which is not a fraction"],
    ["version,users\n1.9,3\n", "has no release"],
    ["release,share\n1.9,0.1\n1.9,0.1\n", "names the release `1.9` again"],
    ['release,share\n"1.9,0.1\n', "cannot be read as CSV"],
  ])("is not read from an invalid list: %j", async (csv, message) => {
    const project = await released(`${plain}shares: { from: shares.csv }\n`);
    project.write("shares.csv", csv);
    const { code, err } = await project.run(["impact"]);
    expect([code, err.replace(/\s+/g, " ")]).toEqual([3, expect.stringContaining(message)]);
  });

  it("counts the users of all releases that send an invalid query", async () => {
    const asking = `${schema} type Mutation { moor(at: At): Boolean } input At { quay: String }`;
    const project = graphqlProject(asking, { moor: "mutation Moor($quay: String) { moor(at: { quay: $quay }) }" });
    for (const tag of ["v1", "v2"]) {
      project.write("notes.txt", tag);
      expect((await project.run(["generate"])).code).toBe(0);
      commitAll(project, tag);
    }
    project.write("q/moor.graphql", "mutation MoorNow { moor }");
    const releases = 'releases: { "1": { at: git:v1, share: 0.04 }, "2": { at: git:v2, share: 0.03 } }\n';
    project.write("rhema.yaml", `${project.read("rhema.yaml")}${releases}`);
    project.write("schema.graphql", asking.replace("quay: String", "quay: String!"));
    expect((await project.run(["generate"])).code).toBe(0);
    const codes = ["5%", "8%"].map(async (most) => (await project.run(["impact", "--most-users", most])).code);
    expect(await Promise.all(codes)).toEqual([1, 0]);
  });
});
