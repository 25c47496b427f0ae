import type { Json } from "../test/proof/random/makeSchema.js";
import type { Randomness } from "../test/proof/random/randomness.js";
import {
  operationsOf,
  parametersOf,
  resolved,
  responsesOf,
  sitesOf,
  type Face,
  type Place,
  type Site,
} from "./restSites.js";

/** One way in which authors change a contract. */
export interface Edit<D> {
  readonly kind: string;
  /** Whether nobody could notice the change. */
  readonly isMeaningless?: boolean;
  /** Changes the document in place. Returns false if there is nothing to change. */
  readonly apply: (document: D, random: Randomness) => boolean;
}

type RestEdit = Edit<Json>;

const pickFrom = <T>(items: readonly T[], random: Randomness, use: (item: T) => boolean | undefined): boolean => {
  const open = [...items];
  while (open.length > 0) {
    const [item] = open.splice(random.below(open.length), 1);
    if (item !== undefined && use(item) !== false) return true;
  }
  return false;
};

/** An edit of a schema that is in at least one direction. */
function schemaEdits(
  kind: string,
  fits: (site: Site, document: Json) => boolean,
  change: (site: Site, document: Json, random: Randomness) => boolean | undefined,
): RestEdit[] {
  return (["ask", "answer"] as const).map((face: Face) => ({
    kind: `${face}: ${kind}`,
    apply: (document, random) =>
      pickFrom(
        sitesOf(document).filter((site) => site.faces.has(face) && fits(site, document)),
        random,
        (site) => change(site, document, random),
      ),
  }));
}

const typeOf = ({ schema }: Site): unknown => schema["type"];
const isPlain = (site: Site): boolean =>
  schemaKeys(site).every((key) => !["$ref", "oneOf", "anyOf", "allOf", "enum", "const"].includes(key));
const schemaKeys = ({ schema }: Site): string[] => Object.keys(schema);
const isText = (site: Site): boolean =>
  typeOf(site) === "string" && isPlain(site) && site.schema["format"] !== "binary";
const isNumber = (site: Site): boolean => typeOf(site) === "number" && isPlain(site);
const isInteger = (site: Site): boolean => typeOf(site) === "integer" && isPlain(site);
const isRecord = ({ schema }: Site): boolean => schema["properties"] !== undefined;
const isTag = (site: Site): boolean => site.as === "property" && ["kind", "form"].includes(site.key);
const properties = (record: Json): Json => record["properties"] as Json;
const required = (record: Json): string[] => (record["required"] as string[] | undefined) ?? [];
const isProperty = (site: Site): boolean => site.as === "property" && !isTag(site);
const isRequired = ({ record, key }: Site): boolean => record !== undefined && required(record).includes(key);
const isInPath = ({ holder }: Site): boolean => holder["in"] === "path";
const replace = (site: Site, schema: Json): void => {
  site.holder[site.key] = schema;
};

const ofSchemas: RestEdit[] = [
  ...schemaEdits(
    "a field removed",
    (site) => isProperty(site) && !isRequired(site),
    ({ record, key }) => {
      Reflect.deleteProperty(properties(record!), key);
      return true;
    },
  ),
  ...schemaEdits(
    "a required field removed",
    (site) => isProperty(site) && isRequired(site),
    ({ record, key }) => {
      Reflect.deleteProperty(properties(record!), key);
      record!["required"] = required(record!).filter((each) => each !== key);
      return true;
    },
  ),
  ...schemaEdits(
    "an optional field added",
    (site) => isRecord(site),
    ({ schema }) => {
      properties(schema)["extraNews"] = { type: "boolean" };
      return true;
    },
  ),
  ...schemaEdits(
    "a required field added",
    (site) => isRecord(site),
    ({ schema }) => {
      properties(schema)["extraNews"] = { type: "boolean" };
      schema["required"] = [...required(schema), "extraNews"];
      return true;
    },
  ),
  ...schemaEdits(
    "a field required now",
    (site) => isProperty(site) && !isRequired(site),
    ({ record, key }) => {
      record!["required"] = [...required(record!), key];
      return true;
    },
  ),
  ...schemaEdits(
    "a field optional now",
    (site) => isProperty(site) && isRequired(site),
    ({ record, key }) => {
      record!["required"] = required(record!).filter((each) => each !== key);
      return true;
    },
  ),
  ...schemaEdits("a field renamed", isProperty, ({ record, key, schema }) => {
    const name = `${key}Now`;
    Reflect.deleteProperty(properties(record!), key);
    properties(record!)[name] = schema;
    record!["required"] = required(record!).map((each) => (each === key ? name : each));
    return true;
  }),
  ...schemaEdits(
    "null gained",
    (site) =>
      isPlain(site) &&
      typeof typeOf(site) === "string" &&
      !isTag(site) &&
      site.as !== "named" &&
      site.as !== "root" &&
      site.as !== "parameter",
    ({ schema }) => {
      schema["type"] = [schema["type"], "null"];
      return true;
    },
  ),
  ...schemaEdits(
    "null lost",
    ({ schema }) => Array.isArray(schema["type"]),
    ({ schema }) => {
      [schema["type"]] = (schema["type"] as string[]).filter((each) => each !== "null");
      return true;
    },
  ),
  ...schemaEdits(
    "null gained by a reference",
    ({ schema, as }) => schema["$ref"] !== undefined && as === "property",
    (site) => {
      replace(site, { oneOf: [{ ...site.schema }, { type: "null" }] });
      return true;
    },
  ),
  ...schemaEdits(
    "text became an integer",
    (site) => isText(site) && !isInPath(site),
    (site) => {
      replace(site, { type: "integer" });
      return true;
    },
  ),
  ...schemaEdits(
    "text became a list",
    (site) => isText(site) && !isInPath(site) && site.as !== "parameter",
    (site) => {
      replace(site, { type: "array", items: { ...site.schema } });
      return true;
    },
  ),
  ...schemaEdits("an integer became a number", isInteger, ({ schema }) => {
    schema["type"] = "number";
    Reflect.deleteProperty(schema, "format");
    return true;
  }),
  ...schemaEdits("a number became an integer", isNumber, ({ schema }) => {
    schema["type"] = "integer";
    return true;
  }),
  ...schemaEdits(
    "a boolean became text",
    (site) => typeOf(site) === "boolean",
    (site) => {
      replace(site, { type: "string" });
      return true;
    },
  ),
  ...schemaEdits(
    "a record became a map",
    (site) =>
      isRecord(site) &&
      site.as === "named" &&
      !["RopePart", "PaintPart", "SailVessel", "MotorVessel", "RowingVessel"].includes(site.key),
    (site) => {
      replace(site, { type: "object", additionalProperties: { type: "string" } });
      return true;
    },
  ),
  ...schemaEdits(
    "a value nobody says anything about",
    (site) => isText(site) && isProperty(site),
    (site) => {
      replace(site, {});
      return true;
    },
  ),
  ...schemaEdits(
    "a choice gained",
    ({ schema }) => Array.isArray(schema["enum"]),
    ({ schema }) => {
      schema["enum"] = [...(schema["enum"] as unknown[]), "brandNew"];
      return true;
    },
  ),
  ...schemaEdits(
    "a choice lost",
    ({ schema }) => Array.isArray(schema["enum"]) && schema["enum"].length > 1,
    ({ schema }, _, random) => {
      const values = [...(schema["enum"] as unknown[])];
      values.splice(random.below(values.length), 1);
      schema["enum"] = values;
      if (!values.includes(schema["default"])) Reflect.deleteProperty(schema, "default");
      return true;
    },
  ),
  ...schemaEdits(
    "a choice became text",
    ({ schema }) => Array.isArray(schema["enum"]),
    ({ schema }) => {
      Reflect.deleteProperty(schema, "enum");
      return true;
    },
  ),
  ...schemaEdits(
    "text became a choice",
    (site) =>
      isText(site) &&
      site.schema["format"] === undefined &&
      site.schema["pattern"] === undefined &&
      !isInPath(site) &&
      !isTag(site),
    ({ schema }) => {
      schema["enum"] = ["one", "two"];
      return true;
    },
  ),
  ...schemaEdits(
    "a day became a moment",
    ({ schema }) => schema["format"] === "date",
    ({ schema }) => {
      schema["format"] = "date-time";
      return true;
    },
  ),
  ...schemaEdits(
    "a format dropped",
    ({ schema }) => schema["type"] === "string" && schema["format"] !== undefined && schema["format"] !== "binary",
    ({ schema }) => {
      Reflect.deleteProperty(schema, "format");
      return true;
    },
  ),
  ...schemaEdits(
    "a format added",
    (site) =>
      isText(site) &&
      site.schema["format"] === undefined &&
      site.schema["pattern"] === undefined &&
      site.schema["maxLength"] === undefined &&
      !isTag(site),
    ({ schema }) => {
      schema["format"] = "uuid";
      return true;
    },
  ),
  ...schemaEdits(
    "a maximum lowered",
    ({ schema }) => typeof schema["maximum"] === "number",
    ({ schema }) => {
      schema["maximum"] = Math.max(
        ((schema["minimum"] as number | undefined) ?? 0) + 1,
        Math.floor((schema["maximum"] as number) / 3),
      );
      return true;
    },
  ),
  ...schemaEdits(
    "a maximum raised",
    ({ schema }) => typeof schema["maximum"] === "number",
    ({ schema }) => {
      schema["maximum"] = (schema["maximum"] as number) * 3;
      return true;
    },
  ),
  ...schemaEdits(
    "a minimum added",
    (site) => (isNumber(site) || isInteger(site)) && site.schema["minimum"] === undefined,
    ({ schema }) => {
      schema["minimum"] = 40;
      return true;
    },
  ),
  ...schemaEdits(
    "a longest length added",
    (site) => isText(site) && site.schema["maxLength"] === undefined && site.schema["format"] === undefined,
    ({ schema }) => {
      schema["maxLength"] = 2;
      Reflect.deleteProperty(schema, "pattern");
      return true;
    },
  ),
  ...schemaEdits(
    "a most number of items added",
    ({ schema }) =>
      schema["type"] === "array" && schema["maxItems"] === undefined && schema["prefixItems"] === undefined,
    ({ schema }) => {
      schema["maxItems"] = 1;
      return true;
    },
  ),
  ...schemaEdits(
    "a member added to a union",
    ({ schema }) =>
      Array.isArray(schema["oneOf"]) &&
      schema["discriminator"] === undefined &&
      !JSON.stringify(schema["oneOf"]).includes('"null"'),
    ({ schema }) => {
      (schema["oneOf"] as Json[]).push({ type: "boolean" });
      return true;
    },
  ),
  ...schemaEdits(
    "a tagged member added to a union",
    ({ schema }) => schema["discriminator"] !== undefined,
    ({ schema }, document) => {
      const { propertyName, mapping } = schema["discriminator"] as { propertyName: string; mapping: Json };
      const schemas = (document["components"] as Json)["schemas"] as Json;
      schemas["NewKindOf"] = {
        type: "object",
        required: [propertyName],
        properties: { [propertyName]: { const: "newKind" }, fresh: { type: "string" } },
      };
      (schema["oneOf"] as Json[]).push({ $ref: "#/components/schemas/NewKindOf" });
      mapping["newKind"] = "#/components/schemas/NewKindOf";
      return true;
    },
  ),
  ...schemaEdits(
    "a member taken from a union",
    ({ schema }) =>
      Array.isArray(schema["oneOf"] ?? schema["anyOf"]) &&
      ((schema["oneOf"] ?? schema["anyOf"]) as Json[]).length > 1 &&
      !JSON.stringify(schema).includes('"null"'),
    ({ schema }) => {
      const key = schema["oneOf"] ? "oneOf" : "anyOf";
      const gone = (schema[key] as Json[]).pop();
      const mapping = (schema["discriminator"] as { mapping?: Json } | undefined)?.mapping;
      for (const [tag, target] of Object.entries(mapping ?? {}))
        if (target === gone?.["$ref"]) Reflect.deleteProperty(mapping!, tag);
      return true;
    },
  ),
  ...schemaEdits(
    "one became one of two",
    (site) => isText(site) && isProperty(site),
    (site) => {
      replace(site, { oneOf: [{ type: "string" }, { type: "array", items: { type: "string" } }] });
      return true;
    },
  ),
  ...schemaEdits(
    "one of two became one",
    ({ schema }) =>
      Array.isArray(schema["oneOf"]) && JSON.stringify(schema["oneOf"]) === '[{"type":"string"},{"type":"integer"}]',
    (site) => {
      replace(site, { type: "string" });
      return true;
    },
  ),
  ...schemaEdits(
    "the values of a map changed",
    ({ schema, as }) => as === "value" && schema["type"] === "string",
    (site) => {
      replace(site, { type: "integer" });
      return true;
    },
  ),
  ...schemaEdits(
    "undeclared fields forbidden",
    (site) => isRecord(site) && site.schema["additionalProperties"] === undefined,
    ({ schema }) => {
      schema["additionalProperties"] = false;
      return true;
    },
  ),
  ...schemaEdits(
    "undeclared fields got a shape",
    (site) => isRecord(site) && site.schema["additionalProperties"] === undefined && site.as === "named",
    ({ schema }) => {
      schema["additionalProperties"] = { type: "string" };
      return true;
    },
  ),
  ...schemaEdits(
    "a tuple got longer",
    ({ schema }) => Array.isArray(schema["prefixItems"]),
    ({ schema }) => {
      schema["prefixItems"] = [...(schema["prefixItems"] as Json[]), { type: "string" }];
      schema["minItems"] = (schema["prefixItems"] as Json[]).length;
      return true;
    },
  ),
  ...schemaEdits(
    "a part of a tuple changed",
    ({ schema }) => Array.isArray(schema["prefixItems"]),
    ({ schema }) => {
      schema["prefixItems"] = [{ type: "boolean" }, ...(schema["prefixItems"] as Json[]).slice(1)];
      return true;
    },
  ),
  ...schemaEdits(
    "a field only answered now",
    (site) => isProperty(site) && site.schema["$ref"] === undefined && site.schema["readOnly"] === undefined,
    ({ schema }) => {
      schema["readOnly"] = true;
      return true;
    },
  ),
  ...schemaEdits(
    "a field only sent now",
    (site) => isProperty(site) && site.schema["$ref"] === undefined && site.schema["readOnly"] === undefined,
    ({ schema }) => {
      schema["writeOnly"] = true;
      return true;
    },
  ),
  ...schemaEdits(
    "a name taken away: its shape stands where it is used",
    ({ schema, as }) => schema["$ref"] !== undefined && (as === "property" || as === "root" || as === "item"),
    (site, document) => {
      const target = resolved(site.schema, document);
      if (JSON.stringify(target).includes("$ref") || target["oneOf"] !== undefined) return false;
      replace(site, structuredClone(target));
      return true;
    },
  ),
  ...schemaEdits(
    "a named shape renamed",
    ({ as }) => as === "named",
    ({ holder, key, schema }, document) => {
      const name = `${key}Anew`;
      Reflect.deleteProperty(holder, key);
      holder[name] = schema;
      const from = `#/components/schemas/${key}`;
      rewrite(document, (text) => (text === from ? `#/components/schemas/${name}` : text));
      return true;
    },
  ),
];

/** Replaces texts anywhere in a document. */
function rewrite(node: unknown, change: (text: string) => string): void {
  if (typeof node !== "object" || node === null) return;
  for (const [key, value] of Object.entries(node)) {
    if (typeof value === "string") (node as Json)[key] = change(value);
    else rewrite(value, change);
  }
}

/** An edit of an operation. */
function operationEdit(
  kind: string,
  change: (place: Place, document: Json, random: Randomness) => boolean | undefined,
): RestEdit {
  return {
    kind,
    apply: (document, random) => pickFrom(operationsOf(document), random, (place) => change(place, document, random)),
  };
}

const pathsOf = (document: Json): Json => document["paths"] as Json;
const parameters = (place: Place): Json[] => {
  place.operation["parameters"] ??= [];
  return place.operation["parameters"] as Json[];
};
const body = ({ operation }: Place, document: Json): Json | undefined =>
  operation["requestBody"] ? resolved(operation["requestBody"], document) : undefined;
const successOf = (place: Place, document: Json): { status: string; response: Json; holder: Json } | undefined =>
  responsesOf(document).find((each) => each.place.operation === place.operation && each.status.startsWith("2"));

const ofOperations: RestEdit[] = [
  operationEdit("an operation removed", ({ item, method }) => {
    Reflect.deleteProperty(item, method);
    return true;
  }),
  operationEdit("an operation added", (_, document) => {
    pathsOf(document)["/moorings"] = {
      get: {
        operationId: "listMoorings",
        responses: {
          200: {
            description: "All.",
            content: { "application/json": { schema: { type: "array", items: { type: "string" } } } },
          },
        },
      },
    };
    return true;
  }),
  operationEdit("an operationId renamed", ({ operation }) => {
    operation["operationId"] = `${String(operation["operationId"])}Anew`;
    return true;
  }),
  operationEdit("an operationId dropped", ({ operation }) => {
    Reflect.deleteProperty(operation, "operationId");
    return true;
  }),
  operationEdit("a path moved", ({ path }, document) => {
    const paths = pathsOf(document);
    const { [path]: item } = paths;
    Reflect.deleteProperty(paths, path);
    paths[`/moved${path}`] = item;
    return true;
  }),
  operationEdit("a path moved, with another operationId", ({ path, item }, document) => {
    const paths = pathsOf(document);
    Reflect.deleteProperty(paths, path);
    paths[`${path}/anew`] = item;
    for (const method of Object.keys(item)) {
      const operation = item[method] as Json | undefined;
      if (typeof operation?.["operationId"] === "string") operation["operationId"] += "Anew";
    }
    return true;
  }),
  operationEdit("an operation served elsewhere", ({ operation }) => {
    if (operation["servers"] !== undefined) return false;
    operation["servers"] = [{ url: "https://elsewhere.ostrel.example/v1" }];
    return true;
  }),
  operationEdit("an operation's own server replaced", ({ operation }) => {
    if (operation["servers"] === undefined) return false;
    operation["servers"] = [{ url: "https://elsewhere.ostrel.example/v1" }];
    return true;
  }),
  operationEdit("an operation's own server moved", ({ operation }) => {
    const [server] = (operation["servers"] ?? []) as Json[];
    if (!server) return false;
    server["url"] = `${String(server["url"])}/anew`;
    return true;
  }),
  operationEdit("an operation's own server dropped", ({ operation }) => {
    if (operation["servers"] === undefined) return false;
    Reflect.deleteProperty(operation, "servers");
    return true;
  }),
  operationEdit("another method", ({ item, method, operation }) => {
    const other = method === "put" ? "patch" : method === "post" ? "put" : undefined;
    if (other === undefined || item[other] !== undefined) return false;
    Reflect.deleteProperty(item, method);
    item[other] = operation;
    return true;
  }),
  operationEdit("a path parameter renamed", ({ path, item }, document) => {
    const [, name] = /\{(\w+)\}/.exec(path) ?? [];
    if (name === undefined) return false;
    const paths = pathsOf(document);
    for (const { parameter, place } of parametersOf(document)) {
      if (place.path !== path || parameter["name"] !== name) continue;
      const owner = place.item["parameters"] as Json[] | undefined;
      const own = { ...parameter, name: `${name}Anew` };
      for (const list of [owner, place.operation["parameters"] as Json[] | undefined])
        list?.forEach((each, at) => {
          if (resolved(each, document)["name"] === name) list[at] = own;
        });
    }
    Reflect.deleteProperty(paths, path);
    paths[path.replace(`{${name}}`, `{${name}Anew}`)] = item;
    return true;
  }),
  operationEdit("an operation deprecated", ({ operation }) => {
    operation["deprecated"] = true;
    return true;
  }),
  operationEdit("an optional parameter added", (place) => {
    parameters(place).push({ name: "newFilter", in: "query", schema: { type: "string" } });
    return true;
  }),
  operationEdit("a required parameter added", (place) => {
    parameters(place).push({ name: "newFilter", in: "query", required: true, schema: { type: "string" } });
    return true;
  }),
  operationEdit("a required header added", (place) => {
    parameters(place).push({ name: "New-Header", in: "header", required: true, schema: { type: "string" } });
    return true;
  }),
  operationEdit("a parameter of the same name in another place added", (place, document) => {
    const own = parametersOf(document).find(
      (each) => each.place.operation === place.operation && each.parameter["in"] === "query",
    );
    if (!own) return false;
    parameters(place).push({ name: own.parameter["name"], in: "header", schema: { type: "string" } });
    return true;
  }),
  operationEdit("auth required", ({ operation }) => {
    if (JSON.stringify(operation["security"]) !== "[]") return false;
    Reflect.deleteProperty(operation, "security");
    return true;
  }),
  operationEdit("auth dropped", ({ operation }) => {
    if (operation["security"] !== undefined) return false;
    operation["security"] = [];
    return true;
  }),
  operationEdit("another tag", ({ operation }) => {
    operation["tags"] = ["anew"];
    return true;
  }),
  operationEdit("a body dropped", (place) => {
    if (!place.operation["requestBody"]) return false;
    Reflect.deleteProperty(place.operation, "requestBody");
    return true;
  }),
  operationEdit("a body optional now", (place, document) => {
    const found = body(place, document);
    if (found?.["required"] !== true) return false;
    found["required"] = false;
    return true;
  }),
  operationEdit("a body required now", (place, document) => {
    const found = body(place, document);
    if (!found || found["required"] === true) return false;
    found["required"] = true;
    return true;
  }),
  operationEdit("a required body added", ({ operation, method }) => {
    if (operation["requestBody"] !== undefined || method === "get" || method === "delete") return false;
    operation["requestBody"] = {
      required: true,
      content: { "application/json": { schema: { type: "object", properties: { why: { type: "string" } } } } },
    };
    return true;
  }),
  operationEdit("another media type of a body", (place, document) => {
    const content = body(place, document)?.["content"] as Json | undefined;
    const [type] = Object.keys(content ?? {});
    if (!content || !type?.includes("json")) return false;
    content["application/vnd.ostrel+json"] = content[type];
    Reflect.deleteProperty(content, type);
    return true;
  }),
  operationEdit("one more media type of a body", (place, document) => {
    const content = body(place, document)?.["content"] as Json | undefined;
    if (!content || content["text/plain"] !== undefined) return false;
    content["text/plain"] = { schema: { type: "string" } };
    return true;
  }),
  operationEdit("a media type of a body dropped", (place, document) => {
    const content = body(place, document)?.["content"] as Json | undefined;
    const [, second] = Object.keys(content ?? {});
    return second !== undefined && Reflect.deleteProperty(content ?? {}, second);
  }),
  operationEdit("a media type of an answer dropped", (place, document) => {
    const content = successOf(place, document)?.response["content"] as Json | undefined;
    const [, second] = Object.keys(content ?? {});
    return second !== undefined && Reflect.deleteProperty(content ?? {}, second);
  }),
  operationEdit("200 became 201", (place, document) => {
    const found = successOf(place, document);
    if (found?.status !== "200") return false;
    found.holder["201"] = found.holder["200"];
    Reflect.deleteProperty(found.holder, "200");
    return true;
  }),
  operationEdit("success lost its body", (place, document) => {
    const found = successOf(place, document);
    if (!found?.response["content"]) return false;
    Reflect.deleteProperty(found.holder, found.status);
    found.holder["204"] = { description: "Nothing." };
    return true;
  }),
  operationEdit("a success without a body added", (place, document) => {
    const found = successOf(place, document);
    if (!found?.response["content"] || found.holder["202"] !== undefined) return false;
    found.holder["202"] = { description: "Later." };
    return true;
  }),
  operationEdit("a success with another body added", (place, document) => {
    const found = successOf(place, document);
    if (
      !found?.response["content"] ||
      found.holder["203"] !== undefined ||
      JSON.stringify(found.response["content"]).includes("x-ndjson")
    )
      return false;
    found.holder["203"] = {
      description: "Else.",
      content: {
        "application/json": {
          schema: { type: "object", required: ["ticket"], properties: { ticket: { type: "integer" } } },
        },
      },
    };
    return true;
  }),
  operationEdit("a failure added", ({ operation }) => {
    const responses = operation["responses"] as Json;
    if (responses["418"] !== undefined) return false;
    responses["418"] = {
      description: "No.",
      content: { "application/json": { schema: { type: "object", properties: { pot: { type: "string" } } } } },
    };
    return true;
  }),
  operationEdit("a failure dropped", ({ operation }) => {
    const responses = operation["responses"] as Json;
    const [status] = Object.keys(responses).filter((each) => /^[45]/.test(each));
    if (status === undefined) return false;
    Reflect.deleteProperty(responses, status);
    return true;
  }),
  operationEdit("an answer became text", (place, document) => {
    const content = successOf(place, document)?.response["content"] as Json | undefined;
    if (!content?.["application/json"]) return false;
    Reflect.deleteProperty(content, "application/json");
    content["text/plain"] = { schema: { type: "string" } };
    return true;
  }),
  operationEdit("an answer became a stream", (place, document) => {
    const content = successOf(place, document)?.response["content"] as Json | undefined;
    if (!content?.["application/json"]) return false;
    Reflect.deleteProperty(content, "application/json");
    content["application/x-ndjson"] = {
      schema: { type: "string" },
      itemSchema: { type: "object", properties: { one: { type: "string" } } },
    };
    return true;
  }),
  operationEdit("a header of an answer dropped", (place, document) => {
    const found = successOf(place, document);
    const headers = found?.response["headers"] as Json | undefined;
    const [name] = Object.keys(headers ?? {});
    if (!headers || name === undefined) return false;
    Reflect.deleteProperty(headers, name);
    return true;
  }),
  operationEdit("a header of an answer added", (place, document) => {
    const found = successOf(place, document);
    if (!found) return false;
    found.response["headers"] = {
      ...(found.response["headers"] as Json | undefined),
      "New-Header": { schema: { type: "string" } },
    };
    return true;
  }),
];

/** An edit of a parameter that is not in the path. */
function parameterEdit(
  kind: string,
  change: (parameter: Json, holder: Json[], at: number, place: Place, document: Json) => boolean | undefined,
): RestEdit {
  return {
    kind,
    apply: (document, random) =>
      pickFrom(
        parametersOf(document).filter(({ parameter }) => parameter["in"] !== "path"),
        random,
        ({ parameter, holder, at, place }) => change(parameter, holder, at, place, document),
      ),
  };
}

const ofParameters: RestEdit[] = [
  parameterEdit("a parameter removed", (_, holder, at) => {
    holder.splice(at, 1);
    return true;
  }),
  parameterEdit("a parameter renamed", (parameter, holder, at) => {
    holder[at] = { ...parameter, name: `${String(parameter["name"])}Anew` };
    return true;
  }),
  parameterEdit("a parameter required now", (parameter) => {
    if (parameter["required"] === true) return false;
    parameter["required"] = true;
    return true;
  }),
  parameterEdit("a parameter optional now", (parameter) => {
    if (parameter["required"] !== true) return false;
    parameter["required"] = false;
    return true;
  }),
  parameterEdit("a parameter moved to a header", (parameter, holder, at) => {
    if (parameter["in"] !== "query" || parameter["style"] !== undefined) return false;
    holder[at] = { ...parameter, in: "header" };
    return true;
  }),
  parameterEdit("a parameter takes a list", (parameter) => {
    const schema = parameter["schema"] as Json;
    if (parameter["in"] !== "query" || schema["type"] === "array" || schema["type"] === "object") return false;
    parameter["schema"] = { type: "array", items: schema };
    return true;
  }),
  parameterEdit("a list written another way", (parameter) => {
    if ((parameter["schema"] as Json)["type"] !== "array") return false;
    parameter["explode"] = false;
    return true;
  }),
  parameterEdit("a default changed", (parameter) => {
    const schema = parameter["schema"] as Json;
    if (typeof schema["default"] !== "number") return false;
    schema["default"] = schema["default"] + 1;
    return true;
  }),
  parameterEdit("a parameter deprecated", (parameter) => {
    parameter["deprecated"] = true;
    return true;
  }),
];

const ofContract: RestEdit[] = [
  {
    kind: "a server moved",
    apply: (document) => {
      const [server] = document["servers"] as Json[];
      if (!server) return false;
      server["url"] = "https://elsewhere.ostrel.example/v2";
      return true;
    },
  },
  {
    kind: "another kind of auth",
    apply: (document) => {
      const schemes = (document["components"] as Json)["securitySchemes"] as Json;
      const [name = ""] = Object.keys(schemes);
      schemes[name] = { type: "apiKey", in: "header", name: "Harbour-Key" };
      return true;
    },
  },
  {
    kind: "a scheme of auth renamed",
    apply: (document) => {
      const schemes = (document["components"] as Json)["securitySchemes"] as Json;
      const [name = ""] = Object.keys(schemes);
      schemes["renamed"] = schemes[name];
      Reflect.deleteProperty(schemes, name);
      document["security"] = [{ renamed: [] }];
      return true;
    },
  },
  {
    kind: "a webhook dropped",
    apply: (document) => {
      if (!document["webhooks"]) return false;
      Reflect.deleteProperty(document, "webhooks");
      return true;
    },
  },
  {
    kind: "a webhook added",
    apply: (document) => {
      document["webhooks"] = {
        ...(document["webhooks"] as Json | undefined),
        freed: {
          post: {
            requestBody: {
              content: { "application/json": { schema: { type: "object", properties: { at: { type: "string" } } } } },
            },
            responses: { 200: { description: "Noted." } },
          },
        },
      };
      return true;
    },
  },
];

/** An edit without any effect. */
function meaningless(kind: string, apply: RestEdit["apply"]): RestEdit {
  return { kind, isMeaningless: true, apply };
}

const anySchema = (
  document: Json,
  random: Randomness,
  fits: (site: Site) => boolean,
  change: (site: Site) => void,
): boolean =>
  pickFrom(sitesOf(document).filter(fits), random, (site) => {
    change(site);
    return true;
  });

function turned(holder: Json): Json {
  return Object.fromEntries<Json[string]>(Object.entries(holder).reverse());
}

const ofSpelling: RestEdit[] = [
  meaningless("fields in another order", (document, random) =>
    anySchema(document, random, isRecord, ({ schema }) => {
      schema["properties"] = turned(properties(schema));
    }),
  ),
  meaningless("required fields in another order", (document, random) =>
    anySchema(
      document,
      random,
      ({ schema }) => required(schema).length > 1,
      ({ schema }) => {
        schema["required"] = [...required(schema)].reverse();
      },
    ),
  ),
  meaningless("paths in another order", (document) => {
    document["paths"] = turned(pathsOf(document));
    return true;
  }),
  meaningless("choices in another order", (document, random) =>
    anySchema(
      document,
      random,
      ({ schema }) => Array.isArray(schema["enum"]),
      ({ schema }) => {
        schema["enum"] = [...(schema["enum"] as unknown[])].reverse();
      },
    ),
  ),
  meaningless("members of a union in another order", (document, random) =>
    anySchema(
      document,
      random,
      ({ schema }) => schema["discriminator"] !== undefined,
      ({ schema }) => {
        schema["oneOf"] = [...(schema["oneOf"] as Json[])].reverse();
      },
    ),
  ),
  meaningless("parameters in another order", (document, random) =>
    pickFrom(operationsOf(document), random, ({ operation }) => {
      const list = operation["parameters"] as Json[] | undefined;
      if (!list || list.length < 2) return false;
      list.reverse();
      return true;
    }),
  ),
  meaningless("responses in another order", (document) => {
    for (const { operation } of operationsOf(document)) operation["responses"] = turned(operation["responses"] as Json);
    return true;
  }),
  meaningless("named shapes in another order", (document) => {
    const components = document["components"] as Json;
    components["schemas"] = turned(components["schemas"] as Json);
    return true;
  }),
  meaningless("a description of a shape changed", (document, random) =>
    anySchema(
      document,
      random,
      ({ schema }) => schema["$ref"] === undefined,
      ({ schema }) => {
        schema["description"] = "Other words.";
      },
    ),
  ),
  meaningless("a title given to a shape", (document, random) =>
    anySchema(
      document,
      random,
      ({ schema }) => schema["$ref"] === undefined,
      ({ schema }) => {
        schema["title"] = "A title";
      },
    ),
  ),
  meaningless("words of an operation changed", (document, random) =>
    pickFrom(operationsOf(document), random, ({ operation }) => {
      operation["summary"] = "Other words.";
      operation["description"] = "Even more of them.";
      return true;
    }),
  ),
  meaningless("an example changed", (document, random) =>
    anySchema(document, random, isText, ({ schema }) => {
      schema["examples"] = ["other"];
    }),
  ),
  meaningless("a version counted up", (document) => {
    (document["info"] as Json)["version"] = "9.9.9";
    return true;
  }),
  meaningless("a reference wrapped in allOf", (document, random) =>
    anySchema(
      document,
      random,
      ({ schema, as }) => schema["$ref"] !== undefined && as === "property",
      (site) => {
        replace(site, { allOf: [{ ...site.schema }] });
      },
    ),
  ),
  meaningless("an inline shape moved behind a name", (document, random) =>
    anySchema(
      document,
      random,
      (site) => isRecord(site) && ["root", "item"].includes(site.as),
      (site) => {
        const schemas = (document["components"] as Json)["schemas"] as Json;
        schemas["MovedHere"] = { ...site.schema };
        replace(site, { $ref: "#/components/schemas/MovedHere" });
      },
    ),
  ),
  meaningless("an inline choice moved behind a name", (document, random) =>
    anySchema(
      document,
      random,
      (site) => Array.isArray(site.schema["enum"]) && site.as === "property",
      (site) => {
        const schemas = (document["components"] as Json)["schemas"] as Json;
        schemas["MovedHere"] = { ...site.schema };
        replace(site, { $ref: "#/components/schemas/MovedHere" });
      },
    ),
  ),
  meaningless("null spelled another way", (document, random) =>
    anySchema(
      document,
      random,
      ({ schema }) => Array.isArray(schema["type"]),
      (site) => {
        const { type, ...others } = site.schema;
        const [plain] = (type as string[]).filter((each) => each !== "null");
        replace(site, { anyOf: [{ ...others, type: plain }, { type: "null" }] });
      },
    ),
  ),
  meaningless("a constant spelled as a choice of one", (document, random) =>
    anySchema(
      document,
      random,
      ({ schema }) => schema["const"] !== undefined,
      ({ schema }) => {
        schema["enum"] = [schema["const"]];
        Reflect.deleteProperty(schema, "const");
      },
    ),
  ),
  meaningless("another patch version of OpenAPI", (document) => {
    document["openapi"] = "3.1.1";
    return true;
  }),
  meaningless("a shape that nothing uses", (document) => {
    ((document["components"] as Json)["schemas"] as Json)["Unused"] = {
      type: "object",
      properties: { a: { type: "string" } },
    };
    return true;
  }),
  meaningless("an extension", (document, random) =>
    pickFrom(operationsOf(document), random, ({ operation }) => {
      operation["x-team"] = "quay";
      return true;
    }),
  ),
  meaningless("a parameter moved to the components", (document, random) =>
    pickFrom(parametersOf(document), random, ({ parameter, holder, at }) => {
      if (holder[at]?.["$ref"] !== undefined) return false;
      const components = document["components"] as Json;
      components["parameters"] = { ...(components["parameters"] as Json | undefined), Moved: parameter };
      holder[at] = { $ref: "#/components/parameters/Moved" };
      return true;
    }),
  ),
  meaningless("a response moved to the components", (document, random) =>
    pickFrom(responsesOf(document), random, ({ response, status, holder }) => {
      if ((holder[status] as Json)["$ref"] !== undefined) return false;
      const components = document["components"] as Json;
      components["responses"] = { ...(components["responses"] as Json | undefined), Moved: response };
      holder[status] = { $ref: "#/components/responses/Moved" };
      return true;
    }),
  ),
  meaningless("not deprecated, said out loud", (document, random) =>
    pickFrom(operationsOf(document), random, ({ operation }) => {
      if (operation["deprecated"] !== undefined) return false;
      operation["deprecated"] = false;
      return true;
    }),
  ),
  meaningless("a range that says nothing", (document, random) =>
    anySchema(
      document,
      random,
      (site) => isText(site) && site.schema["minLength"] === undefined,
      ({ schema }) => {
        schema["minLength"] = 0;
      },
    ),
  ),
  meaningless("words of a response changed", (document, random) =>
    pickFrom(responsesOf(document), random, ({ response }) => {
      response["description"] = "Other words.";
      return true;
    }),
  ),
];

/** Every kind of edit of a REST contract. */
export const restEdits: readonly RestEdit[] = [
  ...ofSchemas,
  ...ofOperations,
  ...ofParameters,
  ...ofContract,
  ...ofSpelling,
];
