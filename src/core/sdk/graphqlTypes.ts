import type { Field, GraphqlContract, RecordShape, Reference, Shape, TypeDefinition } from "../contract/model.js";

/** The configuration of a custom scalar. */
export interface ScalarMeaning {
  /** The format in JSON, as in OpenAPI. The SDK's settings for that format then apply to the scalar too. */
  readonly format?: string;
}

/** The scalar for uploads by the convention for multipart requests. It is a file without being mapped. */
const uploadScalar = "Upload";

/**
 * Returns the types of a schema for an SDK, with mapped scalars replaced by their types.
 *
 * @param meanings the configuration by scalar
 */
export function withScalars(
  types: ReadonlyMap<string, TypeDefinition>,
  meanings: ReadonlyMap<string, ScalarMeaning>,
): Map<string, TypeDefinition> {
  return new Map(
    [...types].map(([key, definition]) => {
      const format = meanings.get(key)?.format ?? (key === uploadScalar ? "binary" : undefined);
      if (definition.role !== "scalar" || format === undefined) return [key, definition];
      return [key, { ...definition, shape: shapeOfFormat(format) }];
    }),
  );
}

function shapeOfFormat(format: string): Shape {
  switch (format) {
    case "binary":
      return { kind: "bytes" };
    case "int32":
    case "int64":
      return { kind: "integer", format };
    case "float":
    case "double":
      return { kind: "number", format };
    default:
      return { kind: "text", format };
  }
}

/**
 * Returns the types of a schema as types of their own, for an SDK with all of them. An interface becomes the union of
 * its implementing types, and members of unions get their `__typename`. Root types are left out.
 */
export function schemaTypes(
  contract: GraphqlContract,
  types: ReadonlyMap<string, TypeDefinition>,
): Map<string, TypeDefinition> {
  const roots = new Set(Object.values(contract.roots));
  const objects = [...types.values()].filter(({ role, key }) => role === "object" && !roots.has(key));
  const implementing = (name: string): string[] =>
    objects.filter((each) => each.implements?.includes(name) === true).map(({ key }) => key);
  const unions = new Map<string, string[]>();
  for (const { key, role, shape } of types.values()) {
    const members = role === "interface" ? implementing(key) : shape.kind === "union" ? namesOf(shape.members) : [];
    if (members.length > 0) unions.set(key, members);
  }
  const tagged = new Set([...unions.values()].flat());
  return new Map(
    [...types].flatMap(([key, definition]): [string, TypeDefinition][] => {
      if (roots.has(key)) return [];
      const members = unions.get(key);
      if (members) return [[key, { ...definition, shape: unionOf(members) }]];
      if (!tagged.has(key) || definition.shape.kind !== "record") return [[key, definition]];
      return [[key, { ...definition, shape: withTag(definition.shape, definition) }]];
    }),
  );
}

function namesOf(members: readonly Reference[]): string[] {
  return members.flatMap(({ shape }) => (shape.kind === "named" ? [shape.key] : []));
}

function unionOf(members: readonly string[]): Shape {
  const sorted = [...members].sort();
  return {
    kind: "union",
    members: sorted.map((key) => ({ shape: { kind: "named", key }, nullable: false })),
    tag: { field: "__typename", values: sorted.map((key) => [key]) },
  };
}

function withTag(shape: RecordShape, { key, place }: TypeDefinition): RecordShape {
  const tag: Field = {
    name: "__typename",
    type: { shape: { kind: "literal", value: key }, nullable: false },
    required: true,
    place,
  };
  return { ...shape, fields: [tag, ...shape.fields.filter(({ name }) => name !== tag.name)] };
}
