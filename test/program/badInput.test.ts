import { createHash } from "node:crypto";
import { describe, expect, it } from "vitest";
import { RunningProcess } from "../support/runningProcess.js";
import { contractWith } from "../support/smallContract.js";
import { demoProject, graphqlProject, restProject, TemporaryProject } from "../support/temporaryProject.js";

const restConfig =
  "contracts:\n  api:\n    from: api.yaml\nsdks:\n  app:\n    language: typescript\n    covers: [api]\n    into: sdk\n";
const withConfig = (config: string) =>
  new TemporaryProject({ "rhema.yaml": config, "api.yaml": JSON.stringify(contractWith({ A: { type: "string" } })) });

describe("an invalid configuration ends with 2, the location and a suggestion", () => {
  it.each<[string, string, string[]]>([
    [
      "unknown key",
      restConfig.replace("into:", "intoo:"),
      ["rhema.yaml:8:5", "The key `intoo` is unknown.", "Did you mean `into`?", "8 |     intoo: sdk"],
    ],
    ["missing key", restConfig.replace("    into: sdk\n", ""), ["`app` needs the key `into`."]],
    [
      "unknown language",
      restConfig.replace("typescript", "typescrpt"),
      ["rhema.yaml:6:15", '`language` cannot be "typescrpt".', "Did you mean `typescript`?"],
    ],
    [
      "unknown contract",
      restConfig.replace("[api]", "[apo]"),
      ["rhema.yaml:7:14", "covers `apo`", "Did you mean `api`?"],
    ],
    ["wrong type", restConfig.replace("[api]", "api"), ["`covers` must be a list."]],
    [
      "a name that leaves the folder",
      restConfig.replace("  api:", "  ../api:"),
      ["`../api` is not a valid name.", "lower-case letters"],
    ],
    [
      "a text that is not written as it has to be",
      restConfig.replace("typescript", "swift").replace("into: sdk", 'into: sdk\n    settings: { prefix: "9x" }'),
      ['`prefix` cannot be "9x".', "It must match `^[A-Z][A-Za-z0-9]*$`, as `Harbour` does."],
    ],
    [
      "neither path nor command",
      restConfig.replace("from: api.yaml", "from: 5"),
      ["`from` must be a path, a URL, a list of those, or"],
    ],
    ...(
      [
        ["reakt", ['`views` cannot be "reakt".', "Did you mean `react`?"]],
        ["[react, jade]", ['`views` cannot be "jade".', "Use one of: angular, react, solid, svelte, vue."]],
        ["[vue, vue]", ["`views` contains a duplicate."]],
        ["{ vue: true }", ['`views` cannot be {"vue":true}.']],
      ] as [string, string[]][]
    ).map(([views, parts]): [string, string, string[]] => [
      `no framework in ${views}`,
      restConfig.replace("into: sdk", `into: sdk\n    settings: { views: ${views} }`),
      parts,
    ]),
    ["broken YAML", "contracts: [", ["config.unreadable", "rhema.yaml:1:13"]],
    ["empty", "", ["needs the key `contracts`"]],
    ["a list", "- a", ["must be a mapping with keys"]],
  ])("%s", async (_name, config, parts) => {
    const { code, out, err } = await withConfig(config).run(["generate"]);
    expect([code, out]).toEqual([2, ""]);
    for (const part of parts)
      expect(err.replaceAll("\n  ", " ").replaceAll("   ", " ")).toContain(part.replaceAll("   ", " "));
  });

  it("reports all errors in one run", async () => {
    const { err } = await withConfig(restConfig.replace("into:", "intoo:").replace("from:", "form:")).run(["generate"]);
    expect(err.match(/^error/gm)?.length).toBe(4);
  });

  it("there is no configuration, the file of --config does not exist, or it is in another folder", async () => {
    const project = new TemporaryProject();
    expect(await project.run(["generate"])).toMatchObject({ code: 2, out: "" });
    expect((await project.run(["generate"])).err).toContain("There is no rhema.yaml in this folder.");
    expect((await project.run(["--config", "x.yaml", "check"])).err).toContain("`x.yaml` does not exist");
    project.write("deep/other.yaml", restConfig);
    project.write("deep/api.yaml", JSON.stringify(contractWith({ A: { type: "string" } })));
    expect((await project.run(["--config", "deep/other.yaml", "generate"])).code).toBe(0);
    expect(project.exists("deep/sdk/README.md")).toBe(true);
  });

  it("warns about a secret in plain text and about keys without effect", async () => {
    const { code, err } = await withConfig(
      `${restConfig.replace("from: api.yaml", "from: api.yaml\n    headers: { authorization: Bearer abc }")}guard: { since: git:main }\n`,
    ).run(["generate"]);
    expect(code).toBe(0);
    expect(err).toContain("warning config.secret  rhema.yaml:4:16");
    expect(err).toContain("`headers` of `api` has no effect: it does not come from a URL");
    expect(err.split("-> ")[0]).not.toContain("Bearer abc\n  ");
  });
});

describe("a contract that cannot be read ends with 3", () => {
  it.each<[string, string, string]>([
    ["empty", "", "contract.empty"],
    ["malformed YAML", "openapi: 3.1.0\npaths: {", "api.yaml:2:9"],
    ["malformed JSON", '{ "openapi": "3.1.0", }}', "contract.syntax"],
    ["of neither kind", "hello: world", "neither an OpenAPI document nor"],
    ["of a version to come", "openapi: 4.0.0", "contract.version"],
  ])("because %s", async (_name, text, part) => {
    const { code, err } = await restProject(text).run(["generate"]);
    expect([code, err.includes(part)]).toEqual([3, true]);
  });

  it("because it is missing, with the location in the configuration", async () => {
    const { code, err } = await new TemporaryProject({ "rhema.yaml": restConfig }).run(["generate"]);
    expect(code).toBe(3);
    expect(err).toContain("error contract.missing  rhema.yaml:3:11");
  });

  it("because schema files have syntax errors, with the errors of each file", async () => {
    const project = graphqlProject("type Query { a: ", {});
    const { code, err } = await project.run(["generate"]);
    expect([code, err.includes("contract.syntax  schema.graphql:1:12")]).toEqual([3, true]);
  });

  it("because a schema contradicts itself", async () => {
    const { code, err } = await graphqlProject("type Query { a: Boat }", {}).run(["generate"]);
    expect([code, err.includes("graphql.schema  schema.graphql:1:17")]).toEqual([3, true]);
  });

  it("keeps an SDK that was written before", async () => {
    const project = demoProject();
    await project.run(["generate"]);
    const before = project.tree("src/sdk");
    project.write("contracts/berths.yaml", "");
    expect((await project.run(["generate"])).code).toBe(3);
    expect(project.tree("src/sdk")).toEqual(before);
  });
});

describe("a contract with invalid parts ends with 0, and the rest is complete", () => {
  it("a cycle of definitions and a reference that does not resolve", async () => {
    const project = restProject(
      contractWith({
        A: { $ref: "#/components/schemas/B" },
        B: { $ref: "#/components/schemas/A" },
        C: { $ref: "#/components/schemas/None" },
        Good: { type: "string" },
      }),
    );
    const { code, out } = await project.run(["generate"]);
    expect(code).toBe(0);
    expect(out).toContain("api: 3 parts skipped and not in the SDK, because the contract is not valid there");
    for (const part of [
      /GET \/s\/A contract\.cycle api\.yaml:1:\d+ `A` is only an alias of itself\./,
      /GET \/s\/C contract\.reference api\.yaml:1:\d+ The reference `#\/components\/schemas\/None` does not resolve\./,
    ])
      expect(out.replace(/\s+/g, " ")).toMatch(part);
    expect(project.compile()).toBe("");
  });
});

describe("query documents", () => {
  it("anonymous, duplicate and misspelled ones have their own messages; a pattern without files is not an error", async () => {
    const project = graphqlProject("type Query { boat: Int }", {
      "boat-list": "{ boat }",
      a: "query Same { boat }",
      b: "query Same { boat }",
    });
    const { code, err } = await project.run(["generate"]);
    expect(code).toBe(1);
    expect(err).toContain("This query has no name.");
    expect(err).toContain("-> Write `query BoatList`.");
    expect(err).toContain("Two operations are named `Same`.");
    expect(err).toMatch(/q\/a\.graphql:1:7[\s\S]*and q\/b\.graphql:1:7/);
    const none = await graphqlProject("type Query { boat: Int }", {}).run(["generate"]);
    expect(none.code).toBe(0);
    expect(none.err).toContain("No query document of `fleet` matches `q/**/*.graphql`.");
  });
});

describe("wrong usage ends with 2", () => {
  it.each([
    [["generate", "borad"], "There is no SDK named `borad`."],
    [["impact", "berth"], "Did you mean `berths`?"],
    [["play", "nothing"], "There is no contract named `nothing`."],
    [["play", "--port", "x"], "--port must be a whole number"],
    [["generat"], "unknown command"],
    [["generate", "--nope"], "unknown option"],
    [["impact", "--before", "x.yaml"], "several are configured"],
    [["impact", "berths", "--before", "x.yaml"], "There is no contract file `x.yaml`."],
    [["impact", "berths", "--before", "contracts/passages.graphql"], "They cannot be compared"],
  ])("%j", async (args, part) => {
    const { code, err } = await demoProject().run(args);
    expect(code).toBe(part.includes("contract file") ? 3 : 2);
    expect(err.replaceAll("\n  ", " ")).toContain(part);
  });

  it("--help and --version end with 0", async () => {
    const project = new TemporaryProject();
    expect(await project.run(["--version"])).toMatchObject({ code: 0, out: "0.1.0\n" });
    const help = await project.run(["--help"]);
    expect(help.code).toBe(0);
    for (const command of ["generate", "check", "impact", "play", "demo"]) expect(help.out).toContain(command);
  });
});

describe("an internal error", () => {
  it("is reported as one, without source text of the program, also outside the command", () => {
    const project = demoProject();
    project.write("fails.mjs", 'process.once("beforeExit", () => { throw new Error("made up"); });\n');
    const { code, err } = project.runProcess(["outline"], { NODE_OPTIONS: "--import=./fails.mjs" });
    expect([code, err.includes("Internal error: a bug in Rhema"), err.includes("Error: made up")]).toEqual([
      70,
      true,
      true,
    ]);
    expect(Math.max(...err.split("\n").map((line) => line.length))).toBeLessThan(300);
  });
});

describe("outputs that could lose work", () => {
  it.each(["../victim.txt", "/etc/x", "a/../../victim.txt", "..\\victim.txt", "C:/x", ".git/config", ""])(
    "a ledger that names %j is refused, and nothing is removed",
    async (path) => {
      const project = demoProject();
      await project.run(["generate"]);
      project.write("src/victim.txt", "mine");
      const ledger = JSON.parse(project.read(".rhema/ledger.json")) as { sdks: Record<string, { files: object }> };
      Object.assign(ledger.sdks["quay-board"]!.files, {
        [path]: createHash("sha256").update("mine").digest("hex"),
      });
      project.write(".rhema/ledger.json", JSON.stringify(ledger));
      project.write("rhema.yaml", `${project.read("rhema.yaml")}\n`);
      const { code, err } = await project.run(["generate", "--force"]);
      expect([code, err.includes("state.unreadable"), project.read("src/victim.txt")]).toEqual([2, true, "mine"]);
    },
  );

  it.each([".git/x", ".rhema", "src/.GIT/x", "node_modules/x", '"a\\0b"'])(
    "an SDK is not written to %s",
    async (into) => {
      const project = restProject(contractWith({ A: { type: "string" } }));
      project.write("rhema.yaml", project.read("rhema.yaml").replace("src/sdk", into));
      const { code, err } = await project.run(["generate"]);
      expect([code, err.includes("config.invalid")]).toEqual([2, true]);
    },
  );

  it.each(["src/SDK", "src/sdk/inner", "src", "./src//sdk/"])(
    "two SDKs are not written to src/sdk and %s",
    async (into) => {
      const project = restProject(contractWith({ A: { type: "string" } }));
      project.write(
        "rhema.yaml",
        `${project.read("rhema.yaml")}  other: { language: typescript, covers: [api], into: ${into} }\n`,
      );
      const { code, err } = await project.run(["generate"]);
      expect([
        code,
        err.replace(/\s+/g, " ").includes("have the same output folder, or one is inside the other"),
      ]).toEqual([2, true]);
    },
  );

  it("a tag of 260 characters gives a shorter file name", async () => {
    const tagged = (tag: string) => ({ get: { tags: [tag], operationId: `a${String(tag.length)}`, responses: {} } });
    const project = restProject(contractWith({}, { "/a": tagged("x".repeat(260)), "/b": tagged("x".repeat(261)) }));
    expect((await project.run(["generate"])).code).toBe(0);
    const files = Object.keys(project.tree("src/sdk/api/calls")).filter((path) => path.endsWith(".ts"));
    expect(files).toHaveLength(2);
    expect(project.compile()).toBe("");
  });

  it("two runs at once leave one complete SDK", async () => {
    const project = demoProject();
    const runs = ["a", "b", "c"].map(() => new RunningProcess(project, ["generate"]).ended);
    for (const { code, err } of await Promise.all(runs)) expect([code, err.includes("defect")]).toEqual([0, false]);
    expect((await project.run(["check"])).code).toBe(0);
    expect(project.exists(".rhema/lock")).toBe(false);
  });
});
