import type { Json } from "../test/proof/random/makeSchema.js";

export type Face = "ask" | "answer";

/** A schema of a raw contract, with its place. */
export interface Site {
  readonly schema: Json;
  readonly holder: Json;
  readonly key: string;
  /** The role of the schema in its parent. */
  readonly as: "property" | "item" | "value" | "member" | "root" | "named" | "parameter";
  /** For a property: the record. */
  readonly record?: Json;
  readonly faces: Set<Face>;
}

/** An operation of a raw contract. */
export interface Place {
  readonly path: string;
  readonly method: string;
  readonly operation: Json;
  readonly item: Json;
}

const methods = ["get", "put", "post", "delete", "patch"];

export function operationsOf(document: Json): Place[] {
  return Object.entries((document["paths"] ?? {}) as Record<string, Json>).flatMap(([path, item]) =>
    methods.flatMap((method) => (item[method] ? [{ path, method, operation: item[method] as Json, item }] : [])),
  );
}

export function resolved(node: unknown, document: Json): Json {
  let current = node as Json;
  while (typeof current["$ref"] === "string") {
    let target: unknown = document;
    for (const token of current["$ref"].slice(2).split("/"))
      target = (target as Json)[token.replaceAll("~1", "/").replaceAll("~0", "~")];
    current = target as Json;
  }
  return current;
}

/** Returns every parameter object, with references followed, with its operation. */
export function parametersOf(document: Json): { parameter: Json; place: Place; holder: Json[]; at: number }[] {
  return operationsOf(document).flatMap((place) =>
    [place.operation, place.item].flatMap((owner) => {
      const holder = (owner["parameters"] ?? []) as Json[];
      return holder.map((each, at) => ({ parameter: resolved(each, document), place, holder, at }));
    }),
  );
}

/** Returns every response object, with references followed, by status. */
export function responsesOf(document: Json): { response: Json; status: string; place: Place; holder: Json }[] {
  return operationsOf(document).flatMap((place) => {
    const holder = (place.operation["responses"] ?? {}) as Json;
    return Object.keys(holder).map((status) => ({
      response: resolved(holder[status], document),
      status,
      place,
      holder,
    }));
  });
}

function isJson(value: unknown): value is Json {
  return typeof value === "object" && value !== null;
}

/** Returns every schema that an operation uses, with its directions. */
export function sitesOf(document: Json): Site[] {
  const found = new Map<Json, Site>();
  const open: (() => void)[] = [];
  const visit = (holder: Json, key: string, as: Site["as"], face: Face, record?: Json): void => {
    const schema: unknown = holder[key];
    if (!isJson(schema)) return;
    const known = found.get(schema);
    if (known?.faces.has(face) === true) return;
    if (known) known.faces.add(face);
    else found.set(schema, { schema, holder, key, as, faces: new Set([face]), ...(record ? { record } : {}) });
    open.push(() => {
      inside(schema, face);
    });
  };
  const inside = (schema: Json, face: Face): void => {
    const { $ref } = schema;
    if (typeof $ref === "string") {
      const name = $ref.split("/").pop() ?? "";
      const schemas = (document["components"] as Json)["schemas"] as Json;
      if (schemas[name]) visit(schemas, name, "named", face);
    }
    const properties = schema["properties"] as Json | undefined;
    for (const name of Object.keys(properties ?? {})) visit(properties!, name, "property", face, schema);
    visit(schema, "items", "item", face);
    visit(schema, "additionalProperties", "value", face);
    for (const list of ["oneOf", "anyOf", "allOf", "prefixItems"]) {
      const members = schema[list] as Json[] | undefined;
      members?.forEach((_, at) => {
        visit(members as unknown as Json, String(at), list === "prefixItems" ? "item" : "member", face);
      });
    }
  };
  const contents = (holder: Json | undefined, face: Face): void => {
    for (const media of Object.values((holder?.["content"] ?? {}) as Record<string, Json>)) {
      visit(media, "schema", "root", face);
      visit(media, "itemSchema", "root", face);
    }
  };
  for (const { operation } of operationsOf(document))
    if (operation["requestBody"]) contents(resolved(operation["requestBody"], document), "ask");
  for (const { parameter } of parametersOf(document)) visit(parameter, "schema", "parameter", "ask");
  for (const { response } of responsesOf(document)) contents(response, "answer");
  for (let work = open.pop(); work; work = open.pop()) work();
  return [...found.values()];
}
