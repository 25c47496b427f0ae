import type { SourceText } from "../problem/place.js";
import { problem, type Problem } from "../problem/problem.js";
import { parseData } from "../text/parseData.js";
import { beginsLikeSchema } from "./schemaStart.js";
import { introspectedSchema, introspectionText } from "./introspectionText.js";

export interface SchemaTexts {
  /** In schema definition language; offsets are those of the documents they are named after. */
  readonly texts: readonly SourceText[];
  /** Those of them that are no file of anybody's. */
  readonly derived: readonly SourceText[];
  readonly problems: readonly Problem[];
}

const sdlEnding = /\.(graphql|gql|graphqls|sdl)$/i;
const dataEnding = /\.(json|ya?ml)$/i;
/** Whether a text is (part of) a GraphQL schema, in any form that is read. */
export function looksLikeSchema(source: SourceText): boolean {
  const { document, text } = source;
  if (sdlEnding.test(document)) return true;
  return looksLikeIntrospection(text) || (!dataEnding.test(document) && beginsLikeSchema(text));
}

function looksLikeIntrospection(text: string): boolean {
  // A description that says so right at its beginning need not be searched to its end.
  return /^\s*\{(?!\s*"(?:openapi|swagger)")/.test(text) && text.includes('"__schema"');
}

/** The schema text of one source: as it is, or made of an introspection result. */
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
