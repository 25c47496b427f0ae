import type { Reference } from "../../contract/model.js";
import type { PointerPlace } from "../../problem/place.js";
import type { Data } from "../../text/parseData.js";
import type { Located, RestDocument } from "../restDocument.js";

/** What the readers of one schema need of the table of definitions. */
export interface SchemaReading {
  readonly document: RestDocument;
  /** How many merges were made for the definition or operation that is being read. */
  merges: number;
  /** How many merges the current merge is nested in. */
  mergeDepth: number;
  /** Returns all that a schema speaks about, as bits of `keywords`. */
  topicsOf(schema: Data): number;
  /** Reads a schema at its place. @throws Fault when it, or what it cannot do without, is broken */
  read(schema: unknown, place: PointerPlace): Reference;
  /** Returns the named shape that a `$ref` stands for. @param owner where the schema with the `$ref` is */
  reference(ref: string, owner: PointerPlace): Reference;
  /** Returns the base that an `allOf` refers to; for a base with a discriminator, the base's own record. */
  baseReference(ref: string, owner: PointerPlace): Reference;
  /** Returns the schema of a base or of one that extends a base. */
  familySchema(name: string): Located | undefined;
  /** Returns the `$ref` that leads to such a schema. */
  familyReference(name: string): string;
  /** Returns the key of a schema that extends a base, which may itself stand for those that extend it. */
  familyKey(name: string): string;
  /** Returns the key of the own record of a base. */
  itself(base: string): string;
  /** Returns the named type that satisfies two named ones. */
  mergedType(a: string, b: string): Reference;
  /** Returns the shape behind a reference. @throws Fault on a definition that is still being read */
  resolve(reference: Reference): Reference;
}
