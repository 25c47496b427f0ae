import { cpSync } from "node:fs";
import { join } from "node:path";
import { beforeAll, describe, expect, it } from "vitest";
import { packageRoot } from "../support/packageRoot.js";
import { demoProject, graphqlProject, type TemporaryProject } from "../support/temporaryProject.js";

interface Sarif {
  readonly version: string;
  readonly runs: {
    readonly tool: { readonly driver: { readonly name: string; readonly rules: { readonly id: string }[] } };
    readonly results: {
      readonly ruleId: string;
      readonly ruleIndex: number;
      readonly level: string;
      readonly message: { readonly text: string };
      readonly locations?: {
        readonly physicalLocation: {
          readonly artifactLocation: { readonly uri: string };
          readonly region: { readonly startLine: number };
        };
      }[];
    }[];
  }[];
}

/** The reports about the demo's second version, stored because each takes a run. */
const said = new Map<string, { code: number | null; out: string }>();
let project: TemporaryProject;
beforeAll(async () => {
  project = demoProject();
  await project.run(["generate"]);
  cpSync(join(packageRoot, "demo/contracts/v2"), project.path("contracts"), { recursive: true });
  for (const form of ["text", "markdown", "sarif", "junit", "annotations"]) {
    const { code, out } = await project.run(["impact", "--report", form]);
    said.set(form, { code, out });
  }
});
const outOf = (form: string): string => said.get(form)?.out ?? "";

describe("impact reports for machines and for review", () => {
  it("all end with the same exit code as the text report", () => {
    expect([...said.values()].map(({ code }) => code)).toEqual([1, 1, 1, 1, 1]);
  });

  it("SARIF: a rule for every code, a result for every location", () => {
    const { version, runs } = JSON.parse(outOf("sarif")) as Sarif;
    expect([version, runs.length, runs[0]?.tool.driver.name]).toEqual(["2.1.0", 1, "Rhema"]);
    const { tool, results } = runs[0] ?? { tool: { driver: { rules: [] } }, results: [] };
    for (const { ruleId, ruleIndex, message } of results) {
      expect(tool.driver.rules[ruleIndex]?.id).toBe(ruleId);
      expect(message.text).not.toBe("");
    }
    const held = results.filter(({ level }) => level === "error");
    expect(held.length).toBeGreaterThan(3);
    const places = held.flatMap(({ locations = [] }) => locations.map(({ physicalLocation }) => physicalLocation));
    expect(places.map(({ artifactLocation }) => artifactLocation.uri)).toContain("queries/voyage-line.graphql");
    for (const { region } of places) expect(region.startLine).toBeGreaterThan(0);
  });

  it("JUnit: a suite for each contract, whose counts match its cases", () => {
    const suites = [
      ...outOf("junit").matchAll(/<testsuite name="([^"]+)" tests="(\d+)" failures="(\d+)">([\s\S]*?)<\/testsuite>/g),
    ];
    expect(suites.map(([, name]) => name)).toEqual(["berths", "passages"]);
    for (const [, , tests, failures, inside = ""] of suites) {
      expect(inside.match(/<testcase /g)).toHaveLength(Number(tests));
      expect(inside.match(/<failure /g) ?? []).toHaveLength(Number(failures));
    }
  });

  it("annotations: an error or a warning at each location, as a workflow command", () => {
    const lines = outOf("annotations").trim().split("\n");
    for (const line of lines)
      expect(line).toMatch(/^::(?:error|warning) (?:file=[^,:]+,line=\d+,col=\d+,)?title=[\w.-]+::./);
    expect(lines.some((line) => line.startsWith("::error file=queries/"))).toBe(true);
  });

  it("Markdown: breaking changes first, the rest folded, and no text of a contract can change the page", async () => {
    expect(outOf("markdown")).toMatch(
      /^## impact: \d+ of \d+ changes can break this project, \d queries refused\n\n\| in use, of all \|[^]*?\n\n- 3 of 3: [^]*?\n\n### berths: 1\.4\.0 to /,
    );
    expect(outOf("markdown")).toMatch(/- \*\*breaking\*\* [\s\S]*<details><summary>\d+ other changes?<\/summary>/);
    expect(outOf("markdown")).toContain("`queries/voyage-line.graphql:");
    const hostile = graphqlProject('enum E { A } type Query { a: E "<img src=x> @everyone" b: Int }', {
      q: "query Q { a b }",
    });
    await hostile.run(["generate"]);
    hostile.write("schema.graphql", "enum E { A B } type Query { a: E }");
    const { out } = await hostile.run(["impact", "--report", "markdown"]);
    expect(out.replace(/<\/?(?:details|summary)>/g, "").replace(/`[^`]*`/g, "")).not.toMatch(/<|(?<!\\)@/);
  });

  it("say only that nothing changed if nothing did", async () => {
    const same = graphqlProject("type Query { a: Int }", { q: "query Q { a }" });
    await same.run(["generate"]);
    expect((await same.run(["impact", "--report", "junit"])).out).toContain('tests="1" failures="0"');
    expect((await same.run(["impact", "--report", "annotations"])).out.trim()).toBe("");
    expect((await same.run(["impact", "--report", "poem"])).code).toBe(2);
  });
});
