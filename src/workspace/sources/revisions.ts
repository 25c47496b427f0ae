import { execFileSync } from "node:child_process";
import type { SourceText } from "../../core/problem/place.js";
import { problem } from "../../core/problem/problem.js";
import { exitCodes, Halt } from "../project/halt.js";
import { pinPaths } from "../generate/pins.js";
import type { Project } from "../project/project.js";
import { normalized } from "../files/textFile.js";

/** What starts the name of a revision, for example `git:v1.2`. */
export const revisionMark = "git:";

const mostBytes = 128 * 1024 * 1024;

/** Reads committed files of a project as they were at a revision. */
export class Revision {
  /**
   * @param name a tag, branch or commit, as git takes it
   * @throws Halt (usage) when there is no such revision, or no repository
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

  /** A file of the project, by its path below the configuration; undefined when it was not there. */
  file(path: string): SourceText | undefined {
    const text = this.git(["show", `${this.name}:./${path}`]);
    return text === undefined ? undefined : { document: `${path} (${this.name})`, text: normalized(text) };
  }

  /** Paths of committed files below a folder, sorted. */
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
      // Not there, no repository, or no git: the caller says what it was wanted for.
      return undefined;
    }
  }
}

/** The pin of a contract as it was committed at a revision, and the operations that SDK was made with. */
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
