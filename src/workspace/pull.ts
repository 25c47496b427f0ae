import { isUrl } from "../core/rest/documentNames.js";
import type { Problem } from "../core/problem/problem.js";
import { readCopy } from "./copies.js";
import { exitCodes, type ExitCode } from "./halt.js";
import { obtainCopies } from "./obtainCopies.js";
import type { Project } from "./project.js";
import { sourceList } from "./sources.js";

/** What pulling did for one contract. */
export interface PulledContract {
  readonly name: string;
  /** "local": it comes from files of the project, and there is nothing to pull. */
  readonly state: "new" | "changed" | "same" | "failed" | "local";
  /** Paths of its copies in the project. */
  readonly copies: readonly string[];
}

export interface PullOutcome {
  readonly contracts: readonly PulledContract[];
  readonly problems: readonly Problem[];
  readonly exitCode: ExitCode;
}

/**
 * Replaces the copies of contracts that come from a URL, a GraphQL endpoint or a command.
 *
 * @throws Halt (unreadable) when a contract cannot be had and has no copy
 */
export async function pull(project: Project, names: readonly string[]): Promise<PullOutcome> {
  const contracts: PulledContract[] = [];
  const problems: Problem[] = [];
  for (const name of names) {
    const settings = project.configuration.contracts[name];
    const sources = settings ? sourceList(settings).filter(isUrl) : [];
    const addresses = sources.length > 0 ? sources : [undefined];
    const isLocal = settings !== undefined && sources.length === 0 && sourceList(settings).length > 0;
    if (isLocal) {
      contracts.push({ name, state: "local", copies: [] });
      continue;
    }
    const copies = (): (string | undefined)[] => addresses.map((address) => readCopy(project, name, address)?.text);
    const before = copies();
    const found = await obtainCopies(project, [name], true);
    problems.push(...found);
    const after = copies();
    const state =
      found.length > 0
        ? "failed"
        : before.every((text) => text === undefined)
          ? "new"
          : before.some((text, at) => text !== after[at])
            ? "changed"
            : "same";
    const paths = addresses.flatMap((address) => readCopy(project, name, address)?.document ?? []);
    contracts.push({ name, state, copies: paths });
  }
  const isFailed = contracts.some(({ state }) => state === "failed");
  return { contracts, problems, exitCode: isFailed ? exitCodes.findings : exitCodes.done };
}
