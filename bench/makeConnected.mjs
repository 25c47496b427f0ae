// Makes a synthetic REST contract like large public ones: records inside others, and types that all refer to each
// other. The same size gives the same text.

/**
 * Returns an OpenAPI 3.1 document with `operations` operations and `types` named schemas; 1,000 and 900 make 15 MB,
 * indented.
 */
export function makeConnected(operations, types) {
  let state = 7;
  const random = () => {
    state = (state + 0x6d2b79f5) | 0;
    let mixed = Math.imul(state ^ (state >>> 15), 1 | state);
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed;
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4294967296;
  };
  const below = (count) => Math.floor(random() * count);
  const reference = () => ({ $ref: `#/components/schemas/type-${below(types)}` });
  const described = { description: "A line of text about the field of this record." };
  const record = (depth) => {
    const names = Array.from({ length: 8 + below(20) }, (_, at) => `field_${at}`);
    const properties = Object.fromEntries(names.map((name) => [name, field(depth + 1)]));
    return { type: "object", properties, required: names.filter(() => random() < 0.6) };
  };
  const kinds = [
    ...Array.from({ length: 4 }, () => () => ({ type: "string", ...described, example: "calm" })),
    ...Array.from({ length: 2 }, () => () => ({ type: "integer", ...described, example: 1 })),
    () => ({ type: "boolean", ...described }),
    () => ({ type: ["string", "null"], format: "date-time", ...described }),
    () => ({ type: "string", enum: ["one", "two", "three", `other${below(50)}`], ...described }),
    () => ({ type: "array", items: reference() }),
    () => ({ anyOf: [{ type: "null" }, reference()] }),
    (depth) => (depth < 3 && random() < 0.5 ? record(depth) : { type: "string", format: "uri" }),
    (depth) => (depth < 3 && random() < 0.3 ? { type: "array", items: record(depth) } : { type: "string" }),
    () => ({ oneOf: [reference(), reference(), { type: "string" }] }),
  ];
  const field = (depth) => kinds[below(kinds.length)](depth);
  const schemas = Object.fromEntries(
    Array.from({ length: types }, (_, at) => [
      `type-${at}`,
      { description: `The type of number ${at}.`, ...record(0) },
    ]),
  );
  const json = (schema) => ({ content: { "application/json": { schema } } });
  const parameter = (name, where, schema) => ({ name, in: where, required: where === "path", schema });
  const paths = {};
  for (let at = 0; at < operations; at++) {
    const path = `/things/{owner}/part${Math.floor(at / 4)}/{name}`;
    const method = ["get", "post", "put", "delete"][at % 4];
    const answer = random() < 0.5 ? { type: "array", items: reference() } : random() < 0.5 ? reference() : record(1);
    paths[path] ??= {};
    paths[path][method] = {
      operationId: `group${at % 40}/thing${at}`,
      tags: [`group${at % 40}`],
      summary: `Does the thing of number ${at}.`,
      parameters: [
        parameter("owner", "path", { type: "string" }),
        parameter("name", "path", { type: "string" }),
        parameter("page", "query", { type: "integer", default: 1 }),
      ],
      ...(at % 4 === 1 || at % 4 === 2 ? { requestBody: { required: true, ...json(record(1)) } } : {}),
      responses: {
        200: { description: "fine", ...json(answer) },
        404: { description: "not there", ...json(reference()) },
        422: { description: "not like this", ...json(reference()) },
      },
    };
  }
  return { openapi: "3.1.0", info: { title: "Connected", version: "1.0.0" }, paths, components: { schemas } };
}
