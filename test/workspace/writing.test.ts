import { spawn } from "node:child_process";
import { existsSync, mkdirSync, mkdtempSync, readFileSync, renameSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterEach, beforeEach, describe, expect, it } from "vitest";
import {
  finishWriting,
  hasUnfinishedWriting,
  performWriting,
  TakenBack,
  type FileOperations,
} from "../../src/workspace/files/writing.js";
import { programPath } from "../support/packageRoot.js";
import { demoProject } from "../support/temporaryProject.js";

let root = "";
beforeEach(() => {
  root = mkdtempSync(join(tmpdir(), "rhema-writing-"));
  writeFileSync(join(root, "old.txt"), "old");
  writeFileSync(join(root, "gone.txt"), "to be removed");
});
afterEach(() => {
  rmSync(root, { recursive: true, force: true });
});

const writing = {
  write: new Map([
    ["old.txt", "new"],
    ["deep/er/fresh.txt", "fresh"],
  ]),
  remove: ["gone.txt"],
};
const state = () =>
  ["old.txt", "deep/er/fresh.txt", "gone.txt"].map((path) =>
    existsSync(join(root, path)) ? readFileSync(join(root, path), "utf8") : undefined,
  );
const before = ["old", undefined, "to be removed"];
const after = ["new", "fresh", undefined];

/** File operations that die at the n-th one, as a killed process would. */
const dyingAt = (operation: number): FileOperations => throwingAt(operation, new Error("killed"));

/** File operations of which the n-th one fails, as on a full disk. */
const failingAt = (operation: number): FileOperations =>
  throwingAt(operation, Object.assign(new Error("no space"), { code: "ENOSPC" }));

function throwingAt(operation: number, error: Error): FileOperations {
  let count = 0;
  const step = (): void => {
    if (++count === operation) throw error;
  };
  return {
    writeFile: (path, text) => {
      step();
      writeFileSync(path, text);
    },
    rename: (from, to) => {
      step();
      renameSync(from, to);
    },
  };
}

describe("a write happens completely or not at all", () => {
  it("in one go", () => {
    performWriting({ root }, writing);
    expect(state()).toEqual(after);
    expect(existsSync(join(root, ".rhema/staging"))).toBe(false);
  });

  // Two texts and the journal are written, the journal is put in place, then two files are moved.
  it.each([1, 2, 3, 4, 5, 6])("killed at its operation %i", (operation) => {
    expect(() => {
      performWriting({ root }, writing, dyingAt(operation));
    }).toThrow("killed");
    const committed = operation > 4;
    if (!committed) expect(state()).toEqual(before);
    expect(hasUnfinishedWriting({ root })).toBe(committed);
    expect(finishWriting({ root })).toBe(committed);
    expect(state()).toEqual(committed ? after : before);
    expect(finishWriting({ root })).toBe(false);
  });

  it("killed again while it is completed", () => {
    expect(() => {
      performWriting({ root }, writing, dyingAt(5));
    }).toThrow();
    expect(() => finishWriting({ root }, dyingAt(2))).toThrow();
    finishWriting({ root });
    expect(state()).toEqual(after);
  });

  // Two texts, the journal, its place, then two files: each step fails as a full disk makes it.
  it.each([1, 2, 3, 4, 5, 6])("undone if its operation %i fails", (operation) => {
    expect(() => {
      performWriting({ root }, writing, failingAt(operation));
    }).toThrow("no space");
    expect(state()).toEqual(before);
    expect(finishWriting({ root })).toBe(false);
    performWriting({ root }, writing);
    expect(state()).toEqual(after);
  });

  it("undone if a killed run's write cannot be completed", () => {
    expect(() => {
      performWriting({ root }, writing, dyingAt(6));
    }).toThrow("killed");
    expect(() => finishWriting({ root }, failingAt(1))).toThrow(TakenBack);
    expect(state()).toEqual(before);
    expect(hasUnfinishedWriting({ root })).toBe(false);
  });

  it("refused completely for an invalid file name", () => {
    const long = new Map([
      ["old.txt", "new"],
      [`deep/${"ü".repeat(130)}.ts`, "x"],
    ]);
    expect(() => {
      performWriting({ root }, { write: long, remove: [] });
    }).toThrow("too long");
    expect(state()).toEqual(before);
  });

  it("without waiting for the lock of a dead process", () => {
    mkdirSync(join(root, ".rhema"));
    writeFileSync(join(root, ".rhema/lock"), "999999999");
    performWriting({ root }, writing);
    expect(state()).toEqual(after);
    expect(existsSync(join(root, ".rhema/lock"))).toBe(false);
  });

  it("without following a journal out of the project, or into version control", () => {
    performWriting({ root }, { write: new Map([[".git/hooks/post-checkout", "x"]]), remove: [] });
    expect(existsSync(join(root, ".git"))).toBe(false);
    const outside = `${root}-outside.txt`;
    writeFileSync(outside, "mine");
    performWriting(
      { root },
      { write: new Map([["../evil.txt", "x"]]), remove: [`../${outside.split("/").pop() ?? ""}`] },
    );
    expect([existsSync(join(root, "../evil.txt")), readFileSync(outside, "utf8")]).toEqual([false, "mine"]);
    rmSync(outside);
  });

  it("with empty folders removed, and no others", () => {
    performWriting(
      { root },
      {
        write: new Map([
          ["a/b/c.txt", "1"],
          ["a/d.txt", "2"],
        ]),
        remove: [],
      },
    );
    performWriting({ root }, { write: new Map(), remove: ["a/b/c.txt"] });
    expect([existsSync(join(root, "a/b")), existsSync(join(root, "a/d.txt"))]).toEqual([false, true]);
  });
});

describe("generate, killed at any time", () => {
  it("leaves the SDK complete, or the next run completes it", async () => {
    const reference = demoProject();
    await reference.run(["generate"]);
    const whole = reference.tree("src/sdk");
    for (const delay of [60, 120, 180, 240, 300, 360]) {
      const project = demoProject();
      await new Promise<void>((resolve) => {
        const child = spawn(process.execPath, [programPath, "generate"], { cwd: project.folder, stdio: "ignore" });
        child.on("exit", () => {
          resolve();
        });
        setTimeout(() => child.kill("SIGKILL"), delay);
      });
      const found = Object.keys(project.tree("src/sdk")).length;
      if (!hasUnfinishedWriting({ root: project.folder })) expect([0, Object.keys(whole).length]).toContain(found);
      expect((await project.run(["generate"])).code).toBe(0);
      expect(project.tree("src/sdk")).toEqual(whole);
      expect((await project.run(["check"])).code).toBe(0);
    }
  });
});
