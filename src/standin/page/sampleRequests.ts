import { sampleId } from "../graphql/graph.js";
import {
  getNamedType,
  isEnumType,
  isInputObjectType,
  isListType,
  isNonNullType,
  isRequiredInputField,
  Kind,
  parse,
  typeFromAST,
  type GraphQLInputType,
  type GraphQLSchema,
} from "graphql";
import { operationLabel, type Reference, type RestContract, type RestOperation } from "../../core/contract/model.js";
import { draftDocuments, rootFields } from "../../core/graphql/documents/draftDocument.js";
import { preferredContent } from "../../core/sdk/planContent.js";
import { sampleAnswer } from "../samples/sampleAnswer.js";
import { SampleBudget } from "../samples/sampleBudget.js";
import type { Sample } from "../../core/outline/outline.js";
import { sampleText } from "../samples/sampleText.js";
import { seededFaker } from "../samples/seededFaker.js";
import type { PlayedContract } from "../playedContract.js";

/** A valid request of an operation, to start with. */
export interface SampleRequest {
  /** Its name in overrides and on the page. */
  readonly operation: string;
  readonly id: string;
  readonly summary: string;
  readonly method: string;
  /** The path from the root of the stand-in server. */
  readonly path: string;
  readonly mediaType: string;
  readonly body: string;
  /** The statuses in the contract. */
  readonly statuses: readonly string[];
  /** The headers it needs, with values that the stand-in server accepts. */
  readonly headers: Readonly<Record<string, string>>;
  /** Code that makes the call, in the languages of the project's SDKs. */
  readonly code: readonly Sample[];
}

/** Returns a sample for every operation of a contract; for a GraphQL schema, for every root field. */
export function sampleRequests(
  { contract, schema }: PlayedContract,
  seed: number,
  code: ReadonlyMap<string, readonly Sample[]>,
): SampleRequest[] {
  if (contract.protocol === "rest")
    return contract.operations.map((each) => ({
      ...restSample(contract, each, seed),
      code: code.get(operationLabel(each)) ?? [],
    }));
  return schema ? graphqlSamples(schema, { name: contract.name, seed, code }) : [];
}

/** Returns functions for values of an operation: of a parameter by its name in the request, and of its body. */
export function sampleArguments(
  contract: RestContract,
  operation: RestOperation,
  seed: number,
): { readonly parameter: (name: string) => unknown; readonly body: (type: Reference) => unknown } {
  const label = operationLabel(operation);
  const context = (name: string) => ({
    types: contract.types,
    fake: seededFaker(seed, "sample", label, name),
    budget: new SampleBudget(),
    known: new Map<string, unknown>(),
    fits: () => true,
    depth: 0,
    direction: "request" as const,
  });
  const parameter = (name: string): unknown => {
    const found = operation.parameters.find((each) => each.name === name);
    return found && (found.example ?? found.default ?? sampleAnswer(found.type, name, context(name)));
  };
  return { parameter, body: (type) => sampleAnswer(type, "", context("body")) };
}

function restSample(contract: RestContract, operation: RestOperation, seed: number): Omit<SampleRequest, "code"> {
  const label = operationLabel(operation);
  const { parameter: valueOf, body: bodyOf } = sampleArguments(contract, operation, seed);
  const textOf = (value: unknown): string => {
    if (Array.isArray(value)) return value.map(textOf).join(",");
    return typeof value === "string" ? value : JSON.stringify(value ?? "x");
  };
  const path = operation.path.replace(/\{([^{}]+)\}/g, (_whole, name: string) =>
    encodeURIComponent(textOf(valueOf(name))),
  );
  const needed = operation.parameters.filter((each) => each.required);
  const query = needed
    .filter((each) => each.in === "query")
    .map((each) => `${encodeURIComponent(each.name)}=${encodeURIComponent(textOf(valueOf(each.name)))}`);
  const headers = needed
    .filter((each) => each.in === "header")
    .map((each) => [each.name, textOf(valueOf(each.name))] as const);
  const content = operation.body && preferredContent(operation.body.contents);
  const body = content && bodyOf(content.type);
  return {
    operation: label,
    id: operation.operationId ?? "",
    summary: operation.summary ?? "",
    method: operation.method.toUpperCase(),
    path: `/${contract.name}${path}${query.length > 0 ? `?${query.join("&")}` : ""}`,
    mediaType: content?.mediaType ?? "",
    body: body === undefined ? "" : content?.form === "json" ? JSON.stringify(body, null, 2) : textOf(body),
    statuses: operation.responses.map(({ status }) => status),
    headers: { ...Object.fromEntries(headers), ...credential(contract, operation) },
  };
}

const anyToken = "any-token";

function credential({ authSchemes }: RestContract, { auth }: RestOperation): Record<string, string> {
  const headers: Record<string, string> = {};
  for (const name of auth[0] ?? []) {
    const scheme = authSchemes.get(name);
    if (scheme?.kind === "bearer") headers["authorization"] = `Bearer ${anyToken}`;
    else if (scheme?.kind === "basic") headers["authorization"] = `Basic ${anyToken}`;
    else if (scheme?.kind === "scheme") headers["authorization"] = `${scheme.scheme} ${anyToken}`;
    else if (scheme?.kind === "key" && scheme.in === "header") headers[scheme.name] = anyToken;
  }
  return headers;
}

const draftDepth = 2;

function graphqlSamples(
  schema: GraphQLSchema,
  {
    name,
    seed,
    code,
  }: { readonly name: string; readonly seed: number; readonly code: ReadonlyMap<string, readonly Sample[]> },
): SampleRequest[] {
  const types = new Map(rootFields(schema).map(({ kind, type }) => [kind, type.name]));
  return draftDocuments(schema, { depth: draftDepth, fields: [] }).map(({ kind, field, text }) => {
    return {
      operation: `${kind} ${field}`,
      id: field,
      summary: "",
      method: "POST",
      path: `/${name}`,
      mediaType: "application/json",
      body: JSON.stringify({ query: text, variables: sampleVariables(schema, text, seed) }, null, 2),
      statuses: ["200"],
      headers: {},
      code: code.get(`${types.get(kind) ?? ""}.${field}`) ?? [],
    };
  });
}

/** Returns values for the required variables of an operation. */
export function sampleVariables(schema: GraphQLSchema, text: string, seed: number): Record<string, unknown> {
  const definition = parse(text).definitions.find((each) => each.kind === Kind.OPERATION_DEFINITION);
  const variables = (definition?.variableDefinitions ?? []).flatMap((each): [string, unknown][] => {
    const type = typeFromAST(schema, each.type as never) as GraphQLInputType | undefined;
    if (!type || !isNonNullType(type) || each.defaultValue) return [];
    return [[each.variable.name.value, sampleInput(type, each.variable.name.value, { seed, depth: 0 })]];
  });
  return Object.fromEntries(variables);
}

const deepestInput = 4;

function sampleInput(
  type: GraphQLInputType,
  name: string,
  { seed, depth }: { readonly seed: number; readonly depth: number },
): unknown {
  if (isNonNullType(type)) return sampleInput(type.ofType, name, { seed, depth });
  if (isListType(type)) return depth > deepestInput ? [] : [sampleInput(type.ofType, name, { seed, depth: depth + 1 })];
  const named = getNamedType(type);
  if (isEnumType(named)) return named.getValues()[0]?.name;
  if (isInputObjectType(named)) {
    const fields = Object.values(named.getFields());
    const chosen = named.isOneOf ? fields.slice(0, 1) : fields.filter(isRequiredInputField);
    return Object.fromEntries(
      chosen.map((field) => [field.name, sampleInput(field.type, field.name, { seed, depth: depth + 1 })]),
    );
  }
  switch (named.name) {
    case "Int":
      return 1;
    case "Float":
      return 1.5;
    case "Boolean":
      return true;
    case "ID":
      return sampleId;
    default: {
      const format = /instant|datetime|timestamp/i.test(named.name)
        ? "date-time"
        : /date|day/i.test(named.name)
          ? "date"
          : undefined;
      return sampleText(name, format, { constraints: {}, fake: seededFaker(seed, "sample", name) });
    }
  }
}
