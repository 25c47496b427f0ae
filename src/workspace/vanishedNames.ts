import { existsSync } from "node:fs";
import { basename, dirname, join, relative, resolve } from "node:path";
import { problem, type Problem } from "../core/problem/problem.js";
import { didYouMean } from "../core/text/nearest.js";
import type { BuiltSdk } from "./buildSdk.js";
import { readSources } from "./findCallUses.js";
import { displayPath, outputFolder, type Project } from "./project.js";
import { readText } from "./textFile.js";

/**
 * What the GraphQL part of an SDK exports on disk, no longer will, and the app still imports: most often the query it
 * was made from was deleted or renamed. The app is only searched when something vanishes.
 */
export function vanishedNames(project: Project, sdk: string, built: BuiltSdk): Problem[] {
  const folder = outputFolder(project, sdk, project.configuration.sdks[sdk]?.into ?? "");
  const contracts = built.contracts
    .filter(({ contract }) => contract.protocol === "graphql")
    .map(({ plan }) => plan.name);
  const isOurs = (path: string): boolean =>
    contracts.some((name) => path.startsWith(`${name}/calls/`) || path === `${name}/shapes.ts`) && path.endsWith(".ts");
  const now = new Set([...built.files].flatMap(([path, text]) => (isOurs(path) ? exportedNames(text) : [])));
  const before = contracts.flatMap((name) => writtenNames(join(folder, name)));
  const vanished = new Set(before.filter((name) => !now.has(name)));
  if (vanished.size === 0) return [];
  return readSources(project).flatMap(({ document, text }) =>
    importsFrom(text, resolve(project.root, document), folder).flatMap(({ name, offset }) => {
      if (!vanished.has(name)) return [];
      const hint = didYouMean(name, now) ?? "Bring its query back, or take the import out.";
      return [
        problem("query.vanished", `\`${name}\` is no longer generated, and \`${document}\` imports it.`, {
          level: "warning",
          place: { document, offset, length: name.length },
          why: `No query document of ${displayPath(project, folder)} makes it any more.`,
          hint,
        }),
      ];
    }),
  );
}

/** Exports of the calls and shapes that were written before. */
function writtenNames(folder: string): string[] {
  const index = join(folder, "index.ts");
  if (!existsSync(index)) return [];
  return [...readText(index).matchAll(/ from "\.\/((?:calls\/)?[\w-]+)(?:\.js)?"/g)].flatMap(([, module = ""]) => {
    const path = join(folder, `${module}.ts`);
    return (module.startsWith("calls/") || module === "shapes") && existsSync(path)
      ? exportedNames(readText(path))
      : [];
  });
}

function exportedNames(text: string): string[] {
  return [...text.matchAll(/^export (?:async )?(?:const|function|interface|type) ([\w$]+)/gm)].map(
    ([, name = ""]) => name,
  );
}

/** Names imported from anywhere inside a folder, or by an alias that ends as the folder does. */
function importsFrom(text: string, file: string, folder: string): { name: string; offset: number }[] {
  const found: { name: string; offset: number }[] = [];
  for (const match of text.matchAll(/\b(?:import|export)\s+(?:type\s+)?\{([^}]*)\}\s*from\s*["']([^"'\n]+)["']/g)) {
    const [whole, list = "", from = ""] = match;
    const isInside = from.startsWith(".")
      ? !relative(folder, resolve(dirname(file), from)).startsWith("..")
      : from.split("/").includes(basename(folder));
    if (!isInside) continue;
    const start = match.index + whole.indexOf("{") + 1;
    for (const each of list.matchAll(/(?:^|,)\s*(?:type\s+)?([\w$]+)/g))
      found.push({ name: each[1] ?? "", offset: start + each.index + each[0].lastIndexOf(each[1] ?? "") });
  }
  return found;
}
