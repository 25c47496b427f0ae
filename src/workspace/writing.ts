import {
  existsSync,
  mkdirSync,
  readFileSync,
  readdirSync,
  renameSync,
  rmSync,
  rmdirSync,
  writeFileSync,
} from "node:fs";
import { dirname, join } from "node:path";
import { isData } from "../core/text/parseData.js";
import { stateFolder, type Project } from "./project.js";
import { isInside } from "./project.js";

/** A whole set of changes to files that happens together or not at all. Paths are relative to the project. */
export interface Writing {
  readonly write: ReadonlyMap<string, string>;
  readonly remove: readonly string[];
}

/** The file operations a writing uses; a test can make one of them fail. */
export interface FileOperations {
  readonly writeFile: (path: string, text: string) => void;
  readonly rename: (from: string, to: string) => void;
}

const nodeOperations: FileOperations = {
  writeFile: (path, text) => {
    writeFileSync(path, text);
  },
  rename: renameSync,
};

function stagingFolder(project: Pick<Project, "root">): string {
  return join(stateFolder(project), "staging");
}

function journalPath(project: Pick<Project, "root">): string {
  return join(stagingFolder(project), "journal.json");
}

/**
 * Performs a writing in two steps. First every new text is written into a staging folder; a run that dies there leaves
 * the old files whole. Then a journal is put in place, which is the moment of commitment, and the staged files are
 * renamed to where they belong; a run that dies there is completed by the next one.
 */
export function performWriting(
  project: Pick<Project, "root">,
  { write, remove }: Writing,
  operations: FileOperations = nodeOperations,
): void {
  const staging = stagingFolder(project);
  rmSync(staging, { recursive: true, force: true });
  mkdirSync(staging, { recursive: true });
  const staged = [...write].map(([path, text], at) => {
    const name = `${String(at)}.part`;
    operations.writeFile(join(staging, name), text);
    return { name, path };
  });
  const unfinished = `${journalPath(project)}.new`;
  operations.writeFile(unfinished, JSON.stringify({ staged, remove }));
  operations.rename(unfinished, journalPath(project));
  finishWriting(project, operations);
}

/**
 * Completes a writing that a killed run had committed to, and clears one it had not. Returns true when something was
 * completed.
 */
export function finishWriting(project: Pick<Project, "root">, operations: FileOperations = nodeOperations): boolean {
  const staging = stagingFolder(project);
  if (!existsSync(staging)) return false;
  const journal = readJournal(journalPath(project));
  if (journal) {
    for (const { name, path } of journal.staged) {
      const source = join(staging, name);
      const target = join(project.root, path);
      if (!existsSync(source) || !isInside(project.root, target)) continue;
      mkdirSync(dirname(target), { recursive: true });
      operations.rename(source, target);
    }
    for (const path of journal.remove) {
      const target = join(project.root, path);
      if (isInside(project.root, target)) removeFile(project.root, target);
    }
  }
  rmSync(staging, { recursive: true, force: true });
  return journal !== undefined;
}

/** Whether a killed run left something to complete. */
export function hasUnfinishedWriting(project: Pick<Project, "root">): boolean {
  return existsSync(journalPath(project));
}

function readJournal(path: string): { staged: { name: string; path: string }[]; remove: string[] } | undefined {
  if (!existsSync(path)) return undefined;
  // Only a whole journal ever gets this name, so one that does not parse was not written by us.
  const data = JSON.parse(readFileSync(path, "utf8")) as unknown;
  if (!isData(data) || !Array.isArray(data["staged"]) || !Array.isArray(data["remove"])) return undefined;
  return data as unknown as { staged: { name: string; path: string }[]; remove: string[] };
}

/** Removes a file and the folders it leaves empty, up to the project's own. */
function removeFile(root: string, path: string): void {
  rmSync(path, { force: true });
  for (let folder = dirname(path); isInside(root, folder); folder = dirname(folder)) {
    if (!existsSync(folder)) continue;
    if (readdirSync(folder).length > 0) return;
    rmdirSync(folder);
  }
}
