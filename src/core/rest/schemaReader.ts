import { namedTypes } from "../contract/childReferences.js";
import type { Reference, Shape, TypeDefinition } from "../contract/model.js";
import { below, pointerTokens, type PointerPlace } from "../problem/place.js";
import { isData } from "../text/parseData.js";
import { pascalCase } from "../text/words.js";
import { Fault } from "./fault.js";
import { readAnnotations } from "./readAnnotations.js";
import { readSchema } from "./readSchema.js";
import { kindOf, type Located, type RestDocument } from "./restDocument.js";
import { unsaid } from "./unsaid.js";

const schemasPointer = "/components/schemas/";
const maxSchemaDepth = 250;

/** A definition that could be read, or the fault that sets it aside. */
export type Definition = { readonly type: TypeDefinition } | { readonly fault: Fault };

/**
 * Reads schemas into references, and keeps the table of named definitions. A definition is read the first time
 * something needs it; recursion ends at the name.
 */
export class SchemaReader {
  private readonly definitions = new Map<string, Definition | Located | "reading">();
  /** Keys that were named and not read yet; read one after the other, so that a long chain of types is no deep one. */
  private readonly pending: string[] = [];
  private depth = 0;
  /** Merges made for the definition or operation that is being read. */
  merges = 0;
  /** How many merges the present one is inside of. */
  mergeDepth = 0;

  constructor(
    readonly document: RestDocument,
    /** OpenAPI 3.0 ignores what stands beside a reference, 3.1 does not; what authors meant is the same. */
    readonly dialect: string,
  ) {}

  /** Reads a schema at its place. Throws a Fault when it, or what it cannot do without, is broken. */
  read(schema: unknown, place: PointerPlace): Reference {
    if (this.depth >= maxSchemaDepth) {
      throw this.document.unsupported(`A schema is nested more than ${String(maxSchemaDepth)} levels deep.`, place);
    }
    if (this.depth === 0) this.merges = 0;
    this.depth++;
    try {
      if (schema === true || schema === null || schema === undefined) return { shape: unsaid, nullable: false };
      if (schema === false) return { shape: { kind: "union", members: [] }, nullable: false };
      if (!isData(schema)) {
        throw this.document.fault(
          "contract.invalid",
          `A schema has to be an object or a boolean, and is ${kindOf(schema)}.`,
          place,
        );
      }
      return readSchema(schema, place, this);
    } finally {
      this.depth--;
    }
  }

  /** The named shape that a `$ref` stands for; its definition is read too. */
  reference(ref: string, place: PointerPlace): Reference {
    const located = this.document.target(ref, place);
    return { shape: { kind: "named", key: this.define(located) }, nullable: false };
  }

  /** Reads every schema under `components/schemas`, so that each fault is found, used or not. */
  readAllNamed(): void {
    const components = isData(this.document.root["components"]) ? this.document.root["components"] : {};
    const schemas = isData(components["schemas"]) ? components["schemas"] : {};
    for (const [name, value] of Object.entries(schemas)) {
      if (value !== undefined) this.define({ value, place: below(this.document.at("/components/schemas"), name) });
    }
  }

  /** The shape behind a reference, for merging. Throws a Fault on a definition that is still being read. */
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

  /** All sound definitions, and all faults by key, what depends on a fault included. */
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

  private define(located: Located): string {
    const { pointer } = located.place;
    const key =
      pointer.startsWith(schemasPointer) && !pointer.slice(schemasPointer.length).includes("/")
        ? (pointerTokens(pointer)[2] ?? pointer)
        : pointer;
    if (!this.definitions.has(key)) {
      this.definitions.set(key, located);
      this.pending.push(key);
    }
    return key;
  }

  /** Reads a definition when it is first looked into. Throws a Fault when that is in the middle of reading it. */
  private definition(key: string): Definition {
    const known = this.definitions.get(key);
    if (known === undefined || known === "reading") {
      throw this.document.fault(
        "contract.cycle",
        `\`${nameOf(key)}\` is made of itself through allOf.`,
        this.placeOf(key),
      );
    }
    if (!("value" in known)) return known;
    this.definitions.set(key, "reading");
    const { depth, merges } = this;
    this.depth = 0;
    this.merges = 0;
    const read = this.readDefinition(key, known);
    this.depth = depth;
    this.merges = merges;
    this.definitions.set(key, read);
    return read;
  }

  private readDefinition(key: string, { value, place }: Located): Definition {
    try {
      const { shape, nullable } = this.read(value, place);
      return { type: { key, name: nameOf(key), shape, nullable, ...readAnnotations(value), place } };
    } catch (error) {
      if (error instanceof Fault) return { fault: error };
      throw error;
    }
  }

  private placeOf(key: string): PointerPlace {
    return key.startsWith("/") ? this.document.at(key) : below(this.document.at("/components/schemas"), key);
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
    const usedBy = new Map<string, string[]>();
    for (const [key, type] of types) {
      for (const used of namedTypes([type.shape])) {
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

/** The contract's own name for a key: the schema's name, or the telling parts of a pointer. */
function nameOf(key: string): string {
  if (!key.startsWith("/")) return key;
  const telling = pointerTokens(key).filter((token) => !structuralTokens.has(token));
  return pascalCase(telling.slice(-3).join(" ")) || "Part";
}
