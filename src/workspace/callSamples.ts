import { codeLines } from "../core/text/codeLines.js";
import { operationLabel, type Contract } from "../core/contract/model.js";
import { rootFields } from "../core/graphql/documents/draftDocument.js";
import { selectedRootFields } from "../core/graphql/documents/selectedRootFields.js";
import type { Language } from "../core/languages/language.js";
import { settledSettings, type SdkSettings } from "../core/languages/settings.js";
import type { Sample } from "../core/outline/outline.js";
import { lowerSdk } from "../core/sdk/lower/lowerSdk.js";
import type { ContractReading } from "../core/contract/contractReading.js";
import { usualLanguage } from "./languages/index.js";
import type { OpenedProject } from "./project/openProject.js";
import { mappedScalars, planContract, readQueries } from "./generate/planContract.js";
import type { ProjectTexts } from "./generate/sdkInputs.js";

/** Returns the languages of the SDKs that cover a contract, that of its first SDK first, with the SDKs' settings. */
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

/**
 * Returns code that makes each call of a contract, in the languages of its SDKs.
 *
 * @returns the code by the label of an operation ("GET /berths"), or by the root field of a query in the project
 * ("Query.voyages")
 */
export async function callSamples(
  project: OpenedProject,
  reading: ContractReading & { readonly contract: Contract },
  texts: ProjectTexts,
): Promise<Map<string, readonly Sample[]>> {
  const samples = new Map<string, Sample[]>();
  for (const { language, settings } of await languagesOf(project, reading.contract.name))
    for (const [label, code] of samplesIn(project, { reading, texts }, { language, settings }))
      samples.set(label, [
        ...(samples.get(label) ?? []),
        { language: language.title, code: code.flatMap((line) => codeLines(line, widest)).join("\n") },
      ]);
  return samples;
}

/** The columns of a line, which fit on the stand-in server's page and in an outline. */
const widest = 68;

/** The largest number of queries that are shown for one root field. */
const mostShown = 3;

function samplesIn(
  { configuration }: OpenedProject,
  {
    reading,
    texts,
  }: { readonly reading: ContractReading & { readonly contract: Contract }; readonly texts: ProjectTexts },
  { language, settings }: { readonly language: Language; readonly settings: SdkSettings },
): Map<string, readonly string[]> {
  const { contract, schema } = reading;
  const shared = settledSettings(language.settings, settings);
  const queries = readQueries(contract.name, reading, { texts, pick: shared });
  const configured = configuration.contracts[contract.name];
  const found = new Map<string, string[]>();
  if (!configured) return found;
  const plan = planContract(contract, queries, {
    configured,
    plannedFor: {
      language: language.id,
      settings: { ...settings, unions: shared.unions },
    },
  });
  const [lowered] = lowerSdk({ name: "sample", contracts: [plan] }, shared).contracts;
  const scalars = new Map([[contract.name, mappedScalars(configured, language.id)]]);
  const spelling = lowered && language.spelling?.(lowered, { settings, scalars });
  if (!spelling) return found;
  const add = (label: string, code: string): void => {
    const known = found.get(label) ?? [];
    if (known.length < mostShown) found.set(label, [...known, code]);
  };
  const roots = schema ? rootFields(schema) : [];
  if (lowered.protocol === "rest")
    for (const each of lowered.calls) add(operationLabel(each.call.operation), spelling.sample(each));
  else
    for (const each of lowered.calls) {
      const { root, text } = each.call.operation;
      const type = roots.find(({ kind }) => kind === root)?.type.name ?? "";
      for (const field of selectedRootFields(text)) add(`${type}.${field}`, spelling.sample(each));
    }
  return found;
}
