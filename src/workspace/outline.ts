import { Side } from "./sources/side.js";
import type { ContractReading } from "../core/contract/contractReading.js";
import { ShownTexts } from "../core/problem/shownTexts.js";
import { operationLabel, type Contract, type RestContract } from "../core/contract/model.js";
import { readQueryDocuments } from "../core/graphql/documents/readQueryDocuments.js";
import { narrowed, type Outline, type OutlineDetail, type UsesOf } from "../core/outline/outline.js";
import {
  detailOfGraphql,
  namesInGraphql,
  outlineGraphql,
  type GraphqlOutlineSource,
} from "../core/outline/outlineGraphql.js";
import { detailOfRest, namesInRest, outlineRest, type RestOutlineSource } from "../core/outline/outlineRest.js";
import type { Place } from "../core/problem/place.js";
import { problem } from "../core/problem/problem.js";
import { planRest } from "../core/sdk/planRest.js";
import { didYouMean } from "../core/text/nearest.js";
import { callSamples, languagesOf } from "./callSamples.js";
import { ContractReader } from "./sources/contractReader.js";
import { findSourceUses } from "./uses/findSourceUses.js";
import { exitCodes, Halt } from "./project/halt.js";
import { allOrHalt } from "./project/allOrHalt.js";
import type { OpenedProject } from "./project/openProject.js";
import { ProjectTexts } from "./generate/sdkInputs.js";
import { sourceText } from "./sources/sources.js";

export interface OutlineRequest {
  /** The names of contracts. */
  readonly contracts: readonly string[];
  /** Only parts with this text. */
  readonly find: string;
  /** Only parts that the project does not use. */
  readonly unused: boolean;
  /** One operation or type, with all details. */
  readonly about: string | undefined;
}

export interface OutlineOutcome {
  readonly outlines: readonly Outline[];
  readonly details: readonly (OutlineDetail & { readonly contract: string })[];
  readonly texts: ShownTexts;
}

/**
 * Returns what contracts offer, and which parts the project uses, in its query documents and its source.
 *
 * @throws Halt if a contract cannot be read, or the wanted name does not exist
 */
export async function outline(project: OpenedProject, wanted: OutlineRequest): Promise<OutlineOutcome> {
  const texts = new ProjectTexts(project);
  await texts.readHosts(wanted.contracts);
  const reader = new ContractReader(texts);
  allOrHalt(wanted.contracts, (name) => reader.read(name));
  const outlines: Outline[] = [];
  const details: (OutlineDetail & { contract: string })[] = [];
  const names: string[] = [];
  for (const name of wanted.contracts) {
    const reading = reader.read(name);
    const { contract, schema } = reading;
    if (contract.protocol === "rest") {
      const source = await restSource(project, { reading, texts }, contract);
      if (wanted.about === undefined) outlines.push(narrowed(outlineRest(source), wanted.find, wanted.unused));
      else {
        const detail = detailOfRest(source, wanted.about);
        if (detail) details.push({ ...detail, contract: name });
        names.push(...namesInRest(source));
      }
    } else if (schema) {
      const samples =
        wanted.about === undefined ? new Map<string, never>() : await callSamples(project, reading, texts);
      const source = { ...graphqlSource(name, schema, texts), samplesOf: (label: string) => samples.get(label) ?? [] };
      if (wanted.about === undefined) outlines.push(narrowed(outlineGraphql(source), wanted.find, wanted.unused));
      else {
        const detail = detailOfGraphql(source, wanted.about);
        if (detail) details.push({ ...detail, contract: name });
        names.push(...namesInGraphql(source));
      }
    }
  }
  if (wanted.about !== undefined && details.length === 0) {
    const message = `No operation or type is named \`${wanted.about}\` in ${wanted.contracts.join(" or ")}.`;
    const hint = didYouMean(wanted.about, names) ?? "`rhema outline --find TEXT` searches.";
    throw new Halt([problem("outline.unknown", message, { hint })], exitCodes.usage);
  }
  const shown = new ShownTexts((document) => texts.find(document) ?? sourceText(project, document));
  return { outlines, details, texts: shown };
}

function graphqlSource(
  contract: string,
  schema: GraphqlOutlineSource["schema"],
  texts: ProjectTexts,
): GraphqlOutlineSource {
  const byCoordinate = new Map<string, Place[]>();
  for (const { coordinate, place } of readQueryDocuments(schema, texts.queries(contract).texts).uses)
    byCoordinate.set(coordinate, [...(byCoordinate.get(coordinate) ?? []), place]);
  return {
    contract,
    schema,
    usesOf: (coordinate) => byCoordinate.get(coordinate) ?? [],
    used: new Set(byCoordinate.keys()),
  };
}

async function restSource(
  project: OpenedProject,
  {
    reading,
    texts,
  }: { readonly reading: ContractReading & { readonly contract: Contract }; readonly texts: ProjectTexts },
  contract: RestContract,
): Promise<RestOutlineSource> {
  const plan = planRest(contract, project.configuration.contracts[contract.name] ?? {});
  const { calls } = plan;
  const names = (await languagesOf(project, contract.name)).map(({ language }) => language.names(plan));
  const samples = await callSamples(project, reading, texts);
  const [first] = names;
  const callOf = new Map(calls.map((call) => [operationLabel(call.operation), first?.call(call).call ?? call.name]));
  const namesOf = new Map<string, string[]>();
  for (const call of calls) {
    const label = operationLabel(call.operation);
    const own = names.flatMap((each) => {
      const { call: name, allPages } = each.call(call);
      return [name, ...allPages];
    });
    namesOf.set(label, [...(namesOf.get(label) ?? []), ...own]);
  }
  return {
    contract,
    callOf,
    usesOf: await usesByLabel(project, reading, namesOf),
    samplesOf: (label) => samples.get(label) ?? [],
  };
}

async function usesByLabel(
  project: OpenedProject,
  reading: ContractReading & { readonly contract: Contract },
  namesOf: ReadonlyMap<string, readonly string[]>,
): Promise<UsesOf> {
  const { uses, unknown } = await findSourceUses(project, { side: new Side(reading), isWritten: true });
  const byName = new Map<string, Place[]>();
  for (const { coordinate, kind, place } of uses)
    if (kind === "calls") byName.set(coordinate, [...(byName.get(coordinate) ?? []), place]);
  return (label) => {
    const places = (namesOf.get(label) ?? []).flatMap((name) => byName.get(name) ?? []);
    return places.length === 0 && unknown.length > 0 ? undefined : places;
  };
}
