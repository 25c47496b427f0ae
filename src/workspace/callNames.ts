import { readFileSync } from "node:fs";
import { join } from "node:path";
import { outputFolder, type Project } from "./project/project.js";

/**
 * The names of the calls that a project's SDKs have, as their README lists them: reading a large contract takes longer
 * than somebody waits who completes a line. None of SDKs that are not written yet.
 */
export function callNames(project: Project): string[] {
  const names = Object.entries(project.configuration.sdks).flatMap(([sdk, { into }]) =>
    listedIn(join(outputFolder(project, sdk, into), "README.md")),
  );
  return [...new Set(names)];
}

function listedIn(readme: string): string[] {
  try {
    return [...readFileSync(readme, "utf8").matchAll(/^- \[?`([^`\n]+)`/gm)].map(([, name = ""]) => name);
  } catch {
    return [];
  }
}
