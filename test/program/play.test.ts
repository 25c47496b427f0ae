import { createServer } from "node:net";
import type { AddressInfo } from "node:net";
import { join } from "node:path";
import { describe, expect, it } from "vitest";
import { contractWith } from "../support/smallContract.js";
import { packageRoot } from "../support/packageRoot.js";
import { RunningProcess } from "../support/runningProcess.js";
import { runNode } from "../support/runNode.js";
import { demoProject, playedAt, restProject } from "../support/temporaryProject.js";
import { until } from "../support/until.js";

const compiler = join(packageRoot, "node_modules/typescript/lib/tsc.js");

describe("play", () => {
  it("serves every call of the demo, with responses that have the promised types", async () => {
    const project = demoProject();
    await project.run(["generate"]);
    const pages = Object.entries(project.tree("src/sdk"))
      .filter(([path]) => path.endsWith(".md"))
      .map(([, text]) => text)
      .join("\n");
    const samples = [...pages.matchAll(/```ts\n(await \w+[\s\S]*?)```/g)].map(([, text = ""]) => text.trim());
    // Removed items are gone, so that comes last.
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
    // The sample of a merge patch is an empty object, which the contract itself forbids. Everything else succeeds.
    expect(
      results
        .filter((each) => !each.ok)
        .map((each) => [each.call, JSON.stringify(each.body).includes("must NOT have fewer than 1 properties")]),
    ).toEqual([["changeBerth", true]]);
    expect(results).toHaveLength(15 + 8);
  });

  it("serves the saved contract as soon as it prints its address", async () => {
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

  it("prints its address, ends on a signal, and reports a port that is in use", async () => {
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
    expect(err).toContain("the port is in use");
    expect(await playing.ends()).toBe(0);
  });
});
