import { execFileSync } from "node:child_process";
import type { SourceText } from "../../core/problem/place.js";
import { problem } from "../../core/problem/problem.js";
import { exitCodes, Halt } from "../project/halt.js";
import { pinPaths } from "../generate/pins.js";
import type { Project } from "../project/project.js";
import { normalized } from "../files/textFile.js";

/** The prefix of a revision's name, for example `git:v1.2`. */
export const revisionMark = "git:";

const mostBytes = 128 * 1024 * 1024;

/** Reads committed files of a project at a revision. */
export class Revision {
  /**
   * @param name a tag, branch or commit, as git accepts it
   * @throws Halt (usage) if there is no such revision, or no repository
   */
  constructor(
    private readonly root: string,
    readonly name: string,
  ) {
    const isName = /^[A-Za-z0-9_][\w./@^~{}-]*$/.test(name);
    const known = isName ? this.git(["rev-parse", "--verify", "--quiet", `${name}^{commit}`]) : undefined;
    if (known !== undefined) return;
    const hint = "Check the name. In a shallow checkout, fetch more history first.";
    throw new Halt([problem("revision.unknown", `There is no revision \`${name}\` here.`, { hint })], exitCodes.usage);
  }

  /** Returns a file of the project, by its path relative to the configuration; undefined if it did not exist. */
  file(path: string): SourceText | undefined {
    const text = this.git(["show", `${this.name}:./${path}`]);
    return text === undefined ? undefined : { document: `${path} (${this.name})`, text: normalized(text) };
  }

  /** Returns the paths of committed files in a folder, sorted. */
  filesBelow(folder: string): string[] {
    const found = this.git(["ls-tree", "-r", "--name-only", "-z", this.name, "--", `./${folder}`]);
    return (found ?? "")
      .split("\0")
      .filter((path) => path !== "")
      .sort();
  }

  private git(args: readonly string[]): string | undefined {
    try {
      const options = { cwd: this.root, encoding: "utf8", maxBuffer: mostBytes, stdio: "pipe" } as const;
      return execFileSync("git", [...args], options);
    } catch {
      // The file does not exist, or there is no repository or no git. The caller reports why it was needed.
      return undefined;
    }
  }
}

/** Returns the pin of a contract at a revision, and the operations of that SDK; undefined if there was none. */
export function pinAt(
  project: Project,
  revision: Revision,
  contract: string,
): { readonly pin: SourceText; readonly operations: SourceText | undefined } | undefined {
  for (const sdk of Object.keys(project.configuration.sdks).sort()) {
    const paths = pinPaths(project, sdk, contract);
    const pin = paths.contracts.map((path) => revision.file(path)).find((found) => found !== undefined);
    if (pin) return { pin, operations: revision.file(paths.operations) };
  }
  return undefined;
}
