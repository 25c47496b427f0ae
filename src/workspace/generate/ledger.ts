import { readFileSync } from "node:fs";
import { join } from "node:path";
import { visible } from "../../core/text/visible.js";
import { problem } from "../../core/problem/problem.js";
import { isData } from "../../core/text/parseData.js";
import { sortedBy } from "../../core/text/sortedBy.js";
import { exitCodes, Halt } from "../project/halt.js";
import { stateFolder, type Project } from "../project/project.js";
import { errorCode } from "../files/textFile.js";

/** The list of generated files, by SDK. It is committed, so that everybody's next run knows which files are Rhema's. */
export interface Ledger {
  readonly configuration: string;
  readonly sdks: Readonly<Record<string, LedgerEntry>>;
  /** The SHA-256 of the file for editors, if there is one. */
  readonly editors?: string;
}

export interface LedgerEntry {
  readonly into: string;
  /** A hash of all inputs of the SDK. */
  readonly inputs: string;
  /** The SHA-256 of each file (with LF as line endings) by its path inside `into`. */
  readonly files: Readonly<Record<string, string>>;
  /** The documents that its contracts refer to, by contract. */
  readonly parts?: Readonly<Record<string, readonly string[]>>;
  /** The number of skipped parts of its contracts; absent if there are none. */
  readonly setAside?: number;
}

/** Returns the documents that contracts referred to at the last run. */
export function knownParts({ sdks }: Ledger): Map<string, string[]> {
  const found = new Map<string, string[]>();
  for (const { parts = {} } of Object.values(sdks)) {
    for (const [contract, names] of Object.entries(parts))
      found.set(contract, [...new Set([...(found.get(contract) ?? []), ...names])].sort());
  }
  return found;
}

const emptyLedger: Ledger = { configuration: "", sdks: {} };

/** Returns the absolute path of the list of generated files. */
export function ledgerPath(project: Pick<Project, "root">): string {
  return join(stateFolder(project), "ledger.json");
}

/**
 * Reads the list of generated files, which is empty before the first run. A list that cannot be read stops everything,
 * because it protects the user's files.
 *
 * @throws Halt if the list cannot be read, or contains a path outside an SDK
 */
export function readLedger(project: Pick<Project, "root">): Ledger {
  let text: string;
  try {
    text = readFileSync(ledgerPath(project), "utf8");
  } catch (error) {
    if (errorCode(error) === "ENOENT") return emptyLedger;
    throw unreadable();
  }
  try {
    const data = JSON.parse(text) as unknown;
    if (isData(data) && isData(data["sdks"]) && Object.values(data["sdks"]).every(isEntry)) {
      const ledger = data as unknown as Ledger;
      const leading = Object.values(ledger.sdks)
        .flatMap(({ into, files }) => [into, ...Object.keys(files)])
        .find((path) => !isPathBelow(path));
      if (leading === undefined) return ledger;
      throw unreadable(` It names \`${visible(leading)}\`, which is not a path inside an SDK.`);
    }
  } catch (error) {
    if (error instanceof Halt) throw error;
    // Reported below, together with a list of the wrong form.
  }
  throw unreadable();
}

function isEntry(entry: unknown): boolean {
  return (
    isData(entry) && typeof entry["into"] === "string" && typeof entry["inputs"] === "string" && isData(entry["files"])
  );
}

/** Whether a path stays inside the folder that it is relative to, on every system. */
function isPathBelow(path: string): boolean {
  return !/^[A-Za-z]:|[\\\0]/.test(path) && path.split("/").every((part) => !["", ".", "..", ".git"].includes(part));
}

function unreadable(why = ""): Halt {
  const hint = "Restore it from version control. Without it, Rhema does not know which files are yours.";
  return new Halt(
    [problem("state.unreadable", `The ledger \`.rhema/ledger.json\` cannot be read.${why}`, { hint })],
    exitCodes.usage,
  );
}

/** Returns the list's text: sorted, without times, the same on every machine. */
export function ledgerText(ledger: Ledger): string {
  const sdks = sortedBy(Object.entries(ledger.sdks), ([name]) => name).map(([name, entry]) => {
    const files = Object.fromEntries(sortedBy(Object.entries(entry.files), ([path]) => path));
    const { into, inputs, parts, setAside } = entry;
    const more = { ...(parts ? { parts } : {}), ...(setAside === undefined ? {} : { setAside }) };
    return [name, { into, inputs, files, ...more }] as const;
  });
  const { configuration, editors } = ledger;
  const more = editors === undefined ? {} : { editors };
  return `${JSON.stringify({ configuration, sdks: Object.fromEntries(sdks), ...more }, null, 2)}\n`;
}
