import { describe, expect, it } from "vitest";
import { demoProject, TemporaryProject } from "../support/temporaryProject.js";

describe("RHEMA_DEBUG", () => {
  it("prints each step with its time and the files that were read, on standard error only", async () => {
    const project = demoProject();
    const { code, out, err } = await project.run(["--json", "generate"], { RHEMA_DEBUG: "1" });
    expect([code, (JSON.parse(out) as { exitCode: number }).exitCode]).toEqual([0, 0]);
    const lines = err.split("\n").filter((line) => line.startsWith("debug: "));
    expect(lines.every((line) => /^debug: +\d+\.\d ms +\d+\.\d ms {2}\S/.test(line))).toBe(true);
    for (const step of [
      `read the configuration ${project.path("rhema.yaml")}`,
      "read contracts/berths.yaml (",
      "files with queries of passages: queries/**/*.graphql",
      "planned 15 calls of berths",
      "for the SDK quay-board",
      "ended with exit code 0",
    ])
      expect(err).toContain(step);
    const again = await project.run(["generate"], { RHEMA_DEBUG: "1" });
    expect(again.err).toContain("knew the SDK quay-board as up to date by its hashes");
    expect((await project.run(["generate"], { RHEMA_DEBUG: "0" })).err).not.toContain("debug:");
  });

  it("prints locations in the sources if there is an internal error", () => {
    const project = new TemporaryProject({
      "rhema.yaml":
        "contracts: { c: { from: c.graphql } }\nsdks: { s: { language: typescript, covers: [c], into: sdk } }\n",
      "c.graphql": "type Query { a: Int }",
      "fails.mjs": 'JSON.stringify = () => { throw new Error("planted"); };',
    });
    const { code, err } = project.runProcess(["outline", "--json"], {
      RHEMA_DEBUG: "1",
      NODE_OPTIONS: `--import=${project.path("fails.mjs")}`,
    });
    expect(code).toBe(70);
    expect(err).toMatch(/src\/cli\/\w+\.ts:\d+:\d+/);
  });
});
