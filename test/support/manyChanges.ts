/**
 * Returns a made-up contract in two versions, with more than 900 changes of many kinds between them.
 *
 * @param own the number of removed fields in each of its 96 types that no other type has
 */
export function manyChanges(own = 1): { before: string; after: string } {
  return { before: JSON.stringify(version(own, false)), after: JSON.stringify(version(own, true)) };
}

const groups = ["berths", "cranes", "pilots", "tariffs", "tides", "tugs", "vessels", "voyages"];
const typesPerGroup = 12;
const fieldsPerType = 10;

function version(own: number, isAfter: boolean): object {
  const schemas: Record<string, object> = {
    "harbour.Flag": { type: "string", enum: flags(isAfter ? 240 : 4) },
    "harbour.Problem": { type: "object", required: ["title"], properties: { title: { type: "string" } } },
  };
  const paths: Record<string, object> = {};
  for (const group of groups) {
    for (let at = 0; at < typesPerGroup; at += 1) {
      const name = `harbour.${group}.Kind${String(at)}`;
      schemas[name] = record({ type: at, group, own }, isAfter);
      paths[`/${group}/kind-${String(at)}`] = { get: operation(`get${group}${String(at)}`, name, isAfter) };
    }
  }
  return {
    openapi: "3.1.0",
    info: { title: "Harbour of many changes", version: isAfter ? "2.0.0" : "1.0.0" },
    paths,
    components: { schemas },
  };
}

function flags(count: number): string[] {
  return Array.from({ length: count }, (_, at) => `flag-${String(at)}`);
}

/** Fields that were removed, may be absent, have another type, are new, or have other values. */
function record(
  { type, group, own }: { readonly type: number; readonly group: string; readonly own: number },
  isAfter: boolean,
): object {
  const properties: Record<string, object> = {};
  for (let at = 0; at < own && !isAfter; at += 1)
    properties[`${group}Once${String(type * own + at)}`] = { type: "string" };
  for (let at = 0; at < fieldsPerType; at += 1) properties[`field${String(at)}`] = { type: "string" };
  properties["flag"] = { $ref: "#/components/schemas/harbour.Flag" };
  const required = Object.keys(properties);
  if (!isAfter) return { type: "object", required, properties };
  delete properties["field0"];
  properties["field2"] = { type: type % 2 === 0 ? "number" : "boolean" };
  for (const fresh of ["tonnage", "keel", "mast", "wharf"]) properties[fresh] = { type: "string" };
  const needed = required.filter((name) => !["field0", "field1"].includes(name));
  return { type: "object", required: [...needed, "keel"], properties };
}

function operation(operationId: string, type: string, isAfter: boolean): object {
  const json = (schema: object) => ({ content: { "application/json": { schema } } });
  const problem = { description: "No.", ...json({ $ref: "#/components/schemas/harbour.Problem" }) };
  return {
    operationId,
    parameters: [{ name: "season", in: "query", required: isAfter, schema: { type: "string" } }],
    responses: {
      "200": { description: "Yes.", ...json({ $ref: `#/components/schemas/${type}` }) },
      ...(isAfter ? { "423": problem } : { "409": problem }),
    },
  };
}
