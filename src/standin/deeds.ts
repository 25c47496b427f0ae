import { type Content, type Field, type Reference, type RestOperation } from "../core/contract/model.js";
import { resolveShape, type TypeTable } from "../core/contract/resolveShape.js";
import { preferredContent } from "../core/sdk/planContent.js";
import { pathPattern } from "./rest/matchOperation.js";

/** What an operation does to the things of a collection. */
export interface Deed {
  readonly kind: "list" | "create" | "fetch" | "change" | "remove";
  /** The path parameter that names the thing; undefined for a collection, or for a thing that is alone at its path. */
  readonly id: string | undefined;
  /** What a thing is said to be by the fetching operation, else by the one that lists or makes it. */
  readonly thing: Slot | undefined;
}

/** Where in an answer the thing or the things stand. */
export interface Slot {
  readonly path: readonly string[];
  readonly type: Reference;
}

/** Finds what each operation of a contract does, by its method, its path and what it answers. */
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
  // A thing that is alone at its path, as settings are.
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

/** The content that success is answered with, when it is JSON. */
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

/** Fields that wrap the one thing an answer is about. */
const wrapper = /^(data|item|result|payload|content)$/i;

/** Where the thing stands in an answer about one: the answer itself, or what wraps it. */
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

/** Where the list stands in an answer about many, with the type of its items. */
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

/** A thing can have a list among its fields too; what only wraps a list has nothing but counts and cursors beside it. */
function isEnvelope(fields: readonly Field[], list: Field): boolean {
  return fields.every(
    (field) =>
      field === list ||
      /count|total|page|size|limit|offset|cursor|next|prev|previous|more|links?|meta|token|first|last|self|has/i.test(
        field.name,
      ),
  );
}
