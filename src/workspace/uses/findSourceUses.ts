import type { Side } from "../sources/side.js";
import { existsSync } from "node:fs";
import { join } from "node:path";
import type { SourceUse } from "../../core/use/sourceUse.js";
import { buildSdk } from "../generate/buildSdk.js";
import type { SdkConfiguration } from "../configuration/configuration.js";
import { ContractReader } from "../sources/contractReader.js";
import type { MadeFiles, SdkPart } from "../languages/languageTools.js";
import { isInside, outputFolder } from "../project/project.js";
import type { OpenedProject } from "../project/openProject.js";
import { ProjectTexts } from "../generate/sdkInputs.js";
import { sdkPart } from "./sdkPart.js";
import type { LoadedLanguage } from "../project/session.js";
import { isWorthThread } from "./usesBeside.js";

/** The known uses of a contract in source. */
export interface FoundSourceUses {
  readonly uses: readonly SourceUse[];
  /** SDKs in a language whose source cannot be searched. */
  readonly unknown: readonly string[];
}

/** The contract that source was written for. */
export interface WrittenAgainst {
  readonly side: Side;
  /** Whether the SDKs on disk were made from it. */
  readonly isWritten: boolean;
}

/**
 * Returns the places where the app's source uses the SDKs of a contract, from each language's compiler. An SDK that is
 * not written, or was made from another version, is made in memory: a removed part can only be found with an SDK that
 * has it. A compiler is loaded only if there is source.
 *
 * @param wanted the SDKs to look for. Default: all that cover the contract
 */
export async function findSourceUses(
  project: OpenedProject,
  { side, isWritten }: WrittenAgainst,
  wanted?: ReadonlySet<string>,
): Promise<FoundSourceUses> {
  const { name } = side.contract;
  const uses: SourceUse[] = [];
  const unknown: string[] = [];
  for (const { loaded, sdks } of await coveringByLanguage(project, name, wanted)) {
    const { uses: scanner } = loaded.tools;
    if (!scanner) {
      unknown.push(...sdks.map(([sdk]) => sdk));
      continue;
    }
    if (!scanner.hasSources(project)) continue;
    const parts = partsOf(project, name, { loaded, sdks });
    const lacking = parts.filter((part) => !isWritten || !scanner.isWritten(part));
    const made = lacking.length > 0 ? await filesOf(project, side, lacking) : undefined;
    const begun = made ? undefined : await project.session.usesBeside.found(project, parts);
    // An app may have more of them than a function can have arguments.
    for (const use of begun ?? (await scanner.find(project, parts, made))) uses.push(use);
  }
  return { uses, unknown };
}

/**
 * Starts the search for uses of a contract whose SDKs are on disk, so that it runs while the contract is compared.
 * `findSourceUses` returns its result.
 */
export async function beginSourceUses(project: OpenedProject, contract: string): Promise<void> {
  for (const covering of await coveringByLanguage(project, contract)) {
    const { language, tools } = covering.loaded;
    const parts = partsOf(project, contract, covering);
    // Reading the whole app comes last, because most SDKs are small.
    if (!isWorthThread(parts) || !parts.every((part) => tools.uses?.isWritten(part))) continue;
    if (tools.uses?.hasSources(project)) project.session.usesBeside.begin(project, language.id, parts);
  }
}

interface Covering {
  readonly loaded: LoadedLanguage;
  readonly sdks: readonly NamedSdk[];
}

function partsOf(project: OpenedProject, contract: string, { loaded, sdks }: Covering): SdkPart[] {
  return sdks.map(([sdk]) => sdkPart(project, { sdk, contract, language: loaded.language }));
}

type NamedSdk = readonly [string, SdkConfiguration];

/** The SDKs that cover a contract, by their language. */
async function coveringByLanguage(
  project: OpenedProject,
  contract: string,
  wanted?: ReadonlySet<string>,
): Promise<Covering[]> {
  const covering = Object.entries(project.configuration.sdks).filter(
    ([sdk, { covers }]) => covers.includes(contract) && wanted?.has(sdk) !== false,
  );
  const ids = [...new Set(covering.map(([, { language }]) => language))];
  return Promise.all(
    ids.map(async (id) => ({
      loaded: await project.session.language(id),
      sdks: covering.filter(([, { language }]) => language === id),
    })),
  );
}

/** The files of some SDKs for a contract, in place of those on disk. The parts of other contracts stay. */
async function filesOf(project: OpenedProject, side: Side, parts: readonly SdkPart[]): Promise<MadeFiles> {
  const texts = new Map<string, string>();
  const replaced: string[] = [];
  for (const { sdk, contract, folder } of parts) {
    const settings = project.configuration.sdks[sdk];
    if (!settings) continue;
    const alone = {
      ...project,
      configuration: { ...project.configuration, sdks: { [sdk]: { ...settings, covers: [contract] } } },
    };
    const inputs = new ProjectTexts(alone);
    await inputs.readHosts([contract]);
    const reader = new ContractReader(inputs).instead(contract, side);
    const whole = outputFolder(project, sdk, settings.into);
    for (const [path, text] of (await buildSdk(alone, sdk, reader)).files) {
      const target = join(whole, path);
      // Files for all contracts already exist if another contract is written.
      if (isInside(folder, target) || !existsSync(target)) texts.set(target, text);
    }
    replaced.push(folder);
  }
  return { texts, replaced };
}
