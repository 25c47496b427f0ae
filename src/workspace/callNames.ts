import { readFileSync } from "node:fs";
import { join } from "node:path";
import { outputFolder, type Project } from "./project/project.js";

/**
 * Returns the names of the calls in a project's SDKs, from their READMEs, because reading a large contract would take
 * too long for completion. SDKs that are not written yet have none.
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
