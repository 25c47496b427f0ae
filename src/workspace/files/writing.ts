import {
  copyFileSync,
  existsSync,
  mkdirSync,
  readFileSync,
  readdirSync,
  renameSync,
  rmSync,
  rmdirSync,
  writeFileSync,
} from "node:fs";
import { dirname, join, relative, sep } from "node:path";
import { isData, parseData } from "../../core/text/parseData.js";
import { alone } from "../project/alone.js";
import { stateFolder, type Project } from "../project/project.js";
import { isInside } from "../project/project.js";
import { errorCode } from "./textFile.js";

/** A set of changes to files that happens completely or not at all. Paths are relative to the project. */
export interface Writing {
  readonly write: ReadonlyMap<string, string>;
  readonly remove: readonly string[];
}

/** The file operations of a writing. A test can make one of them fail. */
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

/** The largest number of bytes in a name in a path, on the usual file systems. */
const mostNameBytes = 255;

/** A writing that failed and was undone. */
export class TakenBack extends Error {
  constructor(override readonly cause: unknown) {
    super(cause instanceof Error ? cause.message : String(cause));
  }
}

function stagingFolder(project: Pick<Project, "root">): string {
  return join(stateFolder(project), "staging");
}

function journalPath(project: Pick<Project, "root">): string {
  return join(stagingFolder(project), "journal.json");
}

/**
 * Performs a writing in two steps. First, every new text is written into a staging folder. A run that dies then leaves
 * the old files complete. Next, a journal is put in place, which is the commit, and the staged files are renamed to
 * their places. A run that dies then is completed by the next one. Replaced and removed files go into the staging
 * folder too, so that a step that fails undoes all others.
 *
 * @throws TakenBack if a file cannot be put in place. All files are then as they were before
 */
export function performWriting(
  project: Pick<Project, "root">,
  { write, remove }: Writing,
  operations: FileOperations = nodeOperations,
): void {
  mkdirSync(stateFolder(project), { recursive: true });
  const tooLong = [...write.keys()].find((path) =>
    path.split("/").some((name) => Buffer.byteLength(name) > mostNameBytes),
  );
  if (tooLong !== undefined)
    throw Object.assign(new Error(`The name of ${tooLong} is too long for a file.`), { code: "ENAMETOOLONG" });
  alone(project, () => {
    complete(project, operations);
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
    complete(project, operations);
  });
}

/**
 * Completes a writing that a killed run had committed, and removes one that it had not.
 *
 * @returns whether something was completed
 * @throws TakenBack if it cannot be completed. All files are then as they were before
 */
export function finishWriting(project: Pick<Project, "root">, operations: FileOperations = nodeOperations): boolean {
  if (!existsSync(stagingFolder(project))) return false;
  return alone(project, () => complete(project, operations));
}

/** Returns whether a killed run left something to complete. */
export function hasUnfinishedWriting(project: Pick<Project, "root">): boolean {
  return existsSync(journalPath(project));
}

interface Journal {
  readonly staged: readonly { readonly name: string; readonly path: string }[];
  readonly remove: readonly string[];
}

function complete(project: Pick<Project, "root">, operations: FileOperations): boolean {
  const staging = stagingFolder(project);
  if (!existsSync(staging)) return false;
  const journal = readJournal(journalPath(project));
  if (journal) {
    try {
      carryOut(project.root, staging, { journal, operations });
    } catch (error) {
      // A killed process looks the same as a step that failed here. Both can be undone.
      if (errorCode(error) === undefined) throw error;
      takeBack(project.root, staging, journal);
      rmSync(staging, { recursive: true, force: true });
      throw new TakenBack(error);
    }
  }
  rmSync(staging, { recursive: true, force: true });
  return journal !== undefined;
}

function carryOut(
  root: string,
  staging: string,
  { journal: { staged, remove }, operations }: { readonly journal: Journal; readonly operations: FileOperations },
): void {
  const open = new Set(readdirSync(staging));
  // Whether a folder was empty: a large SDK has thousands of files in one, and each check takes time.
  const wasEmpty = new Map<string, boolean>();
  for (const { name, path } of staged) {
    const source = join(staging, name);
    const target = join(root, path);
    if (!open.has(name) || !mayWrite(root, target)) continue;
    const folder = dirname(target);
    if (!wasEmpty.has(folder)) {
      mkdirSync(folder, { recursive: true });
      wasEmpty.set(folder, readdirSync(folder).length === 0);
    }
    const isReplaced = wasEmpty.get(folder) !== true && existsSync(target);
    if (isReplaced && !existsSync(oldOf(source))) copyFileSync(target, oldOf(source));
    operations.rename(source, target);
  }
  remove.forEach((path, at) => {
    const target = join(root, path);
    if (!mayWrite(root, target) || !existsSync(target)) return;
    copyFileSync(target, oldOf(join(staging, `removed-${String(at)}`)));
    removeFile(root, target);
  });
}

/** Puts back the files that a journal has replaced or removed so far, and removes those that it has added. */
function takeBack(root: string, staging: string, { staged, remove }: Journal): void {
  for (const { name, path } of staged) {
    const source = join(staging, name);
    const target = join(root, path);
    if (existsSync(source) || !mayWrite(root, target)) continue;
    if (existsSync(oldOf(source))) renameSync(oldOf(source), target);
    else removeFile(root, target);
  }
  remove.forEach((path, at) => {
    const old = oldOf(join(staging, `removed-${String(at)}`));
    if (!existsSync(old)) return;
    mkdirSync(dirname(join(root, path)), { recursive: true });
    renameSync(old, join(root, path));
  });
}

/** The place of an old file until all is done. */
function oldOf(source: string): string {
  return `${source}.old`;
}

/** Whether a path is inside the project and not in version control. */
function mayWrite(root: string, target: string): boolean {
  return isInside(root, target) && !relative(root, target).split(sep).includes(".git");
}

function readJournal(path: string): Journal | undefined {
  if (!existsSync(path)) return undefined;
  // Only a complete journal ever gets this name, so one that cannot be parsed was not written by us.
  const parsed = parseData(readFileSync(path, "utf8"));
  const data = parsed.ok ? parsed.data : undefined;
  if (!isData(data) || !Array.isArray(data["staged"]) || !Array.isArray(data["remove"])) return undefined;
  return data as unknown as Journal;
}

/** Removes a file and the folders that become empty, up to the project's own. */
function removeFile(root: string, path: string): void {
  rmSync(path, { force: true });
  for (let folder = dirname(path); isInside(root, folder); folder = dirname(folder)) {
    if (!existsSync(folder)) continue;
    if (readdirSync(folder).length > 0) return;
    rmdirSync(folder);
  }
}
