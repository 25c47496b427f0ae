import type { Change } from "../core/change/change.js";
import { compareContracts } from "../core/change/impact.js";
import type { SdkFacts } from "../core/change/sdkFacts.js";
import { heavier } from "../core/change/verdict.js";
import type { Contract } from "../core/contract/model.js";
import { typescriptSdkFacts } from "../core/languages/typescript/sdkFacts.js";
import { mappedScalars } from "./buildSdk.js";
import type { Project } from "./project.js";

/**
 * Every difference between two versions of a contract as the project's SDKs see it: where several cover it with other
 * settings, a change counts as it does for the one that it hits hardest.
 */
export function compareForSdks(before: Contract, after: Contract, project: Project | undefined): Change[] {
  const merged = new Map<string, Change>();
  for (const facts of sdkFacts(project, before.name)) {
    for (const change of compareContracts(before, after, facts)) {
      const key = JSON.stringify([change.code, change.face, change.subject, change.message]);
      const known = merged.get(key);
      const verdict = known
        ? {
            code: heavier(known.verdict.code, change.verdict.code),
            apps: heavier(known.verdict.apps, change.verdict.apps),
          }
        : change.verdict;
      merged.set(key, { ...(known ?? change), verdict });
    }
  }
  return [...merged.values()];
}

function sdkFacts(project: Project | undefined, contract: string): SdkFacts[] {
  const own = project?.configuration.contracts[contract];
  const sdks = Object.values(project?.configuration.sdks ?? {}).filter(({ covers }) => covers.includes(contract));
  if (!own || sdks.length === 0) return [typescriptSdkFacts()];
  const settings = new Map(sdks.map((sdk) => [JSON.stringify(sdk.settings ?? {}), sdk.settings ?? {}]));
  return [...settings.values()].map((each) => {
    const formats = Object.entries(each.formats ?? {}).map(([format, { type }]): [string, string] => [format, type]);
    return typescriptSdkFacts(each, own, new Map([...formats, ...mappedScalars(own)]));
  });
}
