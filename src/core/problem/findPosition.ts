import { parseTree, type Node as JsonNode, type ParseError } from "jsonc-parser";
import { isMap, isPair, isScalar, isSeq, LineCounter, parseDocument, type Node, type Pair } from "yaml";
import { pointerTokens, type Place, type PointerPlace } from "./place.js";

/** One-based line and column of a place, and how many characters it spans (at least 1). */
export interface Position {
  readonly line: number;
  readonly column: number;
  readonly length: number;
}

const maxTreesKept = 4;

/**
 * Finds line and column of a place in its text. A pointer that leads nowhere (the text may have changed, or the
 * missing member is the problem) falls back to the deepest ancestor that exists.
 */
export function findPosition(place: Place, text: string): Position {
  if ("offset" in place) return positionAt(text, place.offset, place.length);
  try {
    return pointedAt(place, text);
  } catch (error) {
    // A text nested beyond what these parsers can follow; its beginning is better than nothing.
    if (error instanceof RangeError) return { line: 1, column: 1, length: 1 };
    throw error;
  }
}

function pointedAt(place: PointerPlace, text: string): Position {
  // A JSON text is a YAML text too, and many times faster to find one's way in with a parser for JSON alone.
  const json = /^\s*[{[]/.test(text) ? jsonSpan(place.pointer, place.atKey === true, jsonTree(text)) : undefined;
  if (json) return positionAt(text, json[0], Math.max(1, json[1] - json[0]));
  const span = pointerSpan(place.pointer, place.atKey === true, parsedTree(text));
  return positionAt(text, span[0], Math.max(1, span[1] - span[0]));
}

/** Line and column of a character offset. */
export function positionAt(text: string, offset: number, length = 1): Position {
  const end = Math.min(offset, text.length);
  const starts = lineStarts(text);
  // The last line that begins at the offset or before it.
  let [low, high] = [0, starts.length - 1];
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if ((starts[middle] ?? 0) <= end) low = middle;
    else high = middle - 1;
  }
  return { line: low + 1, column: end - (starts[low] ?? 0) + 1, length: Math.max(1, length) };
}

const startsByText = new Map<string, readonly number[]>();

/** Offsets at which lines begin; found once for a text, because a large one is asked for many places. */
function lineStarts(text: string): readonly number[] {
  const known = startsByText.get(text);
  if (known) return known;
  const starts = [0];
  for (let at = text.indexOf("\n"); at !== -1; at = text.indexOf("\n", at + 1)) starts.push(at + 1);
  if (startsByText.size >= maxTreesKept) startsByText.clear();
  startsByText.set(text, starts);
  return starts;
}

const jsonTreeByText = new Map<string, JsonNode | undefined>();

function jsonTree(text: string): JsonNode | undefined {
  if (jsonTreeByText.has(text)) return jsonTreeByText.get(text);
  const errors: ParseError[] = [];
  const tree = parseTree(text, errors);
  if (jsonTreeByText.size >= maxTreesKept) jsonTreeByText.clear();
  jsonTreeByText.set(text, errors.length === 0 ? tree : undefined);
  return errors.length === 0 ? tree : undefined;
}

function jsonSpan(pointer: string, atKey: boolean, root: JsonNode | undefined): readonly [number, number] | undefined {
  let node = root;
  let property: JsonNode | undefined;
  for (const token of pointerTokens(pointer)) {
    const next: JsonNode | undefined =
      node?.type === "object"
        ? node.children?.findLast((child) => child.children?.[0]?.value === token)
        : node?.children?.[Number(token)];
    if (!next) break;
    property = next.type === "property" ? next : undefined;
    node = property ? property.children?.[1] : next;
  }
  const isScalar = node !== undefined && node.type !== "object" && node.type !== "array";
  const wanted = property && (atKey || !isScalar) ? property.children?.[0] : node;
  return wanted && [wanted.offset, wanted.offset + wanted.length];
}

const treeByText = new Map<string, Node | null>();

function parsedTree(text: string): Node | null {
  const known = treeByText.get(text);
  if (known !== undefined) return known;
  const tree = parseDocument(text, {
    lineCounter: new LineCounter(),
    keepSourceTokens: false,
    strict: false,
    uniqueKeys: false,
  }).contents as Node | null;
  if (treeByText.size >= maxTreesKept) treeByText.clear();
  treeByText.set(text, tree);
  return tree;
}

function pointerSpan(pointer: string, atKey: boolean, root: Node | null): readonly [number, number] {
  let node: Node | null = root;
  let pair: Pair | undefined;
  for (const token of pointerTokens(pointer)) {
    const next = child(node, token);
    if (!next) break;
    node = next.node;
    pair = next.pair;
  }
  const wanted = pair && isScalar(pair.key) && (atKey || !isScalar(node)) ? (pair.key as Node) : node;
  const range = wanted?.range;
  return range ? [range[0], range[1]] : [0, 1];
}

function child(node: Node | null, token: string): { node: Node | null; pair?: Pair } | undefined {
  if (isMap(node)) {
    const pair = node.items.find((item) => isPair(item) && isScalar(item.key) && String(item.key.value) === token);
    return pair ? { node: pair.value as Node | null, pair } : undefined;
  }
  if (isSeq(node)) {
    const item = node.items[Number(token)];
    return item ? { node: item as Node } : undefined;
  }
  return undefined;
}
