import { join } from "node:path";
import { operationLabel, type Contract } from "../core/contract/model.js";
import type { ProjectUses } from "../core/change/impact.js";
import type { ContractReading } from "../core/readContract.js";
import { planRest } from "../core/sdk/planRest.js";
import type { SourceUse } from "../core/use/sourceUse.js";
import { buildSdk } from "./buildSdk.js";
import type { SdkConfiguration } from "./configuration.js";
import { ContractReader } from "./contractReader.js";
import type { MadeFiles, SdkPart } from "./languages/languageTools.js";
import { outputFolder } from "./project.js";
import type { OpenedProject } from "./openProject.js";
import { ProjectTexts } from "./sdkInputs.js";
import type { LoadedLanguage } from "./session.js";

/** What is known of the use of a contract in source. */
export interface FoundSourceUses {
  readonly uses: readonly SourceUse[];
  /** SDKs in a language whose source nobody can look through, and those that are not written beside others that are. */
  readonly unknown: readonly string[];
}

/**
 * Where the app's source depends on the SDKs of a contract, by the knowledge of each language's compiler. A compiler is
 * only loaded when there is an SDK and source beside it.
 *
 * @param made the contract to make the SDKs from in memory, where those that are written were made from another: what
 * is gone cannot be found with an SDK that does not have it any more
 * @returns undefined when no SDK of the contract is written, and none is made
 */
export async function findSourceUses(
  project: OpenedProject,
  contract: string,
  made?: ContractReading & { readonly contract: Contract },
): Promise<FoundSourceUses | undefined> {
  const uses: SourceUse[] = [];
  const unknown: string[] = [];
  const unwritten: string[] = [];
  let isAnyThere = false;
  for (const { loaded, sdks } of await coveringByLanguage(project, contract)) {
    const { uses: scanner } = loaded.tools;
    if (!scanner) {
      unknown.push(...sdks.map(([sdk]) => sdk));
      continue;
    }
    const { connect } = loaded.language.contractNames(contract);
    const parts = sdks.map(([sdk, { into }]): SdkPart => {
      const folder = join(outputFolder(project, sdk, into), contract);
      return { sdk, contract, folder, connect };
    });
    const there = parts.filter((part) => made !== undefined || scanner.isWritten(part));
    unwritten.push(...parts.filter((part) => !there.includes(part)).map(({ sdk }) => sdk));
    if (there.length === 0) continue;
    isAnyThere = true;
    const files = made && (await filesOf(project, made, sdks, parts));
    uses.push(...(await scanner.find(project, there, files)));
  }
  return isAnyThere || unknown.length > 0 ? { uses, unknown: [...unknown, ...unwritten] } : undefined;
}

/**
 * Where the app's source names the calls of a REST contract, for when no SDK of it is written.
 *
 * @returns what source names, by operation label
 */
export async function searchSource(
  project: OpenedProject,
  contract: Contract & { readonly protocol: "rest" },
): Promise<Pick<ProjectUses, "calls" | "named">> {
  const found: Pick<ProjectUses, "calls" | "named">[] = [];
  const plan = planRest(contract, project.configuration.contracts[contract.name] ?? {});
  for (const { loaded } of await coveringByLanguage(project, contract.name)) {
    const names = loaded.language.names(plan);
    const labels = new Map(plan.calls.map((call) => [names.call(call).call, operationLabel(call.operation)]));
    if (loaded.tools.uses) found.push(loaded.tools.uses.search(project, labels));
  }
  const labels = new Set(found.flatMap(({ calls }) => [...calls.keys()]));
  return {
    calls: new Map([...labels].map((label) => [label, found.flatMap(({ calls }) => calls.get(label) ?? [])])),
    named: (word) => found.flatMap(({ named }) => named(word)),
  };
}

type NamedSdk = readonly [string, SdkConfiguration];

/** The SDKs that cover a contract, by their language. */
async function coveringByLanguage(
  project: OpenedProject,
  contract: string,
): Promise<{ readonly loaded: LoadedLanguage; readonly sdks: readonly NamedSdk[] }[]> {
  const covering = Object.entries(project.configuration.sdks).filter(([, { covers }]) => covers.includes(contract));
  const ids = [...new Set(covering.map(([, { language }]) => language))];
  return Promise.all(
    ids.map(async (id) => ({
      loaded: await project.session.language(id),
      sdks: covering.filter(([, { language }]) => language === id),
    })),
  );
}

/** The files that a contract gives its SDKs, in the place of those that are written; what others give stays. */
async function filesOf(
  project: OpenedProject,
  made: ContractReading & { readonly contract: Contract },
  sdks: readonly NamedSdk[],
  parts: readonly SdkPart[],
): Promise<MadeFiles> {
  const texts = new Map<string, string>();
  for (const [sdk, settings] of sdks) {
    const { name } = made.contract;
    const folder = outputFolder(project, sdk, settings.into);
    const alone = {
      ...project,
      configuration: { ...project.configuration, sdks: { [sdk]: { ...settings, covers: [name] } } },
    };
    const inputs = new ProjectTexts(alone);
    await inputs.readHosts([name]);
    const reader = new ContractReader(inputs).instead(name, made);
    for (const [path, text] of (await buildSdk(alone, sdk, reader)).files)
      if (path.startsWith(`${name}/`)) texts.set(join(folder, path), text);
  }
  return { texts, replaced: parts.map(({ folder }) => folder) };
}
