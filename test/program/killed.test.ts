import { createServer, type Server } from "node:http";
import type { AddressInfo } from "node:net";
import { afterEach, describe, expect, it } from "vitest";
import { RunningProcess } from "../support/runningProcess.js";
import { contractWith } from "../support/smallContract.js";
import { restProject, TemporaryProject } from "../support/temporaryProject.js";

const servers: Server[] = [];
afterEach(() => {
  for (const server of servers.splice(0)) server.close();
});

/** A contract that takes a moment to write, in versions. */
const large = (version: number): string =>
  JSON.stringify(
    contractWith(
      Object.fromEntries(
        Array.from({ length: 3_000 }, (_, at) => [
          `Berth${String(at)}`,
          { type: "object", description: `version ${String(version)}`, properties: { id: { type: "string" } } },
        ]),
      ),
    ),
  );

async function origin(text: () => string): Promise<string> {
  const server = createServer((_request, response) => response.setHeader("etag", '"x"').end(text()));
  servers.push(server);
  await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
  return `http://127.0.0.1:${String((server.address() as AddressInfo).port)}/api.json`;
}

/** Parts of the time of a whole run after which a process is killed: before, while and after it writes. */
const moments = [0.5, 0.8, 0.88, 0.95, 1];

/** Milliseconds of a whole run. */
async function durationOf(project: TemporaryProject, args: readonly string[]): Promise<number> {
  const startedAt = performance.now();
  await new RunningProcess(project, args).ended;
  return performance.now() - startedAt;
}

async function killedAfter(project: TemporaryProject, args: readonly string[], milliseconds: number): Promise<void> {
  const running = new RunningProcess(project, args);
  await new Promise((resolve) => setTimeout(resolve, milliseconds));
  await running.kill();
}

describe("a killed process", () => {
  it("leaves the old or the new copy complete during pull", async () => {
    let version = 1;
    const address = await origin(() => large(version));
    const project = new TemporaryProject({
      "package.json": '{ "type": "module" }',
      "rhema.yaml": `contracts:\n  api: { from: "${address}" }\nsdks:\n  app: { language: typescript, covers: [api], into: src/sdk }\n`,
    });
    expect((await project.run(["pull"])).code).toBe(0);
    const copyOf = (): string => {
      const [copy = ""] = Object.entries(project.tree(".rhema/copies")).flatMap(([path, text]) =>
        path.endsWith("api.json") ? [text] : [],
      );
      return copy;
    };
    const whole = await durationOf(project, ["pull"]);
    for (const moment of moments) {
      version++;
      await killedAfter(project, ["pull"], moment * whole);
      const found = new Set(/version \d+/g[Symbol.matchAll](copyOf()) as Iterable<RegExpExecArray>);
      const versions = new Set([...found].map(([text]) => text));
      expect([moment, versions.size]).toEqual([moment, 1]);
      expect(() => JSON.parse(copyOf()) as unknown).not.toThrow();
    }
    expect((await project.run(["pull"])).code).toBe(0);
    expect(copyOf()).toContain(`version ${String(version)}`);
    expect(Object.keys(project.tree(".rhema")).filter((path) => /staging|lock|unfinished/.test(path))).toEqual([]);
    expect((await project.run(["generate"])).code).toBe(0);
  });

  it("leaves no partial configuration and a complete manifest during init", async () => {
    const manifest = `{ "name": "board", "scripts": { "build": "tsc" }, "about": "${"x".repeat(200_000)}" }`;
    const adopting = (): TemporaryProject => new TemporaryProject({ "package.json": manifest, "api.json": large(1) });
    const whole = await durationOf(adopting(), ["init", "--yes"]);
    for (const moment of moments) {
      const project = adopting();
      await killedAfter(project, ["init", "--yes"], moment * whole);
      const { scripts } = JSON.parse(project.read("package.json")) as { scripts: Record<string, string> };
      expect(scripts["build"]).toBe("tsc");
      if (project.exists("rhema.yaml")) expect((await project.run(["generate"])).code).toBe(0);
      else expect((await project.run(["init", "--yes"])).code).toBe(0);
      expect(Object.keys(project.tree(".")).filter((path) => path.endsWith(".unfinished"))).toEqual([]);
    }
  });

  it("leaves nothing after init that the next generate does not remove", async () => {
    const project = restProject(large(1));
    project.write("package.json", "{}");
    const halves = ["package.json.17.unfinished", "rhema.yaml.17.unfinished"];
    for (const half of [...halves, "notes.17.unfinished"]) project.write(half, "{");
    expect((await project.run(["generate"])).code).toBe(0);
    expect(halves.filter((half) => project.exists(half))).toEqual([]);
    expect(project.exists("notes.17.unfinished")).toBe(true);
  });

  it("leaves a state during watch that the next run completes", async () => {
    const project = restProject(large(1));
    expect((await project.run(["generate"])).code).toBe(0);
    for (const moment of [60, 150, 300]) {
      const watching = new RunningProcess(project, ["watch"]);
      await watching.says("waiting for a save");
      project.write("api.yaml", large(moment + 2));
      await new Promise((resolve) => setTimeout(resolve, moment));
      await watching.kill();
      expect([moment, (await project.run(["generate"])).code]).toEqual([moment, 0]);
      expect([moment, (await project.run(["check"])).code]).toEqual([moment, 0]);
      expect(Object.keys(project.tree(".rhema")).filter((path) => /staging|lock/.test(path))).toEqual([]);
    }
  });
});
