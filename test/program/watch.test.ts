import { mkdirSync, rmSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { describe, expect, it } from "vitest";
import { contractWith } from "../support/smallContract.js";
import { RunningProcess } from "../support/runningProcess.js";
import { demoProject, graphqlProject, restProject } from "../support/temporaryProject.js";
import { until } from "../support/until.js";

const ready = "waiting for a save";
const contract = (fields: Record<string, unknown>) =>
  JSON.stringify(contractWith({ Berth: { type: "object", properties: fields } }), null, 2);
const text = { type: "string" };

describe("watch", () => {
  it("generates changes on each save, shows what breaks in two lines, and ends on a signal", async () => {
    const project = demoProject();
    const watching = new RunningProcess(project, ["watch"]);
    await watching.says(ready);
    const before = project.tree("src/sdk");
    const from = watching.out.length;
    project.write(
      "contracts/berths.yaml",
      project.read("contracts/berths.yaml").replace("        note: { type: string,", "        notes: { type: string,"),
    );
    const said = await watching.says(
      /watch: contracts\/berths\.yaml saved, quay-board \d+ files? written in \d+ ms\n.*\n/,
      from,
    );
    expect(said.trim().split("\n")).toHaveLength(2);
    expect(said).toContain("`Berth.note` was removed. It may have been renamed to `notes`.  src/");
    const after = project.tree("src/sdk");
    expect(after["berths/shapes.ts"]).toContain("notes?: string");
    const changed = Object.keys(after).filter((path) => after[path] !== before[path]);
    expect(changed.length).toBeGreaterThan(0);
    expect(changed.every((path) => !path.startsWith("passages/"))).toBe(true);
    expect(await watching.ends()).toBe(0);
  });

  it("keeps the last good output on an invalid or partial save, and continues with the next good one", async () => {
    const project = restProject(contract({ id: text, size: { type: "integer", format: "int64" } }));
    const watching = project.start(["watch"]);
    await watching.says(ready);
    const good = project.tree("src/sdk");
    project.write("api.yaml", '{ "openapi": "3.1.0", "paths": [');
    await watching.says("cannot be read, the SDK stays unchanged");
    expect(project.tree("src/sdk")).toEqual(good);
    const from = watching.out.length;
    project.write("api.yaml", contract({ id: text, quay: text, size: { type: "integer", format: "int64" } }));
    await watching.says("written in", from);
    expect(project.read("src/sdk/api/shapes.ts")).toContain("quay?: string");
    // Earlier problems are not repeated.
    expect(watching.err.split("contract.integers")).toHaveLength(2);
  });

  it("continues after an invalid ledger, as a merge may leave it", async () => {
    const project = restProject(contract({ id: text }));
    const watching = project.start(["watch"]);
    await watching.says(ready);
    const ledger = project.read(".rhema/ledger.json");
    project.write(".rhema/ledger.json", `<<<<<<< ours\n${ledger}`);
    project.write("api.yaml", contract({ id: text, quay: text }));
    await watching.says("cannot be read, the SDK stays unchanged");
    expect(watching.err).toContain("The ledger `.rhema/ledger.json` cannot be read.");
    project.write(".rhema/ledger.json", ledger);
    project.write("api.yaml", contract({ id: text, depth: text }));
    await watching.says(/api\.yaml saved, app \d+ files? written/);
    expect(project.read("src/sdk/api/shapes.ts")).toContain("depth?: string");
    expect(await watching.ends()).toBe(0);
  });

  it("survives many fast saves, and ends with the last one", async () => {
    const project = restProject(contract({ id: text }));
    const watching = project.start(["watch"]);
    await watching.says(ready);
    for (let count = 1; count <= 200; count++) {
      const whole = contract({ [`field${String(count)}`]: text });
      // Every third save is cut off in the middle.
      writeFileSync(
        project.path("api.yaml"),
        count % 3 === 0 && count < 200 ? whole.slice(0, whole.length / 2) : whole,
      );
      if (count % 10 === 0) await new Promise((resolve) => setTimeout(resolve, 15));
    }
    await until(() => project.read("src/sdk/api/shapes.ts").includes("field200"));
    expect(project.read("src/sdk/api/shapes.ts")).toContain("field200?: string");
    expect(watching.err).not.toContain("defect");
    expect(await watching.ends()).toBe(0);
    expect((await project.run(["check"])).code).toBe(0);
  });

  it("handles a thousand files at once, and continues after their folder was removed and restored", async () => {
    const project = graphqlProject("type Query { port: String tide: Float }", { one: "query One { port }" });
    const watching = project.start(["watch"]);
    await watching.says(ready);
    let from = watching.out.length;
    for (let count = 0; count < 1000; count++)
      writeFileSync(project.path(`q/many${String(count)}.graphql`), `query Many${String(count)} { tide }\n`);
    await until(() => project.exists("src/sdk/fleet/calls/many999.ts"));
    expect(Object.keys(project.tree("src/sdk/fleet/calls")).filter((path) => path.endsWith(".ts"))).toHaveLength(1001);
    await watching.says("written in", from);
    from = watching.out.length;
    rmSync(project.path("q"), { recursive: true });
    await watching.says("watch: ", from);
    await until(() => !project.exists("src/sdk/fleet/calls/one.ts"));
    mkdirSync(project.path("q"));
    writeFileSync(join(project.path("q"), "back.graphql"), "query Back { port }\n");
    await until(() => project.exists("src/sdk/fleet/calls/back.ts"));
    expect(project.exists("src/sdk/fleet/calls/back.ts")).toBe(true);
    expect(watching.err).not.toContain("defect");
  });

  it("runs the stand-in server in the same process, with the contract as it was saved last", async () => {
    const project = restProject(contract({ id: text }));
    const watching = project.start(["watch", "--play", "--port", "0"]);
    const address =
      /(http:\/\/127\.0\.0\.1:\d+)\/api/.exec(await watching.says(/http:\/\/127\.0\.0\.1:\d+\/api/))?.[1] ?? "";
    expect((await fetch(`${address}/api/s/Berth`)).status).toBe(200);
    project.write("api.yaml", contract({ id: text }).replace("/s/Berth", "/s/Mooring"));
    await watching.says("written in");
    await until(async () => (await fetch(`${address}/api/s/Mooring`)).status === 200);
    expect((await fetch(`${address}/api/s/Berth`)).status).toBe(404);
  });

  it("ends if the port of --play is in use", async () => {
    const project = restProject(contract({ id: text }));
    const address = await project.play();
    const { code, err } = await project.run(["watch", "--play", "--port", new URL(address).port]);
    expect([code, err.includes("the port is in use")]).toEqual([2, true]);
  });

  it("watches a new contract as soon as the configuration names it, and reports an invalid configuration", async () => {
    const project = restProject(contract({ id: text }));
    const watching = project.start(["watch"]);
    await watching.says(ready);
    project.write("rhema.yaml", "contracts: [");
    await watching.says("cannot be read");
    project.write("other/tides.yaml", contract({ high: text }));
    project.write(
      "rhema.yaml",
      "contracts:\n  api: { from: api.yaml }\n  tides: { from: other/tides.yaml }\nsdks:\n  app: { language: typescript, covers: [api, tides], into: src/sdk }\n",
    );
    await until(() => project.exists("src/sdk/tides/shapes.ts"));
    // At this moment the new contract is read, but not watched yet.
    const from = watching.out.length;
    project.write("other/tides.yaml", contract({ high: text, low: text }));
    await watching.says("other/tides.yaml saved", from);
    expect(project.read("src/sdk/tides/shapes.ts")).toContain("low?: string");
  });
});
