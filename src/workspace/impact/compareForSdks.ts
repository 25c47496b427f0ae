import type { Change } from "../../core/change/change.js";
import { comparedWhole } from "../../core/change/judge/impact.js";
import { mergedForSdks, type ChangesForSdk } from "../../core/change/judge/mergedForSdks.js";
import type { SdkFacts } from "../../core/change/sdkFacts.js";
import type { Contract } from "../../core/contract/model.js";
import { usualLanguage } from "../languages/index.js";
import { mappedScalars } from "../generate/planContract.js";
import type { Project } from "../project/project.js";
import type { Session } from "../project/session.js";

/**
 * Returns every difference between two versions of a contract, with the effect on each of the project's SDKs.
 *
 * @param project undefined if there is none
 */
export async function compareForSdks(
  [before, after]: readonly [Contract, Contract],
  project: Project | undefined,
  session: Session,
): Promise<Change[]> {
  const compared = new Map<string, Change[]>();
  const bySdk: ChangesForSdk[] = [];
  for (const { sdk, key, facts } of await factsOfSdks(project, before.name, session)) {
    // SDKs of one language with the same settings have the same changes.
    const changes = compared.get(key) ?? comparedWhole(before, after, facts);
    compared.set(key, changes);
    bySdk.push({ sdk, changes });
  }
  return mergedForSdks(bySdk);
}

interface FactsOfSdk {
  readonly sdk: string;
  readonly key: string;
  readonly facts: SdkFacts;
}

/** The facts of each SDK of a contract; without an SDK, those of the usual language. */
async function factsOfSdks(project: Project | undefined, contract: string, session: Session): Promise<FactsOfSdk[]> {
  const own = project?.configuration.contracts[contract];
  const sdks = Object.entries(project?.configuration.sdks ?? {}).filter(([, { covers }]) => covers.includes(contract));
  if (!own || sdks.length === 0) {
    const { language } = await session.language(usualLanguage);
    return [{ sdk: "", key: "", facts: language.facts({ settings: {}, rest: {}, scalars: new Map() }) }];
  }
  return Promise.all(
    sdks.map(async ([sdk, { language: id, settings = {} }]) => {
      const { language } = await session.language(id);
      const scalars = mappedScalars(own, id);
      const facts = language.facts({ settings, rest: own, scalars });
      return { sdk, key: JSON.stringify([id, settings]), facts };
    }),
  );
}
