import { operationLabel } from "../core/contract/model.js";
import type { Language } from "../core/languages/language.js";
import { settledSettings, type SdkSettings } from "../core/languages/settings.js";
import type { Sample } from "../core/outline/outline.js";
import { lowerSdk } from "../core/sdk/lower/lowerSdk.js";
import type { RestPlan } from "../core/sdk/sdkPlan.js";
import { usualLanguage } from "./languages/index.js";
import type { OpenedProject } from "./openProject.js";

/** The languages of the SDKs that cover a contract, that of its first SDK first, each with that SDK's settings. */
export async function languagesOf(
  { configuration, session }: OpenedProject,
  contract: string,
): Promise<{ readonly language: Language; readonly settings: SdkSettings }[]> {
  const covering = Object.values(configuration.sdks).filter(({ covers }) => covers.includes(contract));
  const ids = covering.length > 0 ? new Set(covering.map(({ language }) => language)) : [usualLanguage];
  return Promise.all(
    [...ids].map(async (id) => {
      const { language } = await session.language(id);
      return { language, settings: covering.find((each) => each.language === language.id)?.settings ?? {} };
    }),
  );
}

/** Code that performs each call of a contract, in the languages of its SDKs, by the operation's label. */
export async function callSamples(project: OpenedProject, plan: RestPlan): Promise<Map<string, readonly Sample[]>> {
  const samples = new Map<string, Sample[]>();
  for (const { language, settings } of await languagesOf(project, plan.name))
    for (const [label, code] of samplesIn(plan, language, settings))
      samples.set(label, [...(samples.get(label) ?? []), { language: language.title, code }]);
  return samples;
}

function samplesIn(plan: RestPlan, language: Language, settings: SdkSettings): Map<string, string> {
  const { contracts } = lowerSdk({ name: "sample", contracts: [plan] }, settledSettings(language.settings, settings));
  const [contract] = contracts;
  const spelling = contract && language.spelling?.(contract, { settings, scalars: new Map() });
  if (!spelling || contract.protocol !== "rest") return new Map();
  return new Map(contract.calls.map((lowered) => [operationLabel(lowered.call.operation), spelling.sample(lowered)]));
}
