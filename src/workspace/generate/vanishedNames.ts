import { existsSync } from "node:fs";
import { join } from "node:path";
import { problem, type Problem } from "../../core/problem/problem.js";
import { didYouMean } from "../../core/text/nearest.js";
import type { BuiltSdk } from "./buildSdk.js";
import { readLedger } from "./ledger.js";
import { displayPath, outputFolder } from "../project/project.js";
import type { OpenedProject } from "../project/openProject.js";
import { readText } from "../files/textFile.js";

/**
 * Returns the names that the GraphQL part of an SDK is about to lose and that the app still imports, usually because
 * their query was deleted or renamed. The app is searched only if a name disappears.
 */
export async function vanishedNames(project: OpenedProject, sdk: string, built: BuiltSdk): Promise<Problem[]> {
  const configuration = project.configuration.sdks[sdk];
  const contracts = built.contracts
    .filter(({ contract }) => contract.protocol === "graphql")
    .map(({ plan }) => plan.name);
  if (!configuration || contracts.length === 0) return [];
  const folder = outputFolder(project, sdk, configuration.into);
  const { language, tools } = await project.session.language(configuration.language);
  const offered = (files: ReadonlyMap<string, string>): string[] =>
    contracts.flatMap((name) => [...language.exports(files, name)]);
  const now = new Set(offered(built.files));
  const vanished = new Set(
    offered(changedFiles(project, sdk, { builtSdk: built, folder })).filter((name) => !now.has(name)),
  );
  if (vanished.size === 0) return [];
  return (tools.uses?.importsFrom(project, folder) ?? []).flatMap(({ document, name, offset }) => {
    if (!vanished.has(name)) return [];
    const hint = didYouMean(name, now) ?? "Restore its query, or remove the import.";
    return [
      problem("query.vanished", `\`${name}\` is no longer generated, and \`${document}\` imports it.`, {
        level: "warning",
        place: { document, offset, length: name.length },
        why: `No query document of ${displayPath(project, folder)} generates it.`,
        hint,
      }),
    ];
  });
}

/** The files on disk that will be changed or removed. */
function changedFiles(
  project: OpenedProject,
  sdk: string,
  { builtSdk: { hashes }, folder }: { readonly builtSdk: BuiltSdk; readonly folder: string },
): ReadonlyMap<string, string> {
  const written = Object.entries(readLedger(project).sdks[sdk]?.files ?? {});
  const changed = written.map(([path, hash]) => ({ path, full: join(folder, path), hash }));
  return new Map(
    changed
      .filter(({ path, full, hash }) => hashes.get(path) !== hash && existsSync(full))
      .map(({ path, full }) => [path, readText(full)]),
  );
}
