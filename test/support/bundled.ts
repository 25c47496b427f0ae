import { pathToFileURL } from "node:url";
import { buildSync } from "esbuild";
import type { TemporaryProject } from "./temporaryProject.js";

/** A module of a project, bundled with what it imports, as an app would ship it. */
export function bundle(project: TemporaryProject, path: string): string {
  const outfile = project.path("bundled.mjs");
  buildSync({ entryPoints: [project.path(path)], outfile, bundle: true, format: "esm", logLevel: "error" });
  return outfile;
}

/** Returns the exports of a project's module, loaded from its bundle. */
export async function bundled<Exports>(project: TemporaryProject, path: string): Promise<Exports> {
  return (await import(pathToFileURL(bundle(project, path)).href)) as Exports;
}
