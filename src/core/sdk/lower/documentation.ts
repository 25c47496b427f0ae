import type { Constraints, Field, Reference, Server, Shape } from "../../contract/model.js";
import { operationLabel } from "../../contract/model.js";
import type { GraphqlCall, PlannedArgument, PlannedResponse, PlannedSent, PlannedType, RestCall } from "../sdkPlan.js";
import { newerTag } from "../typePlanner.js";
import type { ConnectionPlan, Credential } from "./connectionPlan.js";

/** The documentation of something: paragraphs from the contract and from us, and the reason why it is deprecated. */
export interface Words {
  /** Undefined and empty ones are left out. */
  readonly paragraphs: readonly (string | undefined)[];
  readonly deprecated?: string | undefined;
}

function words(paragraphs: readonly (string | undefined)[], deprecated?: string): Words {
  return { paragraphs, deprecated };
}

/**
 * Returns the documentation of a type.
 *
 * @param isUnmapped whether it is a scalar of a schema without a configured type in this language
 */
export function typeWords({ description, shape, deprecated }: PlannedType, isUnmapped: boolean): Words {
  return words([
    description,
    factOf(shape),
    isUnmapped ? "A scalar without a mapping. Set its type under `scalars` in the configuration." : undefined,
    deprecated === undefined ? undefined : `Deprecated. ${deprecated}`.trim(),
  ]);
}

/** Returns the documentation of a field. */
export function fieldWords(field: Field): Words {
  const { description, type, reason, deprecated } = field;
  return words([description, factOf(type.shape), reason, defaultOf(field)], deprecated);
}

/** Returns the documentation of a variable of a GraphQL operation. */
export function variableWords(field: Field): Words {
  return words([defaultOf(field)]);
}

/**
 * Returns the documentation of an argument.
 *
 * @param type the argument's own type, or that of another way to send it
 */
export function argumentWords({ source, standing }: PlannedArgument, type: Reference): Words {
  const parameter = source.kind === "parameter" ? source.parameter : undefined;
  const description = source.kind === "parameter" ? source.parameter.description : source.body.description;
  return words(
    [
      description,
      factOf(type.shape),
      parameter ? defaultOf(parameter) : undefined,
      standing ? "Default: the value of the connection." : undefined,
    ],
    parameter?.deprecated,
  );
}

/** Returns the documentation of a response header. */
export function headerWords(field: Field): Words {
  return words([field.description, `\`${field.name}\``, factOf(field.type.shape)], field.deprecated);
}

/**
 * Returns the documentation of a call's response.
 *
 * @param name the language's name of the call
 */
export function answerWords(name: string, { answers }: RestCall): Words {
  const [only] = answers;
  const said = answers.length === 1 ? only?.description : statusLines(answers);
  return words([`The response of \`${name}\`.`, said]);
}

/**
 * Returns the documentation of a call's failures.
 *
 * @param name the language's name of the call
 */
export function failureWords(name: string, { failures }: RestCall): Words {
  return words([`How \`${name}\` can fail.`, statusLines(failures)]);
}

function statusLines(responses: readonly PlannedResponse[]): string {
  return responses
    .map(({ status, description }) => `- ${status}: ${(description ?? "no description").replace(/\s+/g, " ")}`)
    .join("\n");
}

/** Returns the documentation of a REST call: summary, description and operation. */
export function callWords({ operation }: RestCall): Words {
  const { summary, description, deprecated } = operation;
  const more = description === summary ? undefined : description;
  return words([summary, more, `\`${operationLabel(operation)}\``], deprecated);
}

/** Returns the documentation of a GraphQL call. */
export function graphqlCallWords({ operation }: GraphqlCall): Words {
  return words([operation.description ?? `Sends the ${operation.root} \`${operation.name}\`.`]);
}

/**
 * Returns the documentation of the function for all pages of a call.
 *
 * @param name the language's name of the call
 */
export function pagesWords(name: string, { operation }: RestCall): Words {
  return words(
    [`All items of all pages of \`${name}\`. Each page is requested when it is needed.`],
    operation.deprecated,
  );
}

/** Returns the documentation of a webhook or callback. */
export function sentWords({ request, of }: PlannedSent): Words {
  const { summary, description } = request.operation;
  const what =
    of === undefined
      ? `The webhook \`${request.name}\`.`
      : `The callback \`${request.name}\` of \`${operationLabel(of)}\`, sent to \`${request.address ?? ""}\`.`;
  return words([summary, description, what]);
}

/** Returns the documentation of the base URL of a connection. */
export function baseUrlWords({ written }: ConnectionPlan): Words {
  const said = written === undefined ? "the contract gives none" : `the contract only gives \`${written}\``;
  return words([`The base URL of the API; ${said}.`]);
}

/** Returns the documentation of all servers but the first; undefined if there is none. */
export function otherServersWords(others: readonly Server[]): string | undefined {
  if (others.length === 0) return undefined;
  const lines = others.map(
    ({ url, description }) => `- ${url}${description === undefined ? "" : `: ${description.replace(/\s+/g, " ")}`}`,
  );
  return `Other servers of the contract, for \`baseUrl\`:\n${lines.join("\n")}`;
}

/** Returns the documentation of a credential. */
export function credentialWords(scheme: Credential): Words {
  return words([scheme.description, whatIsSupplied(scheme)]);
}

function whatIsSupplied(scheme: Credential): string {
  if (scheme.kind === "key") return `The key for the ${scheme.in} \`${scheme.name}\`.`;
  if (scheme.kind === "scheme") return `The part after \`${scheme.scheme}\` in the Authorization header.`;
  return scheme.kind === "basic" ? 'The credential as "user:password".' : "The bearer token.";
}

/** Returns format and limits in words; undefined if there are none. */
export function factOf(shape: Shape): string | undefined {
  if (shape.kind !== "text" && shape.kind !== "integer" && shape.kind !== "number" && shape.kind !== "list")
    return undefined;
  if (shape.constraints === undefined && (shape.kind === "list" || shape.format === undefined)) return undefined;
  const format =
    shape.kind === "list" || shape.format === undefined || shape.format === "id" || shape.format === "int32"
      ? []
      : [
          shape.format === newerTag
            ? "The name of a type that the schema does not have yet."
            : `Format: ${shape.format}.`,
        ];
  const facts = [...format, ...limitsOf(shape.constraints ?? {})];
  return facts.length === 0 ? undefined : facts.join(" ");
}

function limitsOf(limits: Constraints): string[] {
  const range = (low: number | undefined, high: number | undefined, what: string): string[] => {
    if (low !== undefined && high !== undefined)
      return [low === high ? `Exactly ${String(low)}${what}.` : `From ${String(low)} to ${String(high)}${what}.`];
    if (low !== undefined) return [`At least ${String(low)}${what}.`];
    return high === undefined ? [] : [`At most ${String(high)}${what}.`];
  };
  return [
    ...range(limits.minimum, limits.maximum, ""),
    ...(limits.exclusiveMinimum === undefined ? [] : [`More than ${String(limits.exclusiveMinimum)}.`]),
    ...(limits.exclusiveMaximum === undefined ? [] : [`Less than ${String(limits.exclusiveMaximum)}.`]),
    ...(limits.multipleOf === undefined ? [] : [`A multiple of ${String(limits.multipleOf)}.`]),
    ...range(limits.minLength, limits.maxLength, " characters"),
    ...range(limits.minItems, limits.maxItems, " items"),
    ...(limits.pattern === undefined ? [] : [`Pattern: ${limits.pattern}`]),
  ];
}

/** The server's default, which is shown and never sent. */
function defaultOf(field: Pick<Field, "default">): string | undefined {
  if (field.default === undefined) return undefined;
  const text = JSON.stringify(field.default) as string | undefined;
  return text === undefined || text.length > 200 ? undefined : `Default: ${text}.`;
}
