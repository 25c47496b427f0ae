/** The positions of a contract's names. */
export const positions = [
  "type",
  "field",
  "required field",
  "field beside all others",
  "parameter in the query",
  "parameter in a header",
  "parameter in the path",
  "operation",
  "tag",
  "choice",
  "choice beside all others",
  "tag value of a union",
  "field that is the tag",
  "security scheme",
  "response header",
  "constant",
  "description",
  "deprecation",
  "pattern",
  "server variable",
  "webhook",
  "header of a webhook",
  "parameter of a webhook",
] as const;

type Json = Readonly<Record<string, unknown>>;

/** Returns a contract in which every name is in every position. */
export function hostileContract(names: readonly string[]): Json {
  const schemas: Record<string, unknown> = {};
  const paths: Record<string, unknown> = {};
  const securitySchemes: Record<string, unknown> = {};
  const all = [...new Set(names)];
  const ref = (key: string): Json => ({ $ref: `#/components/schemas/${key.replace(/~/g, "~0").replace(/\//g, "~1")}` });
  for (const [at, name] of all.entries()) {
    const key = `n${String(at)}`;
    const isKey = /^[\w.-]+$/.test(name);
    if (isKey) schemas[name] = { type: "object", properties: { a: { type: "string" } } };
    schemas[`${key}Field`] = { type: "object", properties: { [name]: { type: "string", description: name } } };
    schemas[`${key}Required`] = {
      type: "object",
      required: [name],
      properties: { [name]: { type: ["integer", "null"], deprecated: true }, nullable: { type: ["string", "null"] } },
    };
    schemas[`${key}Choice`] = { type: "string", enum: [name] };
    schemas[`${key}Constant`] = { type: "object", required: ["a"], properties: { a: { const: name, pattern: name } } };
    schemas[`${key}One`] = { type: "object", required: [name], properties: { [name]: { const: "one" } } };
    schemas[`${key}Two`] = { type: "object", required: [name], properties: { [name]: { const: name } } };
    schemas[`${key}Union`] = {
      oneOf: [ref(`${key}One`), ref(`${key}Two`)],
      discriminator: {
        propertyName: name,
        mapping: { one: ref(`${key}One`)["$ref"], [name]: ref(`${key}Two`)["$ref"] },
      },
    };
    securitySchemes[isKey ? name : key] = { type: "apiKey", in: "query", name, description: name };
    const parameter = (place: string, wire: string): Json => ({
      name: wire,
      in: place,
      required: place === "path",
      description: name,
      deprecated: place === "query",
      schema: { type: "string" },
    });
    const isToken = /^[\w!#$%&'*+.^`|~-]+$/.test(name);
    const isSegment = !/[{}/?#\n]/.test(name);
    const content = { "application/json": { schema: ref(`${key}Union`) } };
    paths[`/${key}${isSegment ? `/{${name}}` : ""}`] = {
      post: {
        operationId: name,
        tags: [name],
        description: name,
        deprecated: true,
        security: [{ [isKey ? name : key]: [] }],
        parameters: [
          parameter("query", name),
          ...(isToken ? [parameter("header", name)] : []),
          ...(isSegment ? [parameter("path", name)] : []),
        ],
        requestBody: { description: name, content: { "application/json": { schema: ref(`${key}Required`) } } },
        responses: {
          200: {
            description: name,
            headers: isToken ? { [name]: { schema: { type: "integer" }, description: name } } : {},
            content,
          },
          404: {
            description: name,
            content: { "application/json": { schema: isKey ? ref(name) : ref(`${key}Field`) } },
          },
          409: { description: name, content: { "application/json": { schema: ref(`${key}Choice`) } } },
        },
      },
    };
    paths[`/${key}/more`] = {
      get: {
        responses: { 200: { description: "x", content: { "application/json": { schema: ref(`${key}Constant`) } } } },
      },
      put: {
        requestBody: { content: { "application/json": { schema: ref(`${key}Required`) } } },
        responses: { 200: { description: "x", content: { "application/json": { schema: ref(`${key}Required`) } } } },
      },
    };
  }
  schemas["AllFields"] = {
    type: "object",
    properties: Object.fromEntries(all.map((name) => [name, { type: "string" }])),
    additionalProperties: { type: "integer" },
  };
  schemas["AllChoices"] = { type: "string", enum: all };
  const whole = { type: "array", items: { type: "object", properties: { a: ref("AllFields"), b: ref("AllChoices") } } };
  paths["/all"] = {
    put: {
      requestBody: { content: { "application/json": { schema: whole } } },
      responses: { 200: { description: "x", content: { "application/json": { schema: whole } } } },
    },
  };
  return {
    openapi: "3.1.0",
    info: { title: '*/ "hostile" ${x}', version: "*/" },
    servers: [
      {
        url: `https://{${all.filter((name) => !/[{}/\n]/.test(name)).join("}.{")}}.example`,
        variables: Object.fromEntries(all.map((name) => [name, { default: "a", description: name }])),
      },
    ],
    paths,
    webhooks: Object.fromEntries(
      all.map((name, at) => [
        name,
        {
          post: {
            description: name,
            parameters: at === 0 ? comingAlong(all) : [],
            requestBody: { description: name, content: { "application/json": { schema: ref("AllFields") } } },
            responses: { 200: { description: "x", content: { "application/json": { schema: ref("AllFields") } } } },
          },
        },
      ]),
    ),
    components: { schemas, securitySchemes },
  };
}

/** Headers and query parameters of one webhook, with all names. */
function comingAlong(names: readonly string[]): Json[] {
  return ["header", "query"].flatMap((place) =>
    names.map((name, at) => ({
      name,
      in: place,
      description: name,
      deprecated: at % 2 === 0,
      schema: { type: "string" },
    })),
  );
}
