import { describe, expect, it } from "vitest";
import { fleetSchema } from "../support/readGraphql.js";
import { TemporaryProject } from "../support/temporaryProject.js";

const configured = (queries: string, more = ""): string =>
  `contracts:\n  fleet:\n    from: schema.graphql\n    queries: ${queries}\n${more}sdks:\n  app: { language: typescript, covers: [fleet], into: src/sdk }\n`;
const base = { "package.json": '{ "type": "module" }', "schema.graphql": fleetSchema };
const everywhere = configured('["src/**/*.{ts,tsx,vue,svelte,graphql}"]');

describe("queries in source files", () => {
  it("give the same SDK as query documents, with fragments across files", async () => {
    const [fragment, query] = ["fragment Line on Boat { id name }", "query All { boats { ...Line } }"];
    const own = new TemporaryProject({
      ...base,
      "rhema.yaml": everywhere,
      "src/a.graphql": fragment,
      "src/b.graphql": query,
    });
    const beside = new TemporaryProject({
      ...base,
      "rhema.yaml": everywhere,
      "src/Line.vue": `<script setup lang="ts">\nimport { gql } from "x";\nconst Line = gql\`${fragment}\`;\n</script>\n<template><p/></template>\n`,
      "src/All.tsx": `import { gql } from "x";\nimport { Line } from "./Line";\nconst All = gql\`${query}\n\${Line}\`;\nexport const Board = () => <p>{All}</p>;\n`,
    });
    for (const project of [own, beside]) expect(await project.run(["generate"])).toMatchObject({ code: 0, err: "" });
    expect(beside.tree("src/sdk")).toEqual(own.tree("src/sdk"));
    expect(await beside.run(["check"])).toMatchObject({ code: 0 });
    beside.write("src/Line.vue", beside.read("src/Line.vue").replace("id name", "id length"));
    expect((await beside.run(["check"])).code).toBe(1);
  });

  it("have errors at the lines of their source files, all in one run", async () => {
    const project = new TemporaryProject({
      ...base,
      "rhema.yaml": everywhere,
      "src/A.vue":
        "<template>\n  <p/>\n</template>\n<script>\nimport gql from 'x'\nexport default { q: gql`query A { boats { nam } }` }\n</script>\n",
      "src/b.ts": 'import { gql } from "x";\nconst field = "id";\nconst b = gql`query B {\n  boats { ${field} }\n}`;\n',
      "src/c.svelte": "<script>\n  const c = gql`query C { boats { ...Gone } }`;\n</script>\n",
      "src/d.tsx": "import { gql } from 'x';\nconst d = gql`query D { boats { id }`;\n",
    });
    const { code, err, out } = await project.run(["generate"]);
    expect(code).toBe(1);
    expect(err).toMatch(
      /query\.invalid {2}src\/A\.vue:6:43\n {2}Cannot query field `nam` on type `Boat`\.[\s\S]*?\^\^\^\n {2}-> Did you mean `name`/,
    );
    expect(err).toMatch(/query\.interpolated {2}src\/b\.ts:4:11/);
    expect(err).toMatch(/query\.tag {2}src\/c\.svelte:2:13/);
    expect(err).toMatch(/query\.syntax {2}src\/d\.tsx:2:23/);
    expect(out).toMatch(/held back/);
  });

  it("are read only with configured tags, and a pattern without queries is reported", async () => {
    const files = {
      ...base,
      "src/a.ts": "const harbour = String.raw;\nconst q = harbour`query A { boats { id } }`;\n",
    };
    const tagged = new TemporaryProject({
      ...files,
      "rhema.yaml": configured('["src/*.ts"]', "    tags: [harbour]\n"),
    });
    expect(await tagged.run(["generate"])).toMatchObject({ code: 0, err: "" });
    expect(tagged.exists("src/sdk/fleet/calls/a.ts")).toBe(true);
    const usual = new TemporaryProject({ ...files, "rhema.yaml": configured('["src/*.ts"]') });
    const { code, err } = await usual.run(["generate"]);
    expect(err.replace(/\s+/g, " ")).toContain("matches 1 source file, but none contains a query of `fleet`");
    expect(code).toBe(0);
  });

  it("are read by the SDK's own function whatever the tags, but not by that of another contract", async () => {
    const text = 'import { fleetQueries } from "./sdk/fleet/index.js";\nfleetQueries(`query A { boats { id } }`);\n';
    const project = new TemporaryProject({
      ...base,
      "rhema.yaml": configured('["src/*.ts"]', "    tags: [harbour]\n"),
      "src/a.ts": text,
      "src/b.ts": text.replaceAll("fleetQueries", "otherQueries").replace("query A", "query B"),
    });
    expect(await project.run(["generate"])).toMatchObject({ code: 0, err: "" });
    expect([project.exists("src/sdk/fleet/calls/a.ts"), project.exists("src/sdk/fleet/calls/b.ts")]).toEqual([
      true,
      false,
    ]);
    expect(project.compile({}, ["src/a.ts"])).toBe("");
  });

  it("report a removed name that is still imported", async () => {
    const project = new TemporaryProject({
      ...base,
      "rhema.yaml": everywhere,
      "src/q.graphql": "query AllBoats { boats { id } } query Other { boats { id } }",
      "src/app.ts":
        'import { allBoats, type Other } from "./sdk/fleet/index.js";\nexport { allBoats };\nexport type X = typeof Other;\n',
    });
    expect((await project.run(["generate"])).code).toBe(0);
    project.write("src/q.graphql", "query EveryBoat { boats { id } } query Other { boats { id } }");
    const { err } = await project.run(["generate"]);
    expect(err).toMatch(/query\.vanished {2}src\/app\.ts:1:10\n {2}`allBoats` is no longer generated/);
    expect(err.match(/query\.vanished/g)).toHaveLength(1);
  });

  it("give an SDK also if part of the schema is invalid, with a report of what is missing", async () => {
    const project = new TemporaryProject({
      ...base,
      "rhema.yaml": everywhere,
      "schema.graphql": fleetSchema.replace("status: Status!", "status: Statuz!"),
      "src/q.graphql": "query All { boats { id } }",
    });
    const { code, out } = await project.run(["generate"]);
    expect(code).toBe(0);
    expect(out).toMatch(/Boat\.status[\s\S]*there is no type `Statuz`/);
    expect((await project.run(["generate", "--strict"])).code).toBe(1);
  });
});
