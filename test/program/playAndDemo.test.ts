import { execFileSync, spawnSync } from "node:child_process";
import { existsSync, rmSync, symlinkSync } from "node:fs";
import { createServer } from "node:net";
import type { AddressInfo } from "node:net";
import { join } from "node:path";
import { describe, expect, it } from "vitest";
import { contractWith } from "../support/smallContract.js";
import { packageRoot, programPath } from "../support/packageRoot.js";
import { RunningProcess } from "../support/runningProcess.js";
import { runNode } from "../support/runNode.js";
import { demoProject, playedAt, restProject, TemporaryProject } from "../support/temporaryProject.js";
import { until } from "../support/until.js";

const compiler = join(packageRoot, "node_modules/typescript/lib/tsc.js");

describe("play", () => {
  it("serves what a generated SDK asks: every call of the demo, checked by the types it promises", async () => {
    const project = demoProject();
    await project.run(["generate"]);
    const pages = Object.entries(project.tree("src/sdk"))
      .filter(([path]) => path.endsWith(".md"))
      .map(([, text]) => text)
      .join("\n");
    const samples = [...pages.matchAll(/```ts\n(await \w+[\s\S]*?)```/g)].map(([, text = ""]) => text.trim());
    // What is removed is gone, so that comes last.
    samples.sort((a, b) => Number(/^await (remove|cancel)/.test(a)) - Number(/^await (remove|cancel)/.test(b)));
    const address = await project.play();
    const lines = samples.map((sample) => {
      const [, call = "", args = ""] = /^await (\w+)\(connection(.*)\);$/s.exec(sample) ?? [];
      return `try { const answer = await (berthCalls[${JSON.stringify(call)}] ?? passageCalls[${JSON.stringify(call)}])(${args.replace(/^, /, "")}); console.log(JSON.stringify({ call: ${JSON.stringify(call)}, ok: true, kind: typeof answer })); } catch (error) { console.log(JSON.stringify({ call: ${JSON.stringify(call)}, ok: false, message: error.message, body: error.body })); }`;
    });
    project.write(
      "src/every.mts",
      `import { berthsCalls } from "./sdk/berths/grouped.js";\nimport { connectBerths } from "./sdk/berths/index.js";\nimport { passagesCalls } from "./sdk/passages/grouped.js";\nimport { connectPassages } from "./sdk/passages/index.js";\nconst berthCalls: any = berthsCalls(connectBerths({ baseUrl: "${address}/berths", auth: { harbourToken: "any" } }));\nconst passageCalls: any = passagesCalls(connectPassages({ baseUrl: "${address}/passages" }));\n${lines.join("\n").replaceAll("error.message", "(error as any).message").replaceAll("error.body", "(error as any).body")}\n`,
    );
    await runNode(project.folder, [compiler, "-p", "."]);
    const stdout = await runNode(project.folder, ["built/every.mjs"]);
    const results = stdout
      .trim()
      .split("\n")
      .map((line) => JSON.parse(line) as { call: string; ok: boolean; message?: string; body?: unknown });
    // The sample of a merge patch is an empty object, which the contract itself forbids; everything else succeeds.
    expect(
      results
        .filter((each) => !each.ok)
        .map((each) => [each.call, JSON.stringify(each.body).includes("must NOT have fewer than 1 properties")]),
    ).toEqual([["changeBerth", true]]);
    expect(results).toHaveLength(15 + 8);
  });

  it("plays what is saved, from the moment it says where it plays", async () => {
    const contractOf = (path: string): string =>
      JSON.stringify({
        ...contractWith({}),
        paths: { [path]: { get: { responses: { 204: { description: "Done." } } } } },
      });
    const project = restProject(contractOf("/quay"));
    const address = await project.play();
    const statusOf = async (path: string): Promise<number> => (await fetch(`${address}/api${path}`)).status;
    for (const path of ["/berths", "/tides"]) {
      project.write("api.yaml", contractOf(path));
      await until(async () => (await statusOf(path)) === 204);
      expect([await statusOf(path), await statusOf("/quay")]).toEqual([204, 404]);
    }
  });

  it("says where it plays, ends on a signal, and names a port that is taken", async () => {
    const project = demoProject();
    const playing = new RunningProcess(project, ["--json", "--quiet", "play", "--port", "0", "berths"]);
    const [, address = ""] = playedAt.exec(await playing.says(playedAt)) ?? [];
    expect(await (await fetch(address)).json()).toEqual({
      playing: [{ contract: "berths", protocol: "rest", at: "/berths" }],
    });
    const blocker = createServer();
    await new Promise<void>((resolve) => blocker.listen(0, "127.0.0.1", resolve));
    const { port } = blocker.address() as AddressInfo;
    const { code, err } = await project.run(["play", "--port", String(port)]);
    blocker.close();
    expect(code).toBe(2);
    expect(err).toContain("another program listens there");
    expect(await playing.ends()).toBe(0);
  });
});

describe("the demo", () => {
  it("plays the whole flow with the real commands and leaves the folder", () => {
    const { code, out, err } = new TemporaryProject().runProcess(["demo"]);
    expect([code, err]).toEqual([0, ""]);
    for (const text of [
      "generate: quay-board written",
      "already up to date",
      "impact: ",
      "held back, see the 4 errors above",
      "check: 1 SDK up to date",
      "ARRIVALS",
      "reserved N-07",
    ])
      expect(out).toContain(text);
    const folder = /cd (\S+)\s*$/.exec(out)?.[1] ?? "";
    expect(existsSync(join(folder, "src/sdk/README.md"))).toBe(true);
    rmSync(folder, { recursive: true });
  });
});

describe("the package", () => {
  it("holds what it needs, installs its program, and runs from elsewhere", () => {
    const project = new TemporaryProject();
    const listed = JSON.parse(
      execFileSync("npm", ["pack", "--json", "--ignore-scripts", "--pack-destination", project.folder], {
        cwd: packageRoot,
        encoding: "utf8",
      }),
    ) as { filename: string; files: { path: string }[] }[];
    const paths = listed[0]?.files.map(({ path }) => path) ?? [];
    for (const path of [
      "dist/cli/main.js",
      "dist/core/index.js",
      "dist/types/core/index.d.ts",
      "runtimes/typescript/wire/send.ts",
      "schema/rhema.schema.json",
      "demo/app/rhema.yaml",
      "demo/contracts/v2/berths.yaml",
    ])
      expect(paths).toContain(path);
    expect(paths.filter((path) => /^(test|src|bench|scripts)\//.test(path))).toEqual([]);
    execFileSync("tar", ["-xzf", listed[0]?.filename ?? "", "-C", project.folder], { cwd: project.folder });
    project.write("app/contract.graphql", "type Query { a: Int }");
    project.write(
      "app/rhema.yaml",
      "contracts: { c: { from: contract.graphql, queries: [q.graphql] } }\nsdks: { s: { language: typescript, covers: [c], into: sdk } }\n",
    );
    project.write("app/q.graphql", "query Q { a }");
    const { status, stderr } = spawnSync(process.execPath, [project.path("package/dist/cli/main.js"), "generate"], {
      cwd: project.path("app"),
      encoding: "utf8",
    });
    expect([status, stderr]).toEqual([0, ""]);
    expect(project.exists("app/sdk/c/calls/q.ts")).toBe(true);
    // The demo runs the real commands: when one of them fails, so does the demo.
    symlinkSync(join(packageRoot, "node_modules"), project.path("package/node_modules"));
    project.write("package/demo/contracts/v1/berths.yaml", "openapi: 3.1.0\npaths: {");
    const broken = spawnSync(process.execPath, [project.path("package/dist/cli/main.js"), "demo"], {
      encoding: "utf8",
    });
    expect([broken.status, broken.stderr]).toEqual([
      1,
      expect.stringContaining("`rhema generate` ended with 3; the demo expected 0."),
    ]);
  });

  it("offers the core as a library without touching the console", async () => {
    const core = (await import(join(packageRoot, "dist/core/index.js"))) as typeof import("../../src/core/index.js");
    const { contract } = core.readContract("c", [{ document: "c.graphql", text: "type Query { a: Int }" }]);
    expect(contract?.protocol).toBe("graphql");
    expect(existsSync(programPath)).toBe(true);
  });
});
