import { type Content, type Field, type Reference, type RestOperation } from "../core/contract/model.js";
import { resolveShape, type TypeTable } from "../core/contract/resolveShape.js";
import { preferredContent } from "../core/sdk/planContent.js";
import { pathPattern } from "./rest/matchOperation.js";

/** What an operation does to the items of a collection. */
export interface Deed {
  readonly kind: "list" | "create" | "fetch" | "change" | "remove";
  /** The path parameter with the item's id; undefined for a collection, or for a single item at its path. */
  readonly id: string | undefined;
  /** The type of an item in the operation that fetches one, otherwise in the one that lists or creates them. */
  readonly thing: Slot | undefined;
}

/** The place of the item or the items in a response. */
export interface Slot {
  readonly path: readonly string[];
  readonly type: Reference;
}

/**
 * Finds what each operation of a contract does, from its method, its path and its response.
 *
 * @returns operations without such a meaning are left out
 */
export function findDeeds(operations: readonly RestOperation[], types: TypeTable): Map<RestOperation, Deed> {
  const byPath = new Map<string, Map<string, RestOperation>>();
  for (const operation of operations) {
    const key = pathPattern(operation.path);
    const methods = byPath.get(key) ?? new Map<string, RestOperation>();
    methods.set(operation.method, operation);
    byPath.set(key, methods);
  }
  const deeds = new Map<RestOperation, Deed>();
  for (const operation of operations) {
    const own = byPath.get(pathPattern(operation.path)) ?? new Map<string, RestOperation>();
    const deed = deedOf(operation, own, { byPath, types });
    if (deed) deeds.set(operation, deed);
  }
  return deeds;
}

type ByMethod = ReadonlyMap<string, RestOperation>;

const ofThings: Readonly<Record<string, Deed["kind"]>> = {
  get: "fetch",
  put: "change",
  patch: "change",
  delete: "remove",
};

function deedOf(
  operation: RestOperation,
  own: ByMethod,
  { byPath, types }: { readonly byPath: ReadonlyMap<string, ByMethod>; readonly types: TypeTable },
): Deed | undefined {
  const { method, path } = operation;
  const [, parent, id] = /^(.*)\/\{([^{}]+)\}$/.exec(path) ?? [];
  if (parent !== undefined && id !== undefined) {
    const kind = ofThings[method];
    const collection = byPath.get(pathPattern(parent));
    return kind && { kind, id, thing: thingOf(own, collection, types) };
  }
  const listing = own.get("get");
  const isListed = listing !== undefined && listSlot(answerType(listing), types) !== undefined;
  const items = byPath.get(`${pathPattern(path)}/{}`);
  if (method === "get" && isListed) return { kind: "list", id: undefined, thing: thingOf(items, own, types) };
  if (method === "post" && (isListed || items))
    return { kind: "create", id: undefined, thing: thingOf(items, own, types) };
  // A single item at its path, such as settings.
  const kind = ofThings[method];
  const isAlone = !isListed && listing !== undefined && (own.has("put") || own.has("patch"));
  return kind && isAlone ? { kind, id: undefined, thing: thingOf(own, undefined, types) } : undefined;
}

function thingOf(items: ByMethod | undefined, collection: ByMethod | undefined, types: TypeTable): Slot | undefined {
  const fetched = [items?.get("get"), items?.get("put"), items?.get("patch")].flatMap((each) => each ?? []);
  for (const operation of fetched) {
    const found = thingSlot(answerType(operation), types);
    if (found) return found;
  }
  const listed = collection?.get("get");
  const list = listed && listSlot(answerType(listed), types);
  if (list && resolveShape(list.type.shape, types).kind === "record") return list;
  const made = collection?.get("post");
  return made && thingSlot(answerType(made), types);
}

/** Returns the JSON content of the successful response; undefined if there is none. */
export function answerContent(operation: RestOperation): Content | undefined {
  const response =
    operation.responses.find((each) => each.status.startsWith("2")) ??
    operation.responses.find((each) => each.status === "default");
  const content = response && preferredContent(response.contents);
  return content?.form === "json" ? content : undefined;
}

function answerType(operation: RestOperation): Reference | undefined {
  return answerContent(operation)?.type;
}

/** Fields that wrap a single item in a response. */
const wrapper = /^(data|item|result|payload|content)$/i;

/** Returns the place of the item in a response with one: the response itself, or the field that wraps it. */
export function thingSlot(type: Reference | undefined, types: TypeTable): Slot | undefined {
  if (!type) return undefined;
  const shape = resolveShape(type.shape, types);
  if (shape.kind === "union") return { path: [], type };
  if (shape.kind !== "record") return undefined;
  const inner = shape.fields.filter(
    (field) => wrapper.test(field.name) && resolveShape(field.type.shape, types).kind === "record",
  );
  const [only] = inner;
  return only && inner.length === 1 ? { path: [only.name], type: only.type } : { path: [], type };
}

/** Returns the place of the list in a response with many items, with the type of the items. */
export function listSlot(type: Reference | undefined, types: TypeTable): Slot | undefined {
  if (!type) return undefined;
  const shape = resolveShape(type.shape, types);
  if (shape.kind === "list") return { path: [], type: shape.item };
  if (shape.kind !== "record") return undefined;
  const lists = shape.fields.filter((field) => isListOfRecords(field, types));
  const [only] = lists;
  if (only && lists.length === 1 && isEnvelope(shape.fields, only)) {
    const list = resolveShape(only.type.shape, types);
    return list.kind === "list" ? { path: [only.name], type: list.item } : undefined;
  }
  return undefined;
}

function isListOfRecords(field: Field, types: TypeTable): boolean {
  const shape = resolveShape(field.type.shape, types);
  return shape.kind === "list" && resolveShape(shape.item.shape, types).kind === "record";
}

/**
 * An item can have a list among its fields too. An object that only wraps a list has only counts and cursors besides
 * it.
 */
function isEnvelope(fields: readonly Field[], list: Field): boolean {
  return fields.every(
    (field) =>
      field === list ||
      /count|total|page|size|limit|offset|cursor|next|prev|previous|more|links?|meta|token|first|last|self|has/i.test(
        field.name,
      ),
  );
}
