import {
  concatAST,
  Kind,
  type DefinitionNode,
  type DocumentNode,
  type FragmentDefinitionNode,
  type GraphQLSchema,
  type OperationDefinitionNode,
} from "graphql";
import type { Place, SourceText } from "../../problem/place.js";
import { problem, type Problem } from "../../problem/problem.js";
import { pascalCase } from "../../text/words.js";
import { sortedBy } from "../../text/sortedBy.js";
import { findUses } from "./findUses.js";
import { fragmentCycles } from "./fragmentCycles.js";
import { placeOfNode } from "../graphqlPlace.js";
import { parseText, type ParsedText } from "../parseText.js";
import type { QueryDocuments } from "./queryModel.js";
import { sentence } from "../readGraphqlContract.js";
import { spreadFragments } from "./spreadFragments.js";
import { typeFragment, typeOperation } from "./typeOperation.js";
import { mostFields, TooManyFields } from "./typeSelections.js";
import { incremental, validateQueries } from "./validateQueries.js";
import type { TypingContext } from "./typingContext.js";

export interface QueryReading extends QueryDocuments {
  readonly problems: readonly Problem[];
  /** The operations that have an error or use a fragment with one. They are not in `operations`. */
  readonly leftOut: readonly string[];
}

/** The texts that were already parsed: a comparison reads the same ones against two schemas. */
const parsedTexts = new WeakMap<SourceText, ParsedText>();

/**
 * Reads query documents: parses every text, validates all of them as one document against the schema (all rules of the
 * specification), and types every valid operation and fragment.
 *
 * @param texts the documents, also those inside source files
 * @param options the SDK's settings that change types
 * @returns the operations and fragments, with all problems
 */
export function readQueryDocuments(
  schema: GraphQLSchema,
  texts: readonly SourceText[],
  options: TypingOptions = {},
): QueryReading {
  const problems: Problem[] = [];
  const documents: DocumentNode[] = [];
  for (const source of texts) {
    if (source.text.replace(/#[^\n]*/g, "").trim() === "") continue;
    const parsed = parsedTexts.get(source) ?? parseText(source);
    parsedTexts.set(source, parsed);
    if (parsed.ok) documents.push(parsed.document);
    else {
      const message = `The query document cannot be read: ${sentence(parsed.message)}`;
      problems.push(problem("query.syntax", message, { places: parsed.places }));
    }
  }
  const whole = concatAST(documents);
  const operations = whole.definitions.filter((node) => node.kind === Kind.OPERATION_DEFINITION);
  const fragments = whole.definitions.filter((node) => node.kind === Kind.FRAGMENT_DEFINITION);
  problems.push(...anonymous(operations), ...duplicates("operation", operations), ...duplicates("fragment", fragments));
  problems.push(...misplaced(whole.definitions));
  const unreadable = problems.length > 0;
  const definitions = [...operations, ...fragments];
  problems.push(...fragmentCycles(fragments), ...incremental(definitions));
  problems.push(...validateQueries(schema, definitions, unreadable));
  problems.push(...unused(operations, fragments));
  const { tooLarge, ...reading } = typed(schema, operations, { fragments, problems, options });
  return { ...reading, problems: [...problems, ...tooLarge] };
}

export interface TypingOptions {
  /**
   * Whether the fields of a named fragment are visible wherever it is spread, visible only to code that names it, or in
   * a type of their own.
   */
  readonly fragments?: "inline" | "sealed" | "named";
}

function anonymous(operations: readonly OperationDefinitionNode[]): Problem[] {
  return operations
    .filter((operation) => !operation.name)
    .map((operation) => {
      const place = placeOfNode(operation);
      return problem("query.anonymous", `This ${operation.operation} has no name.`, {
        place: { ...place, length: operation.operation.length } as Place,
        hint: `Write \`${operation.operation} ${proposedName(operation, place.document)}\`.`,
      });
    });
}

/** Returns a name for an anonymous operation: that of its file if it has words, otherwise its first field. */
function proposedName(operation: OperationDefinitionNode, document: string): string {
  const file = pascalCase((document.split("/").pop() ?? "").replace(/\.[^.]*$/, ""));
  const field = operation.selectionSet.selections.find((each) => each.kind === Kind.FIELD);
  const fromField = pascalCase(field?.name.value ?? "");
  return /^[A-Za-z_]/.test(file) && !/^(Queries|Query|Index|Operations|Mutations)$/.test(file)
    ? file
    : fromField || "Unnamed";
}

function duplicates(
  what: "operation" | "fragment",
  nodes: readonly (OperationDefinitionNode | FragmentDefinitionNode)[],
): Problem[] {
  const byName = new Map<string, Place[]>();
  for (const node of nodes) {
    if (!node.name) continue;
    byName.set(node.name.value, [...(byName.get(node.name.value) ?? []), placeOfNode(node)]);
  }
  return [...byName].flatMap(([name, places]) => {
    if (places.length < 2) return [];
    return [problem("query.duplicate", `Two ${what}s are named \`${name}\`.`, { places, hint: "Rename one of them." })];
  });
}

function misplaced(definitions: readonly DefinitionNode[]): Problem[] {
  return definitions
    .filter((node) => node.kind !== Kind.OPERATION_DEFINITION && node.kind !== Kind.FRAGMENT_DEFINITION)
    .map((node) =>
      problem("query.invalid", "A query document contains a schema definition.", {
        place: placeOfNode(node),
        hint: "Move it to the schema, or correct the `queries` pattern.",
      }),
    );
}

function unused(
  operations: readonly OperationDefinitionNode[],
  fragments: readonly FragmentDefinitionNode[],
): Problem[] {
  const used = new Set([...operations, ...fragments].flatMap((node) => [...spreadFragments(node, new Map())]));
  return fragments
    .filter((fragment) => !used.has(fragment.name.value))
    .map((fragment) =>
      problem("query.unused", `The fragment \`${fragment.name.value}\` is not used.`, {
        level: "warning",
        place: placeOfNode(fragment),
      }),
    );
}

function typed(
  schema: GraphQLSchema,
  operations: readonly OperationDefinitionNode[],
  {
    fragments,
    problems,
    options,
  }: {
    readonly fragments: readonly FragmentDefinitionNode[];
    readonly problems: readonly Problem[];
    readonly options: TypingOptions;
  },
): QueryDocuments & { leftOut: string[]; tooLarge: Problem[] } {
  const fragmentsByName = new Map(fragments.map((fragment) => [fragment.name.value, fragment]));
  const faulty = new Set([...operations, ...fragments].filter((node) => holdsError(node, problems)));
  const faultyNames = new Set(
    [...faulty].map((node) => (node.kind === Kind.FRAGMENT_DEFINITION ? node.name.value : "")),
  );
  const isSound = (node: OperationDefinitionNode | FragmentDefinitionNode): boolean => {
    const spread = spreadFragments(node, fragmentsByName);
    return !faulty.has(node) && [...spread].every((name) => fragmentsByName.has(name) && !faultyNames.has(name));
  };
  const context: TypingContext = {
    schema,
    fragments: fragmentsByName,
    isSealed: options.fragments === "sealed",
    isNamed: options.fragments === "named",
    answered: new Map(),
  };
  const tooLarge: Problem[] = [];
  const typedOrTold = <Node extends OperationDefinitionNode | FragmentDefinitionNode, Typed>(
    nodes: readonly Node[],
    type: (node: Node) => Typed,
  ): { readonly nodes: readonly Node[]; readonly typed: readonly Typed[] } => {
    const pairs = nodes.flatMap((node): [Node, Typed][] => {
      try {
        return [[node, type(node)]];
      } catch (error) {
        if (!(error instanceof TooManyFields)) throw error;
        tooLarge.push(tooManyFields(node));
        return [];
      }
    });
    return { nodes: pairs.map(([node]) => node), typed: pairs.map(([, each]) => each) };
  };
  const { nodes: soundOperations, typed: ofOperations } = typedOrTold(
    operations.filter((node) => node.name && isSound(node)),
    (node) => typeOperation(node, context),
  );
  const { nodes: soundFragments, typed: ofFragments } = typedOrTold(fragments.filter(isSound), (node) =>
    typeFragment(node, context),
  );
  const typedOperations = sortedBy(ofOperations, (operation) => operation.name);
  const senders = (owner: string): string[] =>
    typedOperations
      .filter((operation) => operation.name === owner || operation.fragments.includes(owner))
      .map((operation) => operation.name);
  return {
    operations: typedOperations,
    fragments: sortedBy(ofFragments, (fragment) => fragment.name),
    uses: findUses(schema, [...soundOperations, ...soundFragments]).map((use) => ({
      ...use,
      operations: senders(use.owner),
    })),
    leftOut: operations
      .filter((node) => !soundOperations.includes(node))
      .map((node) => node.name?.value ?? "(unnamed)"),
    tooLarge,
  };
}

/** A definition with too many fields after its fragments are written out. */
function tooManyFields(node: OperationDefinitionNode | FragmentDefinitionNode): Problem {
  const message = `\`${node.name?.value ?? ""}\` selects more than ${mostFields.toLocaleString("en")} fields when its fragments are expanded.`;
  return problem("query.large", message, {
    place: placeOfNode(node),
    hint: "Spread fewer fragments below several fields, or split it.",
  });
}

function holdsError(node: OperationDefinitionNode | FragmentDefinitionNode, problems: readonly Problem[]): boolean {
  const { loc } = node;
  return problems.some(
    ({ level, places }) =>
      level === "error" &&
      places.some(
        (place) =>
          "offset" in place &&
          place.document === loc?.source.name &&
          place.offset >= loc.start &&
          place.offset < loc.end,
      ),
  );
}
