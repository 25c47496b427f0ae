const sdlStart =
  /^(?:\s|\ufeff|#[^\n]*\n|"""[\s\S]*?"""|"[^"\n]*")*(?:extend\s+)?(?:schema|type|interface|union|enum|input|scalar|directive)\b(?!\s*:)/;

/** Whether a text is GraphQL schema definition language, by what it begins with. */
export function beginsLikeSchema(text: string): boolean {
  return sdlStart.test(text);
}
