import {
  inheritedNames,
  makeRecord,
  makeSchema,
  oddNames,
  reference,
  type Json,
  type SchemaContext,
  type Version,
} from "./makeSchema.js";
import { Randomness } from "./randomness.js";
import { varyChoices, varyOperations } from "./varyOperations.js";

export interface RandomContract {
  readonly seed: number;
  readonly version: Version;
  readonly document: Json;
  /** Some fields have the names of inherited members, so that the compiler finds them where they are not declared. */
  readonly isInheriting: boolean;
  readonly occurred: ReadonlyMap<string, number>;
}

const schemaNames = [
  "Vessel",
  "berth-size",
  "BerthSize",
  "pkg.deep.Name",
  "Error",
  "x-private",
  "9lives",
  "Größe",
  "名前",
  "Promise",
  "Record",
  "op1Args",
  "a/b~c",
  "constructor",
  "Tide Table",
];
const methods = ["get", "put", "post", "delete", "patch"];

/** Returns a contract made of everything that its version of the format allows, the same for the same seed. */
export function makeContract(seed: number): RandomContract {
  const random = new Randomness(seed);
  const version = random.pick<Version>(["2.0", "3.0", "3.0", "3.1", "3.1", "3.1", "3.2"]);
  random.hit(`version ${version}`, 0);
  const records = schemaNames.filter(() => random.chance(0.25));
  const others = ["Alias", "Several", "Loop", "Index", "List of things"].filter(() => random.chance(0.5));
  const isInheriting = random.chance(0.1);
  const fieldNames = isInheriting
    ? random.hit("names that objects inherit", [...oddNames, ...inheritedNames])
    : oddNames;
  const base: SchemaContext = { random, version, names: [...records, ...others], records, fieldNames, depth: 3 };
  const schemas: Json = {};
  for (const name of records) schemas[name] = makeRecord(base);
  for (const name of others) schemas[name] = makeSchema({ ...base, names: records });
  if (others.includes("Loop"))
    schemas["Loop"] = random.hit("recursion", {
      type: "object",
      properties: { next: reference("Loop", base), list: { type: "array", items: reference("Loop", base) } },
    });
  if (others.includes("Index"))
    schemas["Index"] = random.hit("map of itself", { type: "object", additionalProperties: reference("Index", base) });
  needCircles(schemas, base, new Randomness(seed + 90_003));
  const paths: Json = {};
  const operations = 3 + random.below(4);
  for (let at = 0; at < operations; at++) addOperation(paths, at, base);
  varyOperations(paths, base, new Randomness(seed + 90_001));
  varyChoices(paths, base, new Randomness(seed + 90_002));
  const info = { title: `Random ${String(seed)}`, version: "1" };
  const document: Json =
    version === "2.0" ? olderDocument(info, paths, schemas, random) : newerDocument(info, paths, schemas, base);
  return { seed, version, document, isInheriting, occurred: random.occurred };
}

/**
 * Adds a field to records that needs one of several alternatives, first a record. It uses random numbers of its own,
 * like `varyOperations`.
 */
function needCircles(schemas: Json, context: SchemaContext, random: Randomness): void {
  if (context.version === "2.0") return;
  for (const name of context.records) {
    if (!random.chance(0.12)) continue;
    const record = schemas[name] as { properties: Json; required?: string[] };
    const circle = reference(random.chance(0.5) ? name : random.pick(context.records), context);
    const oneOf = [circle, ...random.pick<Json[]>([[], [{ type: "array", items: circle }]]), { type: "string" }];
    schemas[name] = context.random.hit("a circle that a union leads out of", {
      ...record,
      required: [...(record.required ?? []), "leads"],
      properties: { ...record.properties, leads: { oneOf } },
    });
  }
}

function olderDocument(info: Json, paths: Json, definitions: Json, random: Randomness): Json {
  return {
    swagger: "2.0",
    info,
    host: "ostrel.example",
    basePath: "/v1",
    schemes: random.hit("schemes", ["https"]),
    securityDefinitions: random.hit("securityDefinitions", { key: { type: "apiKey", in: "header", name: "X-Key" } }),
    paths,
    definitions,
  };
}

function newerDocument(info: Json, paths: Json, schemas: Json, context: SchemaContext): Json {
  const { random, version } = context;
  const dialect = { "3.0": "3.0.3", "3.1": "3.1.0", "3.2": "3.2.0", "2.0": "" }[version];
  const webhooks =
    version !== "3.0" && random.chance(0.4)
      ? {
          webhooks: random.hit("webhooks", {
            arrived: { post: { requestBody: jsonBody(context), responses: noContent } },
          }),
        }
      : {};
  return {
    openapi: dialect,
    info,
    servers: [
      {
        url: "https://{where}.ostrel.example",
        variables: { where: random.hit("server variables", { default: "eu", enum: ["eu", "us"] }) },
      },
    ],
    paths,
    ...webhooks,
    components: {
      schemas,
      securitySchemes: random.hit("securitySchemes", {
        key: { type: "apiKey", in: "query", name: "k" },
        token: { type: "http", scheme: "bearer" },
        digest: { type: "http", scheme: "digest" },
        login: { type: "oauth2", flows: {} },
        open: { type: "openIdConnect", openIdConnectUrl: "https://ostrel.example" },
        ...(version === "3.0" ? {} : { cert: { type: "mutualTLS" } }),
      }),
    },
  };
}

const noContent = { "204": { description: "fine" } };

function jsonBody(context: SchemaContext): Json {
  return { content: { "application/json": { schema: makeSchema(context) } }, required: true };
}

function addOperation(paths: Json, at: number, context: SchemaContext): void {
  const { random, version } = context;
  const id = `op${String(at + 1)}`;
  const fixed = random.pick(["/things", "/x-y/z", "/compare", "/deep/er"]);
  const inPath = random.chance(0.4) ? ["id"] : [];
  const path = `${fixed}${String(at)}${inPath.map((name) => `/{${name}}`).join("")}`;
  const method = random.pick(methods);
  const operation: Json = { operationId: id, tags: ["all"], summary: "Does */ `something`." };
  operation["parameters"] = [
    ...inPath.map((name) => makeParameter(name, "path", context)),
    ...parameterPlaces(context).flatMap((place) =>
      random.chance(0.3) ? [makeParameter(random.pick(context.fieldNames.filter(Boolean)), place, context)] : [],
    ),
  ];
  if (method !== "get" && random.chance(0.8)) addBody(operation, context);
  operation["responses"] = makeResponses(context);
  if (random.chance(0.2))
    operation["security"] = random.hit(
      "security alternatives",
      version === "2.0" ? [{ key: [] }] : [{ key: [] }, { token: [], digest: [] }, {}],
    );
  if (random.chance(0.1)) operation["security"] = random.hit("no security", []);
  if (random.chance(0.1)) operation["deprecated"] = random.hit("deprecated operation", true);
  if (version !== "2.0") {
    if (random.chance(0.1))
      operation["servers"] = random.hit("operation servers", [{ url: "https://files.ostrel.example" }]);
    if (random.chance(0.15))
      operation["callbacks"] = random.hit("callbacks", {
        done: { "{$request.body#/url}": { post: { requestBody: jsonBody(context), responses: noContent } } },
      });
  }
  if (version === "3.2" && random.chance(0.3)) paths[path] = { query: random.hit("query method", operation) };
  else if (version === "3.2" && random.chance(0.3))
    paths[path] = { additionalOperations: { COPY: random.hit("additionalOperations", operation) } };
  else paths[path] = { [method]: operation };
}

function parameterPlaces({ version }: SchemaContext): string[] {
  return version === "2.0" ? ["query", "query", "header"] : ["query", "query", "header", "cookie"];
}

function makeParameter(name: string, place: string, context: SchemaContext): Json {
  const { random, version } = context;
  const scalar = { type: random.pick(["string", "integer", "boolean"]) };
  const required = place === "path" || random.chance(0.3);
  random.hit(`${place} parameter`, 0);
  if (version === "2.0") {
    const isList = random.chance(0.5);
    const format = random.pick(["csv", "ssv", "tsv", "pipes", ...(place === "query" ? ["multi"] : [])]);
    return isList
      ? {
          name,
          in: place,
          required,
          type: "array",
          items: scalar,
          collectionFormat: random.hit(`collectionFormat ${format}`, format),
        }
      : { name, in: place, required, ...scalar };
  }
  if (random.chance(0.1))
    return {
      name,
      in: place,
      required,
      content: random.hit("content parameter", {
        "application/json": { schema: makeSchema({ ...context, depth: 1 }) },
      }),
    };
  const styles: Readonly<Record<string, readonly string[]>> = {
    path: ["simple", "label", "matrix"],
    query: ["form", "spaceDelimited", "pipeDelimited", "deepObject"],
    header: ["simple"],
    cookie: ["form"],
  };
  const style = random.pick(styles[place] ?? []);
  const shape =
    style === "deepObject"
      ? { type: "object", properties: { a: scalar, "b c": scalar } }
      : random.pick([
          scalar,
          { type: "array", items: scalar },
          { type: "object", properties: { a: scalar } },
          makeSchema({ ...context, depth: 0 }),
        ]);
  return {
    name,
    in: place,
    required,
    schema: shape,
    style: random.hit(`style ${style}`, style),
    ...(random.chance(0.4) ? { explode: random.hit("explode", random.chance(0.5)) } : {}),
    ...(place === "query" && random.chance(0.1) ? { allowReserved: random.hit("allowReserved", true) } : {}),
  };
}

function addBody(operation: Json, context: SchemaContext): void {
  const { random, version } = context;
  if (version === "2.0") {
    const parameters = operation["parameters"] as unknown[];
    if (random.chance(0.7))
      parameters.push({
        name: "payload",
        in: "body",
        required: true,
        schema: random.hit("2.0 body", makeSchema(context)),
      });
    else {
      parameters.push(
        { name: "file", in: "formData", type: random.hit("2.0 file", "file") },
        { name: "note", in: "formData", type: random.hit("formData", "string"), required: true },
      );
      operation["consumes"] = ["multipart/form-data"];
    }
    return;
  }
  const kinds: (() => Json)[] = [
    () => random.hit("JSON body", { "application/json": { schema: makeSchema(context) } }),
    () => random.hit("JSON body", { "application/json": { schema: makeSchema(context) } }),
    () => random.hit("+json body", { "application/vnd.ostrel+json": { schema: makeSchema(context) } }),
    () => random.hit("text body", { "text/plain": { schema: { type: "string" } } }),
    () => random.hit("bytes body", { "application/octet-stream": {} }),
    () =>
      random.hit("urlencoded body", {
        "application/x-www-form-urlencoded": {
          schema: makeRecord(context),
          encoding: { id: random.hit("encoding", { style: "form", explode: false }) },
        },
      }),
    () =>
      random.hit("multipart body", {
        "multipart/form-data": {
          schema: {
            type: "object",
            properties: { file: { type: "string", format: "binary" }, meta: makeSchema({ ...context, depth: 1 }) },
          },
          encoding: { meta: { contentType: "application/json" } },
        },
      }),
    () =>
      random.hit("several media types", {
        "application/json": { schema: makeSchema(context) },
        "text/plain": { schema: { type: "string" } },
      }),
  ];
  if (version === "3.2")
    kinds.push(() => random.hit("itemSchema body", { "application/jsonl": { itemSchema: makeSchema(context) } }));
  operation["requestBody"] = { required: random.chance(0.7), content: random.pick(kinds)() };
}

function makeResponses(context: SchemaContext): Json {
  const { random, version } = context;
  const json = (): Json =>
    version === "2.0"
      ? { schema: makeSchema(context) }
      : { content: { "application/json": { schema: makeSchema(context) } } };
  const responses: Json = { "200": { description: "fine", ...random.hit("JSON answer", json()) } };
  if (random.chance(0.1)) responses["200"] = { description: random.hit("answer without content", "nothing") };
  if (version !== "2.0" && random.chance(0.12)) {
    const [mediaType, feature] = random.pick([
      ["text/event-stream", "event stream"],
      ["application/x-ndjson", "line stream"],
      ["application/json-seq", "sequence stream"],
    ] as const);
    const key = version === "3.2" ? random.hit("itemSchema", "itemSchema") : "schema";
    responses["200"] = {
      description: random.hit(feature, "items"),
      content: { [mediaType]: { [key]: makeSchema({ ...context, depth: 1 }) } },
    };
  }
  if (version !== "2.0" && random.chance(0.08))
    responses["200"] = { description: random.hit("text answer", "text"), content: { "text/csv": {} } };
  if (version !== "2.0" && random.chance(0.08))
    responses["200"] = { description: random.hit("bytes answer", "bytes"), content: { "image/png": {} } };
  if (random.chance(0.2)) responses["201"] = { description: random.hit("several answers", "made"), ...json() };
  if (random.chance(0.3)) responses["404"] = { description: random.hit("failure", "gone */"), ...json() };
  if (version !== "2.0" && random.chance(0.15))
    responses["4XX"] = { description: random.hit("range", "wrong"), ...json() };
  if (random.chance(0.2)) responses["default"] = { description: random.hit("default response", "else"), ...json() };
  if (random.chance(0.2)) {
    const schema = { type: random.pick(["string", "integer", "boolean"]) };
    const headers = {
      "X-Left": version === "2.0" ? schema : { schema },
      "X-List": version === "2.0" ? { type: "array", items: schema } : { schema: { type: "array", items: schema } },
    };
    responses["200"] = { ...(responses["200"] as Json), headers: random.hit("response headers", headers) };
  }
  return responses;
}
