import type { SourceText } from "../problem/place.js";
import { problem, type Problem } from "../problem/problem.js";
import { parseData } from "../text/parseData.js";
import { beginsLikeSchema } from "./schemaStart.js";
import { introspectedSchema, introspectionText } from "./introspectionText.js";

export interface SchemaTexts {
  /** In the schema definition language. Offsets are those of the documents whose names they have. */
  readonly texts: readonly SourceText[];
  /** Those texts that are not files. */
  readonly derived: readonly SourceText[];
  readonly problems: readonly Problem[];
}

const sdlEnding = /\.(graphql|gql|graphqls|sdl)$/i;
const dataEnding = /\.(json|ya?ml)$/i;
/** Returns whether a text is (part of) a GraphQL schema, in any supported form. */
export function looksLikeSchema(source: SourceText): boolean {
  const { document, text } = source;
  if (sdlEnding.test(document)) return true;
  return looksLikeIntrospection(text) || (!dataEnding.test(document) && beginsLikeSchema(text));
}

function looksLikeIntrospection(text: string): boolean {
  // An OpenAPI document that begins with its version does not have to be searched to its end.
  return /^\s*\{(?!\s*"(?:openapi|swagger)")/.test(text) && text.includes('"__schema"');
}

/** Returns the schema text of one source: the text itself, or one written from an introspection result. */
export function schemaTexts(source: SourceText): SchemaTexts {
  const { document, text } = source;
  if (!looksLikeIntrospection(text)) return { texts: [source], derived: [], problems: [] };
  const parsed = parseData(text);
  const schema = parsed.ok ? introspectedSchema(parsed.data) : undefined;
  if (!schema) {
    const message = `\`${document}\` looks like an introspection result, but cannot be read as one.`;
    const hint = "Save it again. It must be the whole JSON response of the server.";
    return { texts: [], derived: [], problems: [problem("contract.kind", message, { hint })] };
  }
  const derived = { document: `${document} (as schema text)`, text: introspectionText(schema) };
  return { texts: [derived], derived: [derived], problems: [] };
}
