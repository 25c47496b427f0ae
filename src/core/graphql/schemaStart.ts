const sdlStart =
  /^(?:\s|\ufeff|#[^\n]*\n|"""[\s\S]*?"""|"[^"\n]*")*(?:extend\s+)?(?:schema|type|interface|union|enum|input|scalar|directive)\b(?!\s*:)/;

/** Returns whether the beginning of a text is that of the GraphQL schema definition language. */
export function beginsLikeSchema(text: string): boolean {
  return sdlStart.test(text);
}
