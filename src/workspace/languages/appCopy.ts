import {
  copyFileSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  realpathSync,
  rmSync,
  statSync,
  symlinkSync,
  writeFileSync,
} from "node:fs";
import { tmpdir } from "node:os";
import { dirname, join, relative, sep } from "node:path";
import type { MadeFiles } from "./languageTools.js";

/** The folders that tools create, not people. */
const outputs = new Set(["dist", "build", "out", "coverage", ".git", ".gradle", ".next", ".nuxt", ".svelte-kit"]);
const packages = "node_modules";
const largestCopied = 1_000_000;

/**
 * A copy of an app in a folder of its own, for tools that read files from disk. Links replace the files around the app,
 * and output of a tool stays in the copy.
 */
export class AppCopy {
  private readonly whole = mkdtempSync(join(realpathSync(tmpdir()), "rhema-proof-"));
  /** The app's folder in the copy. */
  readonly root: string;

  /** @param appRoot the absolute path of the app's folder */
  constructor(private readonly appRoot: string) {
    const base = outermost(appRoot);
    const steps = relative(base, appRoot)
      .split(sep)
      .filter((step) => step !== "");
    let from = base;
    let to = this.whole;
    for (const step of steps) {
      for (const name of readdirSync(from))
        if (name !== step && name !== ".git") place(join(from, name), join(to, name), name);
      from = join(from, step);
      to = join(to, step);
      mkdirSync(to);
    }
    this.root = to;
    copyFolder(appRoot, to);
  }

  /** Replaces files. */
  put({ texts, replaced }: MadeFiles): void {
    for (const folder of replaced) rmSync(this.inside(folder), { recursive: true, force: true });
    for (const [path, text] of texts) {
      const target = this.inside(path);
      mkdirSync(dirname(target), { recursive: true });
      writeFileSync(target, text);
    }
  }

  /** Removes the output of a build: a build that continues from it checks only a part of the source. */
  removeBuilt(): void {
    removeOutputs(this.root);
  }

  remove(): void {
    rmSync(this.whole, { recursive: true, force: true });
  }

  private inside(path: string): string {
    return join(this.root, relative(this.appRoot, path));
  }
}

/** The folder with everything that an app may refer to: its repository, or its workspace. */
function outermost(root: string): string {
  let found = root;
  for (let folder = root; ; folder = dirname(folder)) {
    if (existsSync(join(folder, packages)) || existsSync(join(folder, "package.json"))) found = folder;
    if (existsSync(join(folder, ".git"))) return folder;
    if (folder === dirname(folder)) return found;
  }
}

/** Whether a tool creates a folder. Inside sources, a package may have such a name. */
function isOutput(parent: string, name: string): boolean {
  if (parent.split(sep).includes("src")) return false;
  return outputs.has(name) || (name === "target" && existsSync(join(parent, "pom.xml")));
}

function removeOutputs(folder: string): void {
  for (const entry of readdirSync(folder, { withFileTypes: true })) {
    if (!entry.isDirectory() || entry.name === packages) continue;
    const path = join(folder, entry.name);
    if (isOutput(folder, entry.name)) rmSync(path, { recursive: true, force: true });
    else removeOutputs(path);
  }
}

function copyFolder(from: string, to: string): void {
  for (const entry of readdirSync(from, { withFileTypes: true })) {
    const { name } = entry;
    if (entry.isDirectory() && isOutput(from, name)) continue;
    const source = join(from, name);
    const target = join(to, name);
    if (name === packages || !entry.isDirectory()) place(source, target, name);
    else {
      mkdirSync(target);
      copyFolder(source, target);
    }
  }
}

/**
 * A file as a copy if it is not large, otherwise as a link. Installed packages are linked one by one, so that nothing
 * is written next to them.
 */
function place(source: string, target: string, name: string): void {
  const found = statSync(source, { throwIfNoEntry: false });
  if (!found) return;
  if (found.isFile() && found.size <= largestCopied) copyFileSync(source, target);
  else if (name === packages && found.isDirectory()) {
    mkdirSync(target);
    for (const each of readdirSync(source))
      if (!each.startsWith(".") || each === ".bin" || each === ".pnpm")
        symlinkSync(join(source, each), join(target, each));
  } else if (found.isFile() || found.isDirectory()) symlinkSync(source, target);
}
