import {
  Kind,
  NoDeprecatedCustomRule,
  specifiedRules,
  validate,
  type FragmentDefinitionNode,
  type GraphQLError,
  type GraphQLSchema,
  type OperationDefinitionNode,
  type ValidationContext,
  type ValidationRule,
} from "graphql";
import type { Place } from "../../problem/place.js";
import { problem, type Problem } from "../../problem/problem.js";
import { sharesWord } from "../../text/words.js";
import { definitionParts } from "./definitionParts.js";
import { queryAdvice, type Advising } from "./queryAdvice.js";
import { placeOfNode, placesOfError } from "../graphqlPlace.js";
import { sentence } from "../readGraphqlContract.js";

type Definition = OperationDefinitionNode | FragmentDefinitionNode;

/** Reported in our own words: with both places and a proposed name, with the circle, or as a warning. */
const rulesOfOurOwn = new Set([
  "LoneAnonymousOperationRule",
  "UniqueOperationNamesRule",
  "UniqueFragmentNamesRule",
  "NoUnusedFragmentsRule",
  "NoFragmentCyclesRule",
]);
const rules = specifiedRules.filter((rule) => !rulesOfOurOwn.has(rule.name));
const mostErrors = 1000;

/**
 * Validates definitions against a schema by all rules of the specification (GraphQL specification, section 5), and
 * finds their uses of deprecated parts. A problem inside a fragment lists the operations that send it.
 *
 * @param isIncomplete whether some documents could not be read, so that a missing fragment is not an error
 */
export function validateQueries(
  schema: GraphQLSchema,
  definitions: readonly Definition[],
  isIncomplete: boolean,
): Problem[] {
  const document = { kind: Kind.DOCUMENT, definitions } as const;
  const senders = sendersOf(definitions);
  const deprecations: GraphQLError[] = [];
  // This runs in the same walk as the rules, but its findings are not errors.
  const noDeprecated: ValidationRule = (context) =>
    NoDeprecatedCustomRule(
      Object.create(context, {
        reportError: { value: (error: GraphQLError) => deprecations.push(error) },
      }) as ValidationContext,
    );
  const errors = validate(schema, document, [...rules, noDeprecated], { maxErrors: mostErrors })
    .filter((error) => !(isIncomplete && error.message.startsWith("Unknown fragment")))
    .filter((error) => !/^Unknown directive "@(?:defer|stream)"/.test(error.message))
    .map((error) => invalid(error, { schema, document }, senders));
  return [...errors, ...rootless(schema, definitions), ...deprecated(deprecations)];
}

/** Returns the directives that request a response in parts, whether the schema has them or not. */
export function incremental(definitions: readonly Definition[]): Problem[] {
  return definitions
    .flatMap((definition) => definitionParts(definition).directives)
    .filter(({ name }) => name.value === "defer" || name.value === "stream")
    .map((node) =>
      problem("query.incremental", `\`@${node.name.value}\` is not supported: it asks for a response in parts.`, {
        place: placeOfNode(node),
        hint: "Remove it, and request the late part with its own query.",
      }),
    );
}

/** Operations whose root type the schema lacks, which the rules of the specification leave to the execution. */
function rootless(schema: GraphQLSchema, definitions: readonly Definition[]): Problem[] {
  return definitions
    .filter((node) => node.kind === Kind.OPERATION_DEFINITION)
    .filter(({ operation }) => !schema.getRootType(operation))
    .map((node) => {
      const plural = { query: "queries", mutation: "mutations", subscription: "subscriptions" }[node.operation];
      const place = placeOfNode(node);
      return problem("query.invalid", `The schema has no ${plural}.`, {
        place: { ...place, length: node.operation.length } as Place,
        hint: `Remove \`${node.name?.value ?? node.operation}\`, or ask the schema's authors.`,
      });
    });
}

function invalid(error: GraphQLError, advising: Advising, senders: (place: Place) => string | undefined): Problem {
  const advice = queryAdvice(error, advising);
  const hint = relatedField(advising.schema, error.message) ?? advice.hint;
  const places = placesOfError(error);
  const why = places[0] && senders(places[0]);
  return problem("query.invalid", sentence(advice.message), {
    places,
    ...(why === undefined ? {} : { why }),
    ...(hint === undefined ? {} : { hint }),
  });
}

/** Fields with a word in common with one that does not exist: `berthCode` for `berth`, which no edit distance finds. */
function relatedField(schema: GraphQLSchema, message: string): string | undefined {
  const [, field, typeName] = /^Cannot query field "(\w+)" on type "(\w+)"/.exec(message) ?? [];
  const type = typeName === undefined ? undefined : schema.getType(typeName);
  if (field === undefined || !type || !("getFields" in type)) return undefined;
  const related = Object.keys(type.getFields()).filter((name) => sharesWord(name, field));
  return related.length === 0 || related.length > 3
    ? undefined
    : `Did you mean ${related.map((name) => `\`${name}\``).join(" or ")}?`;
}

/** One warning for each deprecated part, with all its places. */
function deprecated(errors: readonly GraphQLError[]): Problem[] {
  const byMessage = new Map<string, Place[]>();
  for (const error of errors) {
    const known = byMessage.get(error.message);
    if (known) known.push(...placesOfError(error));
    else byMessage.set(error.message, placesOfError(error));
  }
  return [...byMessage].map(([message, places]) => {
    const [, what = message, reason = ""] = /^(.*? is deprecated)\. ?(.*)$/s.exec(message) ?? [];
    const isSaid = reason !== "" && reason !== "No longer supported";
    const named = what.replaceAll('"', "`").replace(/ (?=[^`]*$)(\w+\.\w+)(?= )/, " `$1`");
    return problem("query.deprecated", `${named}.`, {
      level: "warning",
      places,
      ...(isSaid ? { why: `The schema says: ${sentence(reason.trim())}` } : {}),
    });
  });
}

/** Adds the operations that send a place inside a fragment, with the fragments on the way. */
function sendersOf(definitions: readonly Definition[]): (place: Place) => string | undefined {
  const spreads = new Map<Definition, string[]>();
  const fragments = new Map<string, FragmentDefinitionNode>();
  for (const definition of definitions) {
    if (definition.kind === Kind.FRAGMENT_DEFINITION) fragments.set(definition.name.value, definition);
    const names = definitionParts(definition).spreads.map(({ name }) => name.value);
    spreads.set(definition, [...new Set(names)]);
  }
  const operations = definitions.filter((each) => each.kind === Kind.OPERATION_DEFINITION);
  return (place) => {
    const inside = [...fragments.values()].find((fragment) => holdsPlace(fragment, place));
    if (!inside) return undefined;
    const paths = operations.flatMap((operation) => {
      const path = pathTo(inside.name.value, operation, { spreads, fragments });
      return path ? [{ operation, path }] : [];
    });
    const [first] = paths;
    if (!first) return undefined;
    const through = first.path.map((name) => `\`${name}\``).join(", then ");
    const others =
      paths.length > 1 ? `, and ${paths.length === 2 ? "one more" : `${String(paths.length - 1)} more`}` : "";
    return `\`${first.operation.name?.value ?? "(unnamed)"}\` sends it, through the fragment ${through}${others}.`;
  };
}

function holdsPlace({ loc }: FragmentDefinitionNode, place: Place): boolean {
  return (
    "offset" in place && loc?.source.name === place.document && loc.start <= place.offset && place.offset < loc.end
  );
}

/** The fragments on the shortest way from an operation to one of them, that one included. */
function pathTo(
  wanted: string,
  operation: Definition,
  {
    spreads,
    fragments,
  }: {
    readonly spreads: ReadonlyMap<Definition, readonly string[]>;
    readonly fragments: ReadonlyMap<string, FragmentDefinitionNode>;
  },
): string[] | undefined {
  const seen = new Set<string>();
  let paths: { node: Definition; path: string[] }[] = [{ node: operation, path: [] }];
  while (paths.length > 0) {
    const next: typeof paths = [];
    for (const { node, path } of paths)
      for (const name of spreads.get(node) ?? []) {
        if (name === wanted) return [...path, name];
        const fragment = fragments.get(name);
        if (!fragment || seen.has(name)) continue;
        seen.add(name);
        next.push({ node: fragment, path: [...path, name] });
      }
    paths = next;
  }
  return undefined;
}
