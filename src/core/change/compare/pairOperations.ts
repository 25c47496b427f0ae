import { nameless, type RestOperation } from "../../contract/model.js";
import { mayBeRenamed } from "./mayBeRenamed.js";

export interface PairedOperations {
  readonly pairs: readonly { readonly before: RestOperation; readonly after: RestOperation }[];
  readonly gone: readonly RestOperation[];
  readonly fresh: readonly RestOperation[];
}

/** Returns an operation's request and response as a text; undefined if that is too little to recognise it. */
export interface Likeness {
  readonly before: (operation: RestOperation) => string | undefined;
  readonly after: (operation: RestOperation) => string | undefined;
}

/**
 * Pairs operations by method and path (without parameter names), then by operationId. Of the rest, the only two with
 * the same request and response are paired, if their paths, names or summaries are similar.
 *
 * @param likeness returns the request and response of an operation as a text
 */
export function pairOperations(
  before: readonly RestOperation[],
  after: readonly RestOperation[],
  likeness: Likeness,
): PairedOperations {
  const pairs: { before: RestOperation; after: RestOperation }[] = [];
  const open = new Set(after);
  const unpaired: RestOperation[] = [];
  const take = (operation: RestOperation, partner: RestOperation | undefined): boolean => {
    if (!partner) return false;
    open.delete(partner);
    pairs.push({ before: operation, after: partner });
    return true;
  };
  const byPath = new Map(after.map((operation) => [pathKey(operation), operation]));
  for (const operation of before) {
    const partner = byPath.get(pathKey(operation));
    if (!take(operation, partner && open.has(partner) ? partner : undefined)) unpaired.push(operation);
  }
  const unnamed = unpaired.filter((operation) => {
    const id = operation.operationId;
    return !take(operation, id === undefined ? undefined : [...open].find((each) => each.operationId === id));
  });
  if (unnamed.length === 0 || open.size === 0) return { pairs, gone: unnamed, fresh: [...open] };
  const left = groupedBy(unnamed, likeness.before);
  const right = groupedBy(open, likeness.after);
  const gone = unnamed.filter((operation) => {
    const text = likeness.before(operation) ?? "";
    const [partner, ...others] = right.get(text) ?? [];
    const isOnly = partner !== undefined && others.length === 0 && left.get(text)?.length === 1;
    return !take(operation, isOnly && mayHaveMoved(operation, partner) ? partner : undefined);
  });
  return { pairs, gone, fresh: [...open] };
}

function groupedBy(
  operations: Iterable<RestOperation>,
  textOf: (operation: RestOperation) => string | undefined,
): Map<string, RestOperation[]> {
  const groups = new Map<string, RestOperation[]>();
  for (const operation of operations) {
    const text = textOf(operation);
    if (text !== undefined) groups.set(text, [...(groups.get(text) ?? []), operation]);
  }
  return groups;
}

function mayHaveMoved(before: RestOperation, after: RestOperation): boolean {
  const [from, to] = [before, after].map((operation) => ({
    name: pathWords(operation),
    description: operation.summary ?? operation.description,
  }));
  return from !== undefined && to !== undefined && mayBeRenamed(from, to);
}

function pathWords({ path }: RestOperation): string {
  return path.replace(/\{[^{}]*\}/g, " ");
}

function pathKey({ method, path }: RestOperation): string {
  return `${method} ${nameless(path)}`;
}
