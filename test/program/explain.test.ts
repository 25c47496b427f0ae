import { spawnSync } from "node:child_process";
import { describe, expect, it } from "vitest";
import { changeCodes } from "../../src/core/change/changeCodes.js";
import { problemMeanings, type ProblemCode } from "../../src/core/problem/codes.js";
import { problemExamples } from "../../src/core/report/problemExamples.js";
import { pseudoTerminal, runInTerminal } from "../support/pseudoTerminal.js";
import { TemporaryProject } from "../support/temporaryProject.js";

const codes = Object.keys(problemMeanings) as ProblemCode[];

describe("explain", () => {
  it.each(codes)("%s is what its example raises", async (code) => {
    const { files, steps, keys } = problemExamples[code];
    if (keys !== undefined && pseudoTerminal === undefined) return;
    const project = new TemporaryProject(files);
    let said = "";
    for (const step of steps) {
      if (typeof step !== "string") {
        for (const [path, text] of Object.entries(step)) project.write(path, text);
        continue;
      }
      if (step.startsWith("rhema ")) {
        const args = [...step.slice(6).matchAll(/"([^"]*)"|(\S+)/g)].map(([, quoted, plain]) => quoted ?? plain ?? "");
        const presses = [{ after: "?", keys: keys === "^C" ? "\u0003" : (keys ?? "") }];
        const { out, err } =
          keys === undefined ? await project.run(args) : await runInTerminal(project.folder, args, presses);
        said = err + out;
      } else expect(spawnSync("/bin/sh", ["-c", step], { cwd: project.folder }).status).toBe(0);
    }
    expect(said).toMatch(new RegExp(`^(error |warning |note | .*  )${code.replaceAll(".", "\\.")}(  |$)`, "m"));
  });

  it("shows a problem with its example, a change with both verdicts, and a list of all codes", async () => {
    const project = new TemporaryProject();
    const shown = await project.run(["explain", "contract.reference"]);
    expect(shown.code).toBe(0);
    for (const text of ["What to do", "berths.yaml", "#/components/schemas/Berth", "$ rhema generate"])
      expect(shown.out).toContain(text);
    const change = (await project.run(["explain", "answer.field.gone"])).out;
    expect(change).toContain("Released apps, with the new server");
    expect(change).toMatch(/^ {4}- .*note/m);
    const { out } = await project.run(["explain"]);
    for (const code of [...codes, ...changeCodes]) expect(out).toContain(code);
    const { code, err } = await project.run(["explain", "answer.feild.gone"]);
    expect([code, err.includes("`answer.field.gone`")]).toEqual([2, true]);
  });
});
