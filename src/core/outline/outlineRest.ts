import { reachedTypes } from "../contract/reachedTypes.js";
import { operationLabel, type RestContract, type RestOperation, type TypeDefinition } from "../contract/model.js";
import { operationLines, shapeLines } from "../contract/shapeLines.js";
import { shapesOf } from "../rest/readRestContract.js";
import { sortedBy } from "../text/sortedBy.js";
import { adviseRest } from "./advice.js";
import { useOf, type Outline, type OutlineDetail, type OutlineEntry, type Sample, type UsesOf } from "./outline.js";
import { firstSentence, shapeCount } from "./shapeCount.js";

/** The source of a REST contract's outline. */
export interface RestOutlineSource {
  readonly contract: RestContract;
  /** The SDK's name of each operation; operations that the configuration leaves out have none. */
  readonly callOf: ReadonlyMap<string, string>;
  /** The uses of an operation, by its label. */
  readonly usesOf: UsesOf;
  /** Code that calls an operation, by its label. */
  readonly samplesOf?: (label: string) => readonly Sample[];
}

/** Outlines a REST contract: its operations by group, and its types. */
export function outlineRest(source: RestOutlineSource): Outline {
  const { contract } = source;
  const groups = new Map<string, OutlineEntry[]>();
  for (const operation of contract.operations) {
    const entry = entryOf(operation, source);
    groups.set(operation.group, [...(groups.get(operation.group) ?? []), entry]);
  }
  const reaching = operationsReaching(source);
  return {
    contract: contract.name,
    protocol: "rest",
    title: contract.title,
    version: contract.version,
    groups: sortedBy(groups, ([name]) => name).map(([name, entries]) => ({
      name,
      summary: firstSentence(contract.tags.get(name)?.summary ?? contract.tags.get(name)?.description),
      entries,
    })),
    types: sortedBy(contract.types.values(), ({ name }) => name).map((type) => {
      const by = reaching.get(type.key) ?? [];
      const uses = by.map((label) => source.usesOf(label));
      return {
        name: type.name,
        what: shapeCount(type.shape),
        summary: firstSentence(type.description),
        use: uses.includes(undefined) ? "cannot tell" : useOf(uses.flatMap((places) => places ?? [])),
      };
    }),
    advice: adviseRest(contract),
  };
}

function entryOf(operation: RestOperation, { callOf, usesOf }: RestOutlineSource): OutlineEntry {
  const label = operationLabel(operation);
  const places = usesOf(label);
  return {
    label,
    name: callOf.get(label) ?? "(left out)",
    summary: firstSentence(operation.summary ?? operation.description),
    deprecated: operation.deprecated,
    use: useOf(places),
    places: places ?? [],
  };
}

/** The labels of the operations that use each type, by the type's key. */
function operationsReaching({ contract }: RestOutlineSource): Map<string, string[]> {
  const found = new Map<string, string[]>();
  for (const operation of contract.operations) {
    const label = operationLabel(operation);
    for (const key of reachedTypes(shapesOf(operation), (each) => contract.types.get(each)?.shape)) {
      const known = found.get(key);
      if (known) known.push(label);
      else found.set(key, [label]);
    }
  }
  return found;
}

/**
 * Returns the details of an operation (by call, operationId or label) or a type.
 *
 * @returns undefined if there is none with that name
 */
export function detailOfRest(source: RestOutlineSource, name: string): OutlineDetail | undefined {
  const { contract, callOf, usesOf, samplesOf } = source;
  const isNamed = (operation: RestOperation): boolean => {
    const label = operationLabel(operation);
    return [label, operation.operationId, callOf.get(label)].includes(name);
  };
  const operation = contract.operations.find(isNamed);
  if (operation) {
    const label = operationLabel(operation);
    const places = usesOf(label);
    return {
      title: label,
      description:
        [operation.summary, operation.description].filter((text) => text !== undefined).join("\n") || undefined,
      samples: samplesOf?.(label) ?? [],
      lines: operationLines(operation).filter((line) => line !== label),
      use: useOf(places),
      places: places ?? [],
      reachedBy: [],
      reaches: inFull(
        contract,
        reachedTypes(shapesOf(operation), (key) => contract.types.get(key)?.shape),
      ),
    };
  }
  const type = [...contract.types.values()].find((each) => each.name === name || each.key === name);
  if (!type) return undefined;
  const reachedBy = operationsReaching(source).get(type.key) ?? [];
  const uses = reachedBy.map((label) => usesOf(label));
  const places = uses.includes(undefined) ? undefined : uses.flatMap((each) => each ?? []);
  const reached = reachedTypes([type.shape], (key) => contract.types.get(key)?.shape);
  reached.delete(type.key);
  return {
    title: type.name,
    description: type.description,
    samples: [],
    lines: shapeLines(type.shape),
    use: useOf(places),
    places: places ?? [],
    reachedBy,
    reaches: inFull(contract, reached),
  };
}

function inFull({ types }: RestContract, keys: Iterable<string>): { title: string; lines: string[] }[] {
  return [...keys]
    .map((key) => types.get(key))
    .filter((type): type is TypeDefinition => type !== undefined)
    .map(({ name, shape }) => ({ title: name, lines: shapeLines(shape) }));
}

/** Returns every name that `detailOfRest` accepts. */
export function namesInRest({ contract, callOf }: RestOutlineSource): string[] {
  return [
    ...contract.operations.flatMap((operation) => {
      const label = operationLabel(operation);
      return [label, operation.operationId ?? label, callOf.get(label) ?? label];
    }),
    ...[...contract.types.values()].map(({ name }) => name),
  ];
}
