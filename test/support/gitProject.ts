import { spawnSync } from "node:child_process";
import { expect } from "vitest";
import type { TemporaryProject } from "./temporaryProject.js";

export const hasGit = spawnSync("git", ["--version"]).status === 0;

/** Runs git in a project. It must succeed. */
export function git(project: TemporaryProject, ...args: string[]): void {
  const identity = ["user.name=Harbour", "user.email=harbour@example.test", "init.defaultBranch=main"];
  const { status, stderr } = spawnSync("git", [...identity.flatMap((each) => ["-c", each]), ...args], {
    cwd: project.folder,
    encoding: "utf8",
  });
  expect([status, stderr.includes("fatal")]).toEqual([0, false]);
}

/** Commits everything, with a tag if one is given. */
export function commitAll(project: TemporaryProject, tag?: string): void {
  if (!project.exists(".git")) git(project, "init");
  git(project, "add", ".");
  git(project, "commit", "-m", tag ?? "one");
  if (tag !== undefined) git(project, "tag", tag);
}
