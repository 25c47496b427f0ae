import { shapeFacts } from "../../contract/shapeFacts.js";
import type { Reference, Shape, TypeDefinition } from "../../contract/model.js";
import { kindOf } from "../../problem/kindOf.js";
import { below, pointerPlace, pointerToken, pointerTokens, type PointerPlace } from "../../problem/place.js";
import { isData, member, textMember, type Data } from "../../text/parseData.js";
import { pascalCase } from "../../text/words.js";
import { schemasPointer } from "../dialect.js";
import { Fault, StillReading } from "../fault.js";
import { partOf } from "../linkDocuments.js";
import { topicsOf } from "../keywords.js";
import { readAnnotations } from "./readAnnotations.js";
import { plainReference, soleReference } from "./plainSchema.js";
import { readFamily, SchemaFamily } from "./schemaFamily.js";
import type { SchemaReading } from "./schemaReading.js";
import { mergeNamed, readSchema } from "./readSchema.js";
import { decodeFragment, type Located, type RestDocument } from "../restDocument.js";
import { unsaid } from "./unsaid.js";

const maxSchemaDepth = 250;
/** The separator of the names of merged types. */
const pairSeparator = " & ";

/** A definition that was read, or the fault for which it is skipped. */
export type Definition = { readonly type: TypeDefinition } | { readonly fault: Fault };

/** A definition that nothing has needed yet: a schema, the own record of a base, or two merged types. */
type Unread = Located & { readonly as?: "itself" | readonly [string, string] };

/**
 * Reads schemas into references, and keeps the table of named definitions. A definition is read the first time that it
 * is needed. Recursion ends at the name.
 */
export class SchemaReader implements SchemaReading {
  private readonly definitions = new Map<string, Definition | Unread | "reading">();
  /**
   * Keys that were named but not read yet. They are read one after the other, so that a long chain of types is not deep
   * recursion.
   */
  private readonly pending: string[] = [];
  private depth = 0;
  /** The number of merges for the definition or operation that is being read. */
  merges = 0;
  /** The nesting of the current merge. */
  mergeDepth = 0;

  /** The pointer of the named schemas, with a slash at its end. */
  private readonly schemas: string;
  private readonly places = new Map<string, PointerPlace>();
  /** The named schemas that extend others. */
  private family = new SchemaFamily({}, "", pointerPlace("", ""));
  /** The names of schemas that are only a reference into another document, by its target. */
  private readonly adopted = new Map<string, string>();

  /** The result of each reference. */
  private readonly referenced = new Map<string, Reference>();

  /** The last schema, because a field asks for the same schema again right after it was read. */
  private lastSchema: Data | undefined;
  private lastTopics = 0;

  constructor(readonly document: RestDocument) {
    this.schemas = `${schemasPointer(document.dialect)}/`;
  }

  /** Returns all topics of a schema, as bits of `keywords`. */
  topicsOf(schema: Data): number {
    if (schema !== this.lastSchema) {
      this.lastSchema = schema;
      this.lastTopics = topicsOf(schema);
    }
    return this.lastTopics;
  }

  /** Reads a schema at its place. @throws Fault if it, or a part that it needs, is not valid */
  read(schema: unknown, place: PointerPlace): Reference {
    if (isData(schema)) {
      // Most schemas are one of these two, and need none of the rest.
      const reference = soleReference(schema);
      if (reference !== undefined) return this.reference(reference, place);
      const plain = plainReference(schema);
      if (plain) return plain;
    }
    if (this.depth >= maxSchemaDepth) {
      const message = `A schema is nested more than ${String(maxSchemaDepth)} levels deep.`;
      throw this.document.fault("contract.invalid", message, place);
    }
    if (this.depth === 0) this.merges = 0;
    this.depth++;
    try {
      if (schema === true || schema === null || schema === undefined) return { shape: unsaid, nullable: false };
      if (schema === false) return { shape: { kind: "union", members: [] }, nullable: false };
      if (!isData(schema)) {
        throw this.document.fault(
          "contract.invalid",
          `A schema must be an object or a boolean, but is ${kindOf(schema)}.`,
          place,
        );
      }
      this.document.check("schema", schema, place);
      return readSchema(schema, place, this);
    } catch (error) {
      if (!(error instanceof StillReading)) throw error;
      // The outermost schema of a definition cannot wait for itself.
      if (this.depth === 1) throw this.madeOfItself(place);
      return this.readLater(schema, place);
    } finally {
      this.depth--;
    }
  }

  /** Makes a definition of a schema that merges a definition which is still being read. It is read afterwards. */
  private readLater(schema: unknown, place: PointerPlace): Reference {
    const { document, pointer } = place;
    const key = document === this.document.name ? pointer : `${document}#${pointer}`;
    if (!this.definitions.has(key)) {
      this.definitions.set(key, { value: schema, place });
      this.places.set(key, place);
      this.pending.push(key);
    }
    return { shape: { kind: "named", key }, nullable: false };
  }

  private madeOfItself(place: PointerPlace): Fault {
    return this.document.fault("contract.cycle", "A schema contains itself through allOf.", place);
  }

  /**
   * Returns the named shape of a `$ref`, and reads its definition.
   *
   * @param owner the place of the schema with the `$ref`
   */
  reference(ref: string, owner: PointerPlace): Reference {
    const known = this.referenced.get(ref);
    if (known) return known;
    const located = this.document.target(ref, below(owner, "$ref"));
    const found: Reference = {
      shape: { kind: "named", key: this.define(located.pointer, located) },
      nullable: false,
    };
    this.referenced.set(ref, found);
    return found;
  }

  /**
   * Returns the base that an `allOf` refers to. If the base stands for all its extensions, with a discriminator, this
   * is the base's own record.
   */
  baseReference(ref: string, owner: PointerPlace): Reference {
    const reference = this.reference(ref, owner);
    if (reference.shape.kind !== "named" || this.family.extendedBy(reference.shape.key) === undefined) return reference;
    return { shape: { kind: "named", key: this.itself(reference.shape.key) }, nullable: false };
  }

  familySchema(name: string): Located | undefined {
    return this.family.schema(name);
  }

  familyReference(name: string): string {
    return this.family.reference(name);
  }

  /** Returns the key of a schema that extends a base, and that may itself stand for its extensions. */
  familyKey(name: string): string {
    return this.family.extendedBy(name) === undefined ? name : this.itself(name);
  }

  /** Returns the key of the own record of a base. */
  itself(base: string): string {
    const key = `${base} itself`;
    const located = this.family.schema(base);
    if (!this.definitions.has(key) && located) {
      this.definitions.set(key, { ...located, as: "itself" });
      this.places.set(key, located.place);
      this.pending.push(key);
    }
    return key;
  }

  /** Returns the named type that satisfies two named ones. */
  mergedType(a: string, b: string): Reference {
    const names = [...new Set([...a.split(pairSeparator), ...b.split(pairSeparator)])].sort();
    const key = names.join(pairSeparator);
    if (key !== a && key !== b && !this.definitions.has(key)) {
      const place = this.placeOf(a);
      this.definitions.set(key, { value: undefined, place, as: [a, b] });
      this.places.set(key, place);
      this.pending.push(key);
    }
    return { shape: { kind: "named", key }, nullable: this.isNullable(a) && this.isNullable(b) };
  }

  /** Returns whether a definition allows null. Its definition is known or can be read. */
  private isNullable(key: string): boolean {
    if (this.definitions.get(key) === "reading") return false;
    const definition = this.definition(key);
    return "type" in definition && definition.type.nullable;
  }

  /** Reads every named schema of the contract, so that each fault is found, used or not. */
  readAllNamed(): void {
    const [, ...path] = pointerTokens(this.schemas.slice(0, -1));
    const first = member(this.document.root, pointerTokens(this.schemas)[0] ?? "");
    const schemas = path.reduce<unknown>((node, token) => (isData(node) ? member(node, token) : undefined), first);
    const entries = Object.entries(isData(schemas) ? schemas : {});
    for (const [name, value] of entries) {
      const elsewhere = this.otherDocument(value);
      if (elsewhere !== undefined && !this.adopted.has(elsewhere)) this.adopted.set(elsewhere, name);
    }
    const place = this.document.at(this.schemas.slice(0, -1));
    this.family = new SchemaFamily(Object.fromEntries(entries), this.schemas, place);
    for (const [name, value] of entries) {
      if (value !== undefined && this.otherDocument(value) === undefined)
        this.define(this.schemas + pointerToken(name), { value, place: below(place, name) });
      else if (isData(value)) this.defineElsewhere(textMember(value, "$ref") ?? "", below(place, name, "$ref"), name);
    }
  }

  /** Returns the pointer into another document, if a schema is only a reference to it. */
  private otherDocument(schema: unknown): string | undefined {
    const reference = isData(schema) && Object.keys(schema).length === 1 ? textMember(schema, "$ref") : undefined;
    if (reference?.startsWith("#") !== true) return undefined;
    const pointer = decodeFragment(reference.slice(1));
    return partOf(pointer) ? pointer : undefined;
  }

  private defineElsewhere(reference: string, from: PointerPlace, name: string): void {
    try {
      const located = this.document.target(reference, from);
      this.define(located.pointer, located);
    } catch (error) {
      if (!(error instanceof Fault)) throw error;
      this.places.set(name, from);
      this.definitions.set(name, { fault: error });
    }
  }

  /** Returns the shape of a reference, for merging. @throws Fault for a definition that is still being read */
  resolve(reference: Reference): Reference {
    let { shape, nullable } = reference;
    const passed = new Set<string>();
    while (shape.kind === "named") {
      if (passed.has(shape.key)) {
        const message = `\`${nameOf(shape.key)}\` is only an alias of itself.`;
        throw this.document.fault("contract.cycle", message, this.placeOf(shape.key));
      }
      passed.add(shape.key);
      const definition = this.definition(shape.key);
      if ("fault" in definition) throw definition.fault;
      nullable ||= definition.type.nullable;
      shape = definition.type.shape;
    }
    return { shape, nullable };
  }

  /** Returns all valid definitions, and all faults by key, with those of definitions that depend on a faulty one. */
  finish(): { types: Map<string, TypeDefinition>; faults: Map<string, Fault> } {
    const types = new Map<string, TypeDefinition>();
    const faults = new Map<string, Fault>();
    for (let key = this.pending.pop(); key !== undefined; key = this.pending.pop()) this.definition(key);
    for (const key of this.definitions.keys()) {
      const definition = this.definition(key);
      if ("fault" in definition) faults.set(key, definition.fault);
      else if (this.isAliasOfItself(key)) {
        const message = `\`${nameOf(key)}\` is only an alias of itself.`;
        faults.set(key, this.document.fault("contract.cycle", message, this.placeOf(key)));
      } else types.set(key, definition.type);
    }
    this.spreadFaults(types, faults);
    return { types, faults };
  }

  private define(pointer: string, { value, place }: Located): string {
    const key = this.keyOf(pointer);
    if (!this.definitions.has(key)) {
      this.definitions.set(key, { value, place });
      this.places.set(key, place);
      this.pending.push(key);
    }
    return key;
  }

  /**
   * Returns the schema's own name if it has one, otherwise its pointer, after the document's name if it is another
   * document.
   */
  private keyOf(pointer: string): string {
    if (pointer.startsWith(this.schemas) && !pointer.includes("/", this.schemas.length))
      return unescaped(pointer.slice(this.schemas.length));
    const adopted = this.adopted.get(pointer);
    if (adopted !== undefined) return adopted;
    const part = partOf(pointer);
    return part ? `${part.document}#${part.pointer}` : pointer;
  }

  /** Reads a definition when it is first needed. @throws Fault if it is being read at the moment */
  private definition(key: string): Definition {
    const known = this.definitions.get(key);
    if (known === undefined || known === "reading") throw new StillReading();
    if (!("value" in known)) return known;
    this.definitions.set(key, "reading");
    const { depth, merges, mergeDepth } = this;
    this.depth = 0;
    this.merges = 0;
    this.mergeDepth = 0;
    const read = this.readDefinition(key, known);
    this.depth = depth;
    this.merges = merges;
    this.mergeDepth = mergeDepth;
    this.definitions.set(key, read);
    return read;
  }

  private readDefinition(key: string, unread: Unread): Definition {
    const { value, place } = unread;
    try {
      const { shape, nullable } = this.readUnread(key, unread);
      return { type: { key, name: nameOf(key), shape, nullable, ...readAnnotations(value), place } };
    } catch (error) {
      if (error instanceof Fault) return { fault: error };
      if (error instanceof StillReading) return { fault: this.madeOfItself(place) };
      throw error;
    }
  }

  private readUnread(key: string, { value, place, as }: Unread): Reference {
    if (as === "itself") return this.read(value, place);
    if (as !== undefined) {
      const [a, b] = as.map((each): Reference => ({ shape: { kind: "named", key: each }, nullable: false }));
      return a && b ? mergeNamed(a, b, { place, reader: this }) : { shape: unsaid, nullable: false };
    }
    const extending = this.family.extendedBy(key);
    return extending ? readFamily(key, extending, this) : this.read(value, place);
  }

  private placeOf(key: string): PointerPlace {
    return this.places.get(key) ?? this.document.place;
  }

  private isAliasOfItself(key: string): boolean {
    const seen = new Set<string>();
    let current: string | undefined = key;
    while (current !== undefined && !seen.has(current)) {
      seen.add(current);
      const definition = this.definitions.get(current);
      const shape: Shape | undefined =
        definition && definition !== "reading" && "type" in definition ? definition.type.shape : undefined;
      current = shape?.kind === "named" ? shape.key : undefined;
    }
    return current !== undefined;
  }

  private spreadFaults(types: Map<string, TypeDefinition>, faults: Map<string, Fault>): void {
    if (faults.size === 0) return;
    const usedBy = new Map<string, string[]>();
    for (const [key, type] of types) {
      for (const used of shapeFacts(type.shape).names) {
        const users = usedBy.get(used);
        if (users) users.push(key);
        else usedBy.set(used, [key]);
      }
    }
    const open = [...faults.keys()];
    for (let broken = open.pop(); broken !== undefined; broken = open.pop()) {
      const fault = faults.get(broken);
      for (const dependent of usedBy.get(broken) ?? []) {
        if (faults.has(dependent) || !fault) continue;
        faults.set(dependent, fault);
        types.delete(dependent);
        open.push(dependent);
      }
    }
  }
}

const structuralTokens = new Set([
  "components",
  "schemas",
  "definitions",
  "properties",
  "paths",
  "schema",
  "content",
  "items",
  "allOf",
  "oneOf",
  "anyOf",
  "$defs",
]);

/**
 * Returns the contract's own name for a key: the name of the schema, the meaningful parts of a pointer, or the name of
 * a file.
 */
function nameOf(key: string): string {
  if (key.includes(pairSeparator)) return key.split(pairSeparator).map(nameOf).join(" and ");
  const hash = key.indexOf("#");
  const isElsewhere = hash >= 0 && (hash === key.length - 1 || key.charAt(hash + 1) === "/");
  if (!key.startsWith("/") && !isElsewhere) return key;
  const [document, pointer] = isElsewhere ? [key.slice(0, hash), key.slice(hash + 1)] : ["", key];
  const telling = pointerTokens(pointer).filter((token) => !structuralTokens.has(token));
  const file = document
    .replace(/[?].*$/, "")
    .replace(/^.*\//, "")
    .replace(/(\.schema)?\.[^.]*$/, "");
  return pascalCase(telling.slice(-3).join(" ")) || pascalCase(file) || "Part";
}

function unescaped(token: string): string {
  return token.includes("~") ? token.replaceAll("~1", "/").replaceAll("~0", "~") : token;
}
