import { GraphQLError, parse, Source, type DocumentNode } from "graphql";
import type { Place, SourceText } from "../problem/place.js";
import { placesOfError } from "./graphqlPlace.js";

export type ParsedText =
  | { readonly ok: true; readonly document: DocumentNode }
  | { readonly ok: false; readonly message: string; readonly places: readonly Place[] };

/** Parses one GraphQL text, schema or query document; a text nested beyond reason is a mistake too, not a crash. */
export function parseText({ document, text }: SourceText): ParsedText {
  try {
    return { ok: true, document: parse(new Source(text, document)) };
  } catch (error) {
    if (error instanceof GraphQLError) return { ok: false, message: error.message, places: placesOfError(error) };
    if (error instanceof RangeError)
      return { ok: false, message: "it is nested too deeply", places: [{ document, offset: 0, length: 1 }] };
    throw error;
  }
}
