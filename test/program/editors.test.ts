import { mkdirSync, symlinkSync } from "node:fs";
import { parse } from "yaml";
import { describe, expect, it } from "vitest";
import { packageRoot } from "../support/packageRoot.js";
import { fleetSchema } from "../support/readGraphql.js";
import { demoProject, TemporaryProject } from "../support/temporaryProject.js";

const path = ".graphqlrc.yml";
const config = (more = "", settings = ""): string =>
  `editors: true\ncontracts:\n  fleet:\n    from: schema.graphql\n    queries: ["src/**/*.{graphql,tsx}"]\n${more}sdks:\n  app: { language: typescript, covers: [fleet], into: src/sdk${settings} }\n`;

function project(rhema = config()): TemporaryProject {
  return new TemporaryProject({
    "rhema.yaml": rhema,
    "schema.graphql": fleetSchema,
    "src/all.graphql": "query All { boats { id } }",
  });
}

describe("the editor file", () => {
  it("names the schema and the query documents, and follows the configuration", async () => {
    const made = project();
    expect((await made.run(["generate"])).out).toContain(`${path}  written`);
    expect(parse(made.read(path))).toEqual({ schema: ["schema.graphql"], documents: ["src/**/*.{graphql,tsx}"] });
    expect(await made.run(["check"])).toMatchObject({ code: 0 });
    expect((await made.run(["generate"])).out).not.toContain(path);

    made.write("schemas/fleet.graphql", fleetSchema);
    made.write("rhema.yaml", config().replace("from: schema.graphql", "from: schemas"));
    const { code, err } = await made.run(["check"]);
    expect([code, err.replace(/\s+/g, " ")]).toEqual([1, expect.stringContaining(`\`${path}\` is out of date`)]);
    expect((await made.run(["generate", "--dry-run"])).out).toContain(`${path}  would be written`);
    const said = JSON.parse((await made.run(["--json", "generate"])).out) as { editors: string };
    expect(said.editors).toBe("written");
    expect(parse(made.read(path))).toMatchObject({ schema: ["schemas/**/*.{graphql,gql,graphqls}"] });

    made.write("rhema.yaml", config().replace("editors: true\n", ""));
    expect((await made.run(["generate"])).out).toContain(`${path}  removed`);
    expect([made.exists(path), (await made.run(["check"])).code]).toEqual([false, 0]);
  });

  it("has a part for each of several contracts, with copies of remote ones outside the SDK", async () => {
    const url = await demoProject().play();
    const made = project(
      config(
        `  passages:\n    from: ${url}/passages\n  berths:\n    from: api.json\n`,
        ", settings: { schema: true }",
      ).replace("covers: [fleet]", "covers: [fleet, passages, berths]"),
    );
    made.write("api.json", JSON.stringify({ openapi: "3.1.0", info: { title: "B", version: "1" }, paths: {} }));
    expect((await made.run(["generate"])).err).toBe("");
    const { projects } = parse(made.read(path)) as {
      projects: Record<string, { schema: string[]; documents?: string[] }>;
    };
    expect(Object.keys(projects)).toEqual(["fleet", "passages"]);
    expect(projects["fleet"]?.documents).toEqual(["src/**/*.{graphql,tsx}", "!src/sdk/**"]);
    const [copy = ""] = projects["passages"]?.schema ?? [];
    expect(copy).toMatch(/^\.rhema\/copies\/passages\/.*\.graphql$/);
    expect(made.read(copy)).toContain("type Query");
  });

  it("is offered by init, which also names the configuration's schema for editors", async () => {
    const made = new TemporaryProject({ "package.json": "{}", "schema.graphql": fleetSchema });
    mkdirSync(made.path("node_modules"));
    symlinkSync(packageRoot, made.path("node_modules/rhema"));
    expect((await made.run(["init", "--yes"])).code).toBe(0);
    const [, schema = ""] = /^# yaml-language-server: \$schema=(.*)$/m.exec(made.read("rhema.yaml")) ?? [];
    expect((JSON.parse(made.read(schema)) as { properties: object }).properties).toHaveProperty("editors");
    made.write("rhema.yaml", made.read("rhema.yaml").replace("# editors: true", "editors: true"));
    await made.run(["generate"]);
    expect(parse(made.read(path))).toMatchObject({ schema: ["schema.graphql"] });
  });

  it("gets a note that it has no effect if no contract is a GraphQL schema", async () => {
    const made = new TemporaryProject({
      "rhema.yaml":
        "editors: true\ncontracts: { berths: { from: api.json } }\nsdks: { app: { language: typescript, covers: [berths], into: src/sdk } }\n",
      "api.json": JSON.stringify({ openapi: "3.1.0", info: { title: "B", version: "1" }, paths: {} }),
    });
    const { code, err } = await made.run(["generate"]);
    expect([code, made.exists(path)]).toEqual([0, false]);
    expect(err).toMatch(/config\.ineffective {2}rhema\.yaml:1:/);
  });

  it("is not changed if it was edited or is not from Rhema", async () => {
    const made = project();
    made.write(path, "schema: mine.graphql\n");
    const foreign = await made.run(["generate", "--force"]);
    expect([foreign.code, made.read(path), made.exists("src/sdk/README.md")]).toEqual([
      1,
      "schema: mine.graphql\n",
      true,
    ]);
    expect(foreign.err).toContain("output.foreign");
    made.remove(path);
    mkdirSync(made.path(path));
    expect((await made.run(["generate", "--force"])).err).toContain("output.foreign");
    made.remove(path);
    await made.run(["generate"]);
    made.write(path, `${made.read(path)}# mine\n`);
    const edited = await made.run(["generate"]);
    expect([edited.code, edited.err.includes("output.edited"), made.read(path).includes("# mine")]).toEqual([
      1,
      true,
      true,
    ]);
    expect((await made.run(["generate", "--force"])).code).toBe(0);
    expect(made.read(path)).not.toContain("# mine");
  });
});
