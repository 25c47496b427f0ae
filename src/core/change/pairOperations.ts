import type { RestOperation } from "../contract/model.js";

export interface PairedOperations {
  readonly pairs: readonly { readonly before: RestOperation; readonly after: RestOperation }[];
  readonly gone: readonly RestOperation[];
  readonly fresh: readonly RestOperation[];
}

/** Pairs operations by method and path (parameter names apart), then by operationId. */
export function pairOperations(before: readonly RestOperation[], after: readonly RestOperation[]): PairedOperations {
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
  const gone = unpaired.filter((operation) => {
    const id = operation.operationId;
    return !take(operation, id === undefined ? undefined : [...open].find((each) => each.operationId === id));
  });
  return { pairs, gone, fresh: [...open] };
}

function pathKey({ method, path }: RestOperation): string {
  return `${method} ${path.replace(/\{[^{}]*\}/g, "{}")}`;
}
