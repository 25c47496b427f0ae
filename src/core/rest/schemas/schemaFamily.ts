import type { Reference, UnionTag } from "../../contract/model.js";
import { below, pointerToken, type PointerPlace } from "../../problem/place.js";
import { dataMember, isData, listMember, member, textMember, type Data } from "../../text/parseData.js";
import { mappedValues, tagField } from "./readUnion.js";
import type { Located } from "../restDocument.js";
import type { SchemaReading } from "./schemaReading.js";

/**
 * The named schemas that extend a base through `allOf`, if the base has a discriminator and no alternatives of its own
 * (OpenAPI 3.1, section 4.8.25; the only way of 2.0). Such a base stands for all its extensions.
 */
export class SchemaFamily {
  private readonly extending = new Map<string, string[]>();

  constructor(
    private readonly schemas: Data,
    private readonly pointer: string,
    private readonly place: PointerPlace,
  ) {
    const names = Object.keys(schemas);
    const bases = new Set(names.filter((name) => isBase(schemas[name])));
    if (bases.size === 0) return;
    const children = new Map<string, string[]>();
    for (const name of names) {
      for (const parent of this.parents(schemas[name])) {
        const known = children.get(parent);
        if (known) known.push(name);
        else children.set(parent, [name]);
      }
    }
    for (const base of bases) {
      const found = new Set<string>();
      const open = [...(children.get(base) ?? [])];
      for (let name = open.pop(); name !== undefined; name = open.pop()) {
        if (name === base || found.has(name)) continue;
        found.add(name);
        open.push(...(children.get(name) ?? []));
      }
      if (found.size > 0) this.extending.set(base, [...found].sort());
    }
  }

  /** Returns the names of the schemas that extend a base; undefined if the schema is not a base. */
  extendedBy(name: string): readonly string[] | undefined {
    return this.extending.get(name);
  }

  schema(name: string): Located | undefined {
    return Object.hasOwn(this.schemas, name)
      ? { value: this.schemas[name], place: below(this.place, name) }
      : undefined;
  }

  reference(name: string): string {
    return `#${this.pointer}${encodeURIComponent(pointerToken(name))}`;
  }

  private parents(schema: unknown): string[] {
    const members = isData(schema) ? (listMember(schema, "allOf") ?? []) : [];
    return members.flatMap((each) => {
      const ref = isData(each) ? textMember(each, "$ref") : undefined;
      return ref?.startsWith(`#${this.pointer}`) === true ? [lastName(ref)] : [];
    });
  }
}

function isBase(schema: unknown): boolean {
  if (!isData(schema) || member(schema, "oneOf") !== undefined || member(schema, "anyOf") !== undefined) return false;
  return tagField(schema) !== undefined;
}

function lastName(ref: string): string {
  const token = ref.slice(ref.lastIndexOf("/") + 1);
  try {
    return decodeURIComponent(token).replaceAll("~1", "/").replaceAll("~0", "~");
  } catch {
    return token;
  }
}

/**
 * Reads the tagged union of a base's own record and all its extensions.
 *
 * @param base the name of the base
 * @param extending the names of the extensions
 */
export function readFamily(base: string, extending: readonly string[], reader: SchemaReading): Reference {
  const located = reader.familySchema(base);
  const schema = isData(located?.value) ? located.value : {};
  const mapping = dataMember(dataMember(schema, "discriminator") ?? {}, "mapping") ?? {};
  const isMapped = Object.keys(mapping).length > 0;
  const members = [...extending, base].map((name) => {
    const mapped = mappedValues(mapping, reader.familyReference(name));
    return { name, values: mapped.length > 0 ? mapped : [name] };
  });
  // If the mapping does not contain the base, the base itself is never sent.
  const used = members.filter(({ name, values }) => name !== base || !isMapped || values[0] !== base);
  const tag: UnionTag = { field: tagField(schema) ?? "", values: used.map(({ values }) => values) };
  return {
    shape: {
      kind: "union",
      members: used.map(({ name }) => ({
        shape: { kind: "named", key: name === base ? reader.itself(base) : reader.familyKey(name) },
        nullable: false,
      })),
      tag,
    },
    nullable: false,
  };
}
