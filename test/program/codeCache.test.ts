import { execFileSync } from "node:child_process";
import { cpSync, readFileSync, readdirSync, statSync, utimesSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { describe, expect, it } from "vitest";
import { CodeCache } from "../../src/cli/process/codeCache.js";
import { packageRoot } from "../support/packageRoot.js";
import { demoProject, TemporaryProject } from "../support/temporaryProject.js";

/** A file that requires another, and the folder for its compiled code. */
function quays(): { readonly project: TemporaryProject; readonly load: (build?: string) => CodeCache } {
  const project = new TemporaryProject();
  project.write("quays.cjs", 'const { free } = require("./free.cjs");\nexports.free = () => free(["N-07", "S-02"]);\n');
  project.write("free.cjs", "exports.free = (quays) => quays.filter((quay) => quay.startsWith('N'));\n");
  return {
    project,
    load: (build = "one") => {
      const cache = new CodeCache(project.path("kept"), build, "generate");
      const { free } = cache.load(project.path("quays.cjs"), ["./free.cjs"]) as { free: () => string[] };
      expect(free()).toEqual(["N-07"]);
      return cache;
    },
  };
}

const filesOf = (project: TemporaryProject): string[] => readdirSync(project.path("kept")).sort();

describe("the code cache", () => {
  it("keeps the compiled code of a file and of the files that it loads", () => {
    const { project, load } = quays();
    load().save();
    const kept = filesOf(project);
    expect(kept.map((name) => name.replace(/^.*-(generate|all)-/, "")).sort()).toEqual(["free-cjs", "quays-cjs"]);
    const times = kept.map((name) => statSync(project.path(`kept/${name}`)).ino);
    load().save();
    expect(filesOf(project).map((name) => statSync(project.path(`kept/${name}`)).ino)).toEqual(times);
  });

  it("runs a file once, however many others require it", () => {
    const project = new TemporaryProject();
    project.write("tide.cjs", "exports.hour = 0;\n");
    project.write(
      "turns.cjs",
      'require("./tide.cjs").hour += 6;\nrequire("./tide.cjs").hour += 6;\nexports.hour = require("./tide.cjs").hour;\n',
    );
    const cache = new CodeCache(project.path("kept"), "one", "generate");
    const loaded = cache.load(project.path("turns.cjs"), ["./tide.cjs"]) as { hour: number };
    expect(loaded.hour).toBe(12);
  });

  it("refuses code of another text, of another build, or that is damaged", () => {
    const { project, load } = quays();
    load().save();
    const main = filesOf(project).find((name) => name.includes("quays")) ?? "";
    const whole = readFileSync(project.path(`kept/${main}`));
    const damages = [
      whole.subarray(0, whole.length / 2),
      Buffer.from(whole).fill(0, 200, 400),
      Buffer.alloc(0),
      Buffer.from("none"),
    ];
    for (const damaged of damages) {
      writeFileSync(project.path(`kept/${main}`), damaged);
      load().save();
      // Its length differs a little, depending on what V8 had compiled at that moment.
      expect(readFileSync(project.path(`kept/${main}`)).length).toBeGreaterThan(whole.length * 0.75);
    }
    // As long as before.
    project.write("free.cjs", project.read("free.cjs").replace("'N'", "'S'"));
    const cache = new CodeCache(project.path("kept"), "one", "generate");
    const loaded = cache.load(project.path("quays.cjs"), ["./free.cjs"]) as { free: () => string[] };
    expect(loaded.free()).toEqual(["S-02"]);
    project.write("free.cjs", project.read("free.cjs").replace("'S'", "'N'"));
    load("two").save();
    expect(filesOf(project).map((name) => name.slice(0, 4))).toEqual(["two-", "two-"]);
  });

  it("removes partial files that a killed run left long ago, but none in progress", () => {
    const { project, load } = quays();
    for (const [pid, hours] of [
      ["1", 2],
      ["2", 0],
    ] as const) {
      project.write(`kept/one-half.${pid}`, "");
      const then = new Date(Date.now() - hours * 3_600_000);
      utimesSync(project.path(`kept/one-half.${pid}`), then, then);
    }
    load().save();
    expect(filesOf(project).filter((name) => name.includes("half"))).toEqual(["one-half.2"]);
  });

  it("is not used if it cannot be written", () => {
    const { project, load } = quays();
    project.write("kept", "a file in the way");
    load().save();
    expect(project.read("kept")).toBe("a file in the way");
  });

  it("is next to the packages of an app, one per command, and changes no output", () => {
    const project = demoProject();
    for (const part of ["dist", "schema", "runtimes", "package.json"])
      cpSync(join(packageRoot, part), project.path(`node_modules/rhema/${part}`), { recursive: true });
    const run = (command: string): string =>
      execFileSync(process.execPath, [project.path("node_modules/rhema/dist/cli/main.js"), command, "--json"], {
        cwd: project.folder,
        encoding: "utf8",
      });
    run("generate");
    expect(run("check")).toBe(run("check"));
    const kept = readdirSync(project.path("node_modules/.cache/rhema"));
    expect(kept.map((name) => name.replace(/^.*-x?(?=(check|generate)-)/, "")).sort()).toEqual([
      "check-program-cjs",
      "generate-program-cjs",
    ]);
  });
});
