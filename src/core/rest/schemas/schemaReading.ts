import type { Reference } from "../../contract/model.js";
import type { PointerPlace } from "../../problem/place.js";
import type { Data } from "../../text/parseData.js";
import type { Located, RestDocument } from "../restDocument.js";

/** The part of the table of definitions that readers of one schema need. */
export interface SchemaReading {
  readonly document: RestDocument;
  /** The number of merges for the definition or operation that is being read. */
  merges: number;
  /** The nesting of the current merge. */
  mergeDepth: number;
  /** Returns all topics of a schema, as bits of `keywords`. */
  topicsOf(schema: Data): number;
  /** Reads a schema at its place. @throws Fault if it, or a part that it needs, is not valid */
  read(schema: unknown, place: PointerPlace): Reference;
  /** Returns the named shape of a `$ref`. @param owner the place of the schema with the `$ref` */
  reference(ref: string, owner: PointerPlace): Reference;
  /** Returns the base that an `allOf` refers to; for a base with a discriminator, the base's own record. */
  baseReference(ref: string, owner: PointerPlace): Reference;
  /** Returns the schema of a base or of one of its extensions. */
  familySchema(name: string): Located | undefined;
  /** Returns the `$ref` to such a schema. */
  familyReference(name: string): string;
  /** Returns the key of a schema that extends a base, and that may itself stand for its extensions. */
  familyKey(name: string): string;
  /** Returns the key of the own record of a base. */
  itself(base: string): string;
  /** Returns the named type that satisfies two named ones. */
  mergedType(a: string, b: string): Reference;
  /** Returns the shape of a reference. @throws Fault for a definition that is still being read */
  resolve(reference: Reference): Reference;
}
