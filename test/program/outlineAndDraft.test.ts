import { spawnSync } from "node:child_process";
import { describe, expect, it } from "vitest";
import { programPath } from "../support/packageRoot.js";
import { demoProject, graphqlProject, restProject } from "../support/temporaryProject.js";

describe("outline", () => {
  const project = async (): Promise<ReturnType<typeof demoProject>> => {
    const demo = demoProject();
    await demo.run(["generate"]);
    return demo;
  };

  it("shows operations with their uses and locations, and advice for the contract's authors", async () => {
    const { code, out } = await (await project()).run(["outline", "berths"]);
    expect(code).toBe(0);
    expect(out.split("\n")[0]).toBe("outline: berths, REST 1.4.0: 15 operations, 3 used");
    expect(out).toMatch(/\* listBerths {2}GET \/berths\n.*\n {6}used at src\/berths\.ts:7:34/);
    expect(out).toContain("- removeBerth  DELETE /berths/{berthId}");
    expect(out).toMatch(/\* BerthStatus +an enum of 4 values/);
    expect(out).toContain("4 of 15 operations have no failure documented");
  });

  it("shows the fields of a schema's root types, with their query documents", async () => {
    const demo = await project();
    const { out } = await demo.run(["outline", "passages"]);
    expect(out).toMatch(/\* voyages\(filter: VoyageFilter, first: Int, after: String\): VoyageConnection!\n/);
    expect(out).toContain("used at queries/arrivals-today.graphql:3:3");
    expect(out).toContain("- cancelVoyage(id: ID!, reason: String): Voyage");
    const unused = (await demo.run(["outline", "passages", "--unused"])).out;
    expect(unused).toContain("cancelVoyage");
    expect(unused).not.toContain("voyages(");
  });

  it("finds by text, and shows one operation or type with everything that it reaches", async () => {
    const demo = await project();
    const found = (await demo.run(["outline", "--find", "tide"])).out;
    expect(found).toContain("tideTable");
    expect(found).not.toContain("listBerths");
    const about = (await demo.run(["outline", "--about", "reserveBerth"])).out;
    expect(about).toContain("outline: POST /berths/{berthId}/reservations  in berths, used 1 time");
    expect(about).toContain("header Idempotency-Key?: a string (maxLength 64)");
    expect(about).toMatch(/ReservationRequest\n {4}vesselId: a string/);
    expect(about).toMatch(/in TypeScript\n {4}await reserveBerth\(.*,\n {6}\S/);
    expect(Math.max(...about.split("\n").map((line) => line.length))).toBeLessThanOrEqual(80);
    const field = (await demo.run(["outline", "--about", "Query.weather"])).out;
    expect(field).toMatch(/returns Weather\n {2}in TypeScript\n {4}await \w+\(connection\);\n/);
    expect((await demo.run(["outline", "--about", "Voyage"])).out).toMatch(/\* eta: Instant\n/);
    const { code, err } = await demo.run(["outline", "--about", "reserveBirth"]);
    expect([code, err.includes("`reserveBerth`")]).toEqual([2, true]);
  });

  it("prints everything as JSON", async () => {
    const { contracts } = JSON.parse((await (await project()).run(["outline", "--json"])).out) as {
      contracts: { contract: string; groups: { entries: { label: string; use: string; places: string[] }[] }[] }[];
    };
    const [berths] = contracts;
    const entries = berths?.groups.flatMap(({ entries }) => entries) ?? [];
    expect(entries).toHaveLength(15);
    expect(entries.find(({ label }) => label === "GET /tides/{day}")).toMatchObject({
      use: "used",
      places: ["src/weather.ts:5:36"],
    });
  });

  it("ends without a message if its reader closes", () => {
    const demo = demoProject();
    const { stdout, stderr } = spawnSync(
      "/bin/sh",
      ["-c", `'${process.execPath}' '${programPath}' outline --json | head -n 1`],
      { cwd: demo.folder, encoding: "utf8" },
    );
    expect([stdout, stderr]).toEqual(["{\n", ""]);
  });

  it("prints no text of a hostile contract that could control a terminal", async () => {
    const evil = "\u001b[2J\u202ex";
    const demo = restProject({
      openapi: "3.1.0",
      info: { title: evil, version: "1" },
      paths: {
        "/a": { get: { operationId: "a", summary: evil, tags: [evil], responses: { 200: { description: "" } } } },
      },
    });
    const { code, out } = await demo.run(["outline"]);
    expect(code).toBe(0);

    expect(out).not.toMatch(/[\u001b\u202e]/);
  });
});

describe("draft", () => {
  it("writes a valid document for each root field, which compiles and is never overwritten", async () => {
    const demo = demoProject();
    demo.remove("queries");
    const { code, out } = await demo.run(["draft", "passages"]);
    expect([code, out.split("\n")[0]]).toEqual([0, "draft: 11 documents written to queries"]);
    expect(demo.read("queries/arrivals.graphql")).toMatch(/^subscription Arrivals\(\$port: ID\) \{/);
    expect((await demo.run(["generate"])).code).toBe(0);
    expect(demo.compile({}, ["src/sdk"])).toBe("");
    demo.write("queries/ports.graphql", "# mine\nquery Harbours { ports { id } }\n");
    const again = await demo.run(["draft", "passages", "ports"]);
    expect(again.out).toContain("skipped, the file exists");
    expect(demo.read("queries/ports.graphql")).toContain("# mine");
    expect((await demo.run(["draft", "passages", "voyages"])).out).toContain("skipped, already queried");
  });

  it("goes to the requested depth, stops at cycles, and shows the pattern for its folder", async () => {
    const project = graphqlProject(
      "type Query { port: Port } type Port { name: String ports: [Port!]! quay: Quay } type Quay { name: String port: Port crane: Crane } type Crane { lift: Int }",
      {},
    );
    expect((await project.run(["draft", "fleet", "--depth", "2", "--into", "drafts"])).out).toContain(
      'queries: ["drafts/**/*.graphql"]',
    );
    expect(project.read("drafts/port.graphql")).toBe(
      "query Port {\n  port {\n    name\n    quay {\n      name\n    }\n  }\n}\n",
    );
    await project.run(["draft", "fleet", "--depth", "3"]);
    expect(project.read("q/port.graphql")).toContain("crane {\n        lift");
  });

  it.each([
    [["draft", "fleet", "prot"], "draft.field"],
    [["draft", "fleet", "--depth", "0"], "option.value"],
    [["draft", "flet"], "sdk.unknown"],
    [["draft", "fleet", "--into", "../elsewhere"], "path.outside"],
  ])("reports what is wrong: %s", async (args, code) => {
    const project = graphqlProject("type Query { port: String }", {});
    const ran = await project.run(args);
    expect([ran.code, ran.err.includes(code)]).toEqual([2, true]);
  });
});
