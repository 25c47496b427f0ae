import { parse as parseHost, type ParserOptions } from "@babel/parser";
import type { SourceText } from "../../problem/place.js";
import { problem, type Problem } from "../../problem/problem.js";
import { cookedInPlace } from "../../graphql/documents/cookedInPlace.js";
import { markPattern, usualTags } from "../hostFiles.js";
import { beginsLikeSchema } from "../../graphql/schemaStart.js";
import type { EmbeddedTexts } from "../../graphql/documents/embeddedTexts.js";

/**
 * Returns the query documents in source code: templates with one of the tags, strings passed to a function of that
 * name, and strings with a GraphQL comment before them or in their first line. Code is never run.
 */
export function embeddedQueries(source: SourceText, tags: readonly string[] = usualTags): EmbeddedTexts {
  if (!markPattern(tags).test(source.text)) return { texts: [], problems: [] };
  // A schema of the app's own, which some clients take, is not a query.
  return extract(source, tags, {
    wanted: ({ isMarked, text }) => isMarked && !beginsLikeSchema(text()),
    what: "query documents",
  });
}

/** Returns the strings in source that begin like a query, marked or not. */
export function literalQueries(source: SourceText): readonly SourceText[] {
  if (!/\b(?:query|mutation|subscription)\b/.test(source.text)) return [];
  return extract(source, [], {
    wanted: ({ text }) => /^\s*(?:query|mutation|subscription)\b/.test(text()),
    what: "query documents",
  }).texts;
}

/** Returns the schema texts in a module, which begin like a schema: the marked ones, otherwise all. */
export function embeddedSchemas(source: SourceText): EmbeddedTexts {
  const marked = extract(source, usualTags, {
    wanted: ({ isMarked, text }) => isMarked && beginsLikeSchema(text()),
    what: "schema",
  });
  if (marked.texts.length > 0 || marked.problems.length > 0) return marked;
  return extract(source, usualTags, { wanted: ({ text }) => beginsLikeSchema(text()), what: "schema" });
}

interface Found {
  readonly isMarked: boolean;
  /** The text between the quotes, computed only if it is needed. */
  readonly text: () => string;
}

/** A node of the host's syntax tree, with the parts that are read. */
interface HostNode {
  readonly type: string;
  readonly start: number;
  readonly end: number;
  readonly [key: string]: unknown;
}

function extract(
  source: SourceText,
  tags: readonly string[],
  { wanted, what }: { readonly wanted: (found: Found) => boolean; readonly what: string },
): EmbeddedTexts {
  const texts: SourceText[] = [];
  const problems: Problem[] = [];
  const bound = new Set<string>();
  const tagged = new Map<string, HostNode>();
  for (const code of scriptsOf(source)) {
    let tree: HostNode;
    try {
      tree = parseHost(code.text, code.options) as unknown as HostNode;
    } catch (error) {
      const { pos = 0, message = "" } = error as { pos?: number; message?: string };
      problems.push(
        problem("query.host", `\`${source.document}\` cannot be read as source code: ${plainMessage(message)}.`, {
          place: { document: source.document, offset: pos, length: 1 },
          why: `The ${what} in it cannot be found.`,
        }),
      );
      continue;
    }
    const marks = markComments(tree);
    walk(tree, (node, parent) => {
      collectBindings(node, bound);
      const literal = literalOf(node);
      if (!literal) return;
      const tag = tagOf(node, parent);
      const isTagged = tag !== undefined && tags.includes(tag.name);
      const isMarked =
        isTagged ||
        marks.some((end) => end <= node.start && isBlank(source.text.slice(end, node.start))) ||
        /^\s*#\s*graphql\b/i.test(literal.first);
      const [start, end] = [node.start + 1, node.end - 1];
      let known: ReturnType<typeof cookedInPlace> | undefined;
      const cook = (): ReturnType<typeof cookedInPlace> =>
        (known ??= cookedInPlace({ file: source.text, start, end, holes: literal.holes }));
      const text = (): string => {
        const made = cook();
        return "refused" in made ? source.text.slice(start, end) : made.text.slice(start);
      };
      if (!wanted({ isMarked, text })) return;
      if (isTagged && !tag.isMember) tagged.set(tag.name, tagged.get(tag.name) ?? tag.node);
      const cooked = cook();
      if ("refused" in cooked) {
        // A text that only looks like a schema does not have to be one.
        if (isMarked) problems.push(interpolated(source, cooked.refused.start, cooked.refused.end));
        return;
      }
      texts.push({ document: source.document, text: cooked.text });
    });
  }
  for (const [name, node] of tagged) {
    if (bound.has(name)) continue;
    problems.push(
      problem("query.tag", `\`${name}\` is used as a tag but not imported.`, {
        level: "warning",
        place: { document: source.document, offset: node.start, length: name.length },
        hint: `Import \`${name}\` in this file, or write /* GraphQL */ before the text instead.`,
      }),
    );
  }
  return { texts, problems };
}

function interpolated({ document, text }: SourceText, start: number, end: number): Problem {
  const shown = text.slice(start, end).replace(/\s+/g, " ");
  return problem(
    "query.interpolated",
    `\`${shown.length > 40 ? `${shown.slice(0, 39)}…` : shown}\` is inside a query.`,
    {
      place: { document, offset: start, length: end - start },
      why: "The text is known only at run time, so it cannot be checked or typed.",
      hint: "Use a variable for a value. Spread a fragment by its name, and put its interpolation after the last brace.",
    },
  );
}

/** The code of a document: all of it, or the script blocks of a component with everything else blank. */
function scriptsOf({ document, text }: SourceText): { text: string; options: ParserOptions }[] {
  const ending = (/\.(\w+)$/.exec(document)?.[1] ?? "").toLowerCase();
  if (ending !== "vue" && ending !== "svelte") return [{ text, options: optionsFor(ending, text) }];
  const scripts: { text: string; options: ParserOptions }[] = [];
  for (const match of text.matchAll(/<script\b((?:[^>"']|"[^"]*"|'[^']*')*)>([\s\S]*?)<\/script\s*>/gi)) {
    const [whole, attributes = "", inside = ""] = match;
    const start = match.index + whole.indexOf(">", "<script".length + attributes.length) + 1;
    const lang = /\blang\s*=\s*["']?(\w+)/i.exec(attributes)?.[1] ?? "js";
    const blanked = text.slice(0, start).replace(/[^\n\r]/g, " ") + inside;
    scripts.push({ text: blanked, options: optionsFor(lang.toLowerCase(), inside) });
  }
  return scripts;
}

function optionsFor(ending: string, text: string): ParserOptions {
  const isTypescript = /^(?:[cm]?ts|tsx|typescript)$/.test(ending);
  const hasJsx = !isTypescript || ending === "tsx";
  return {
    sourceType: "unambiguous",
    errorRecovery: true,
    allowReturnOutsideFunction: true,
    allowAwaitOutsideFunction: true,
    allowImportExportEverywhere: true,
    allowUndeclaredExports: true,
    attachComment: false,
    plugins: [
      ...(isTypescript ? (["typescript"] as const) : /@flow\b/.test(text) ? (["flow"] as const) : []),
      ...(hasJsx ? (["jsx"] as const) : []),
      "decorators-legacy",
      "decoratorAutoAccessors",
      "explicitResourceManagement",
      "importAttributes",
    ],
  };
}

/** The ends of comments that mark the text after them as GraphQL. */
function markComments(tree: HostNode): number[] {
  const comments = tree["comments"];
  if (!Array.isArray(comments)) return [];
  return (comments as (HostNode & { value: string })[])
    .filter(({ type, value }) => type === "CommentBlock" && /^\s*graphql\s*$/i.test(value))
    .map(({ end }) => end);
}

function isBlank(text: string): boolean {
  return text.trim() === "";
}

/**
 * Visits every node with its parent, in the order of the text. It does not recurse, because code can be nested to any
 * depth.
 */
function walk(root: HostNode, visit: (node: HostNode, parent: HostNode | undefined) => void): void {
  const open: [HostNode, HostNode | undefined][] = [[root, undefined]];
  for (let next = open.pop(); next; next = open.pop()) {
    const [node, parent] = next;
    visit(node, parent);
    const children: HostNode[] = [];
    for (const key of Object.keys(node)) {
      if (key === "comments" || key === "errors" || key === "loc" || key === "tokens") continue;
      const value = node[key];
      if (Array.isArray(value)) children.push(...value.filter(isNode));
      else if (isNode(value)) children.push(value);
    }
    for (let at = children.length - 1; at >= 0; at--) {
      const child = children[at];
      if (child) open.push([child, node]);
    }
  }
}

function isNode(value: unknown): value is HostNode {
  return typeof value === "object" && value !== null && "type" in value && "start" in value;
}

interface Literal {
  /** The text before its first interpolation. */
  readonly first: string;
  /** Its interpolations, with `${` and `}`. */
  readonly holes: readonly { readonly start: number; readonly end: number }[];
}

function literalOf(node: HostNode): Literal | undefined {
  if (node.type === "StringLiteral") return { first: String(node["value"]), holes: [] };
  if (node.type !== "TemplateLiteral") return undefined;
  const quasis = node["quasis"] as readonly (HostNode & { readonly value: { readonly raw: string } })[];
  const holes = quasis.slice(1).map((quasi, at) => ({ start: quasis[at]?.end ?? 0, end: quasi.start }));
  return { first: quasis[0]?.value.raw ?? "", holes };
}

/** The tag of a literal, or the function that takes it as the first argument. */
function tagOf(
  literal: HostNode,
  parent: HostNode | undefined,
): { name: string; isMember: boolean; node: HostNode } | undefined {
  if (!parent) return undefined;
  const isFirst = parent.type === "CallExpression" && (parent["arguments"] as readonly unknown[])[0] === literal;
  const tag =
    parent.type === "TaggedTemplateExpression" && parent["quasi"] === literal
      ? parent["tag"]
      : isFirst
        ? parent["callee"]
        : undefined;
  if (!isNode(tag)) return undefined;
  if (tag.type === "Identifier") return { name: String(tag["name"]), isMember: false, node: tag };
  const property = tag.type === "MemberExpression" ? tag["property"] : undefined;
  return isNode(property) && property.type === "Identifier"
    ? { name: String(property["name"]), isMember: true, node: property }
    : undefined;
}

const bindingParents =
  /^(?:Import(?:Default|Namespace)?Specifier|FunctionDeclaration|ClassDeclaration|TSImportEqualsDeclaration)$/;

/** Adds the names that a node declares anywhere in the file. */
function collectBindings(node: HostNode, bound: Set<string>): void {
  if (bindingParents.test(node.type)) addNames(node["local"] ?? node["id"], bound);
  if (node.type === "VariableDeclarator") addNames(node["id"], bound);
  if (Array.isArray(node["params"])) for (const each of node["params"]) addNames(each, bound);
}

function addNames(pattern: unknown, bound: Set<string>): void {
  if (!isNode(pattern)) return;
  walk(pattern, (node) => {
    if (node.type === "Identifier") bound.add(String(node["name"]));
  });
}

/** The parser's message without its line and column, which the place has. */
function plainMessage(message: string): string {
  const text = message.replace(/\s*\(\d+:\d+\)\s*$/, "").replace(/\.$/, "");
  return text.charAt(0).toLowerCase() + text.slice(1);
}
