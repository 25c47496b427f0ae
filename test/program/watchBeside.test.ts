import { expect, it } from "vitest";
import { contractWith } from "../support/smallContract.js";
import { RunningProcess } from "../support/runningProcess.js";
import { restProject } from "../support/temporaryProject.js";
import { until } from "../support/until.js";

const contract = (field: string) =>
  JSON.stringify(contractWith({ Berth: { type: "object", properties: { [field]: { type: "string" } } } }));

/** An app's server: it prints its arguments, and ends when it is told to, or when a file exists. */
const server = `
import { existsSync, writeFileSync } from "node:fs";
console.log("server begins " + process.argv.slice(2).join("|"));
console.error("server warns");
for (const signal of ["SIGINT", "SIGTERM"]) process.on(signal, () => { writeFileSync("ended", signal); process.exit(Number(process.env.CODE ?? 0)); });
setInterval(() => { if (existsSync("stop")) process.exit(7); }, 20);
`;

it("runs a command, passes on its output, and ends with its exit code", async () => {
  const project = restProject(contract("note"), { "server.mjs": server });
  const watching = new RunningProcess(project, [
    "watch",
    "app",
    "--",
    process.execPath,
    "server.mjs",
    "--port",
    "-- 1",
  ]);
  await watching.says("server begins --port|-- 1\n");
  project.write("api.yaml", contract("quay"));
  await watching.says("written in");
  project.write("stop", "");
  const { code, err } = await watching.ended;
  expect([code, err]).toEqual([7, "server warns\n"]);
});

it("ends the command when it ends itself", async () => {
  const project = restProject(contract("note"), { "server.mjs": server });
  const watching = new RunningProcess(project, [
    "watch",
    "--play",
    "--port",
    "0",
    "--",
    process.execPath,
    "server.mjs",
  ]);
  await watching.says("server begins");
  expect(await watching.ends()).toBe(0);
  expect(project.read("ended")).toBe("SIGTERM");
});

it("keeps standard output for JSON, and reports a command that cannot be started", async () => {
  const project = restProject(contract("note"), { "server.mjs": server });
  const watching = new RunningProcess(project, ["--json", "watch", "--", process.execPath, "server.mjs"]);
  await until(() => watching.err.includes("server begins"));
  expect(() =>
    watching.out
      .trim()
      .split("\n")
      .map((line) => JSON.parse(line) as unknown),
  ).not.toThrow();
  await watching.ends();
  const { code, err } = await new RunningProcess(project, ["watch", "--", "no-such-program-here"]).ended;
  expect([code, err]).toEqual([2, expect.stringContaining("`no-such-program-here` cannot be started (ENOENT).")]);
});
