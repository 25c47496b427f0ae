import type { GraphQLSchema } from "graphql";
import {
  isEnumType,
  isInputObjectType,
  isInterfaceType,
  isObjectType,
  isScalarType,
  isSpecifiedScalarType,
} from "graphql";
import { operationLabel, type RestContract } from "../contract/model.js";

/** A small change by the authors of a contract that would improve every SDK of it. */
export interface Advice {
  /** The missing part, as the rest of "12 of 15 operations have no …". */
  readonly missing: string;
  /** The benefit. */
  readonly gain: string;
  readonly count: number;
  readonly of: number;
  /** "operations", "types". */
  readonly things: string;
  /** The first few names. */
  readonly examples: readonly string[];
}

const examplesShown = 3;

function advise(
  things: string,
  missing: string,
  { gain, all }: { readonly gain: string; readonly all: readonly (readonly [string, boolean])[] },
): Advice {
  const lacking = all.filter(([, isFine]) => !isFine).map(([name]) => name);
  return { missing, gain, things, count: lacking.length, of: all.length, examples: lacking.slice(0, examplesShown) };
}

const isThere = (text: string | undefined): boolean => text !== undefined && text.trim() !== "";

/** Returns what would improve the SDKs of a REST contract, the easiest first. Parts that are in order are left out. */
export function adviseRest({ operations, types }: RestContract): Advice[] {
  const each = (isFine: (operation: RestContract["operations"][number]) => boolean) =>
    operations.map((operation) => [operationLabel(operation), isFine(operation)] as const);
  const failures = operations.flatMap((operation) =>
    operation.responses
      .filter(({ status }) => /^(4|5|default)/i.test(status))
      .map(({ status, contents }) => [`${operationLabel(operation)} ${status}`, contents.length > 0] as const),
  );
  const parameters = operations.flatMap((operation) =>
    operation.parameters.map(
      ({ name, description }) => [`${operationLabel(operation)} ${name}`, isThere(description)] as const,
    ),
  );
  const records = [...types.values()].filter(({ shape }) => shape.kind === "record");
  return [
    advise("operations", "operationId", {
      gain: "calls would keep their names when a path changes",
      all: each(({ operationId }) => isThere(operationId)),
    }),
    advise("operations", "summary or description", {
      gain: "every call would be documented",
      all: each(({ summary, description }) => isThere(summary) || isThere(description)),
    }),
    advise("operations", "failure documented", {
      gain: "failures would have their own types",
      all: each(({ responses }) => responses.some(({ status }) => /^(4|5|default)/i.test(status))),
    }),
    advise("failures", "body described", { gain: "the app could report what went wrong", all: failures }),
    advise("record types", "description", {
      gain: "editors would show what a type is for",
      all: records.map(({ name, description }) => [name, isThere(description)] as const),
    }),
    advise("parameters", "description", { gain: "editors would show what an argument means", all: parameters }),
  ].filter(({ count }) => count > 0);
}

/** Returns what would improve the SDKs of a schema, the easiest first. */
export function adviseGraphql(schema: GraphQLSchema): Advice[] {
  const types = Object.values(schema.getTypeMap()).filter(
    (type) => !type.name.startsWith("__") && !isSpecifiedScalarType(type),
  );
  const fields = types
    .filter((type) => isObjectType(type) || isInterfaceType(type) || isInputObjectType(type))
    .flatMap((type) =>
      Object.values<{ name: string; description?: string | null | undefined }>(type.getFields()).map(
        ({ name, description }) => [`${type.name}.${name}`, isThere(description ?? "")] as const,
      ),
    );
  const values = types
    .filter(isEnumType)
    .flatMap((type) =>
      type.getValues().map((value) => [`${type.name}.${value.name}`, isThere(value.description ?? "")] as const),
    );
  const scalars = types
    .filter(isScalarType)
    .map((type) => [type.name, isThere(type.description ?? "") || isThere(type.specifiedByURL ?? "")] as const);
  return [
    advise("scalars", "description or @specifiedBy", { gain: "the JSON value would be known", all: scalars }),
    advise("types", "description", {
      gain: "editors would show what a type is for",
      all: types.map((type) => [type.name, isThere(type.description ?? "")] as const),
    }),
    advise("fields", "description", { gain: "editors would show what a field means", all: fields }),
    advise("enum values", "description", { gain: "an enum would explain each value", all: values }),
  ].filter(({ count }) => count > 0);
}
