// Makes a synthetic REST contract of a given size; the same size gives the same text.

/** A small deterministic random generator (mulberry32). */
function randomFrom(seed) {
  let state = seed;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let mixed = Math.imul(state ^ (state >>> 15), 1 | state);
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed;
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4294967296;
  };
}

/** Prose with Markdown in it, of which authors write pages. */
const prose = "Berths are *given* by the harbour office; see `tariffs` and [the rules](https://ostrel.example/rules). ";

/**
 * Returns an OpenAPI 3.1 document with `operations` operations and `types` named schemas.
 *
 * @param bulk how much more there is than types need: longer descriptions, examples, more fields; 0 for none
 */
export function makeContract(operations, types, bulk = 0) {
  const random = randomFrom(7);
  const below = (count) => Math.floor(random() * count);
  const reference = () => ({ $ref: `#/components/schemas/Type${below(types)}` });
  const fieldSchema = () => {
    const kinds = [
      () => ({ type: "string", description: "A line of text that says something about the field." }),
      () => ({ type: "integer", minimum: 0, maximum: 1000 }),
      () => ({ type: "number" }),
      () => ({ type: "boolean" }),
      () => ({ type: "string", format: "date-time" }),
      () => ({ type: ["string", "null"] }),
      () => ({ type: "string", enum: ["one", "two", "three", "four"] }),
      () => ({ type: "array", items: reference() }),
      () => ({ type: "object", properties: { a: { type: "string" }, b: { type: "integer" } } }),
      () => ({ type: "object", additionalProperties: { type: "string" } }),
      reference,
    ];
    return kinds[below(kinds.length)]();
  };
  const example = (size) =>
    size === 0
      ? {}
      : {
          examples: {
            usual: {
              value: Array.from({ length: size * 2 }, (_, at) => ({
                id: at,
                name: `Berth ${at}`,
                note: prose,
                tags: ["a", "b"],
                size: { length: 12.5, unit: "m" },
              })),
            },
          },
        };
  const schemas = {};
  for (let at = 0; at < types; at++) {
    const properties = {};
    for (let field = 0; field < 6 + below(14) + bulk * 4; field++) properties[`field${field}`] = fieldSchema();
    schemas[`Type${at}`] = {
      type: "object",
      description: `The type of number ${at}. ${prose.repeat(bulk)}`,
      required: Object.keys(properties).filter(() => random() < 0.5),
      properties,
    };
  }
  const paths = {};
  const verbs = ["get", "post", "put", "delete"];
  for (let at = 0; at < operations; at++) {
    const path = `/group${at % 40}/things${Math.floor(at / 4)}/{id}`;
    const method = verbs[at % 4];
    paths[path] ??= {};
    paths[path][method] = {
      operationId: `operation${at}`,
      tags: [`group${at % 40}`],
      summary: `Does the thing of number ${at}.`,
      ...(bulk > 0 ? { description: prose.repeat(bulk * 2) } : {}),
      parameters: [
        { name: "id", in: "path", required: true, schema: { type: "string" } },
        { name: "limit", in: "query", schema: { type: "integer", default: 20 } },
        { name: "filter", in: "query", schema: { type: "array", items: { type: "string" } } },
      ],
      ...(method === "post" || method === "put"
        ? { requestBody: { required: true, content: { "application/json": { schema: reference() } } } }
        : {}),
      responses: {
        200: { description: "fine", content: { "application/json": { schema: reference(), ...example(bulk) } } },
        404: { description: "not there", content: { "application/problem+json": { schema: reference() } } },
      },
    };
  }
  return { openapi: "3.1.0", info: { title: "Synthetic", version: "1.0.0" }, paths, components: { schemas } };
}
