const longestExcerpt = 80;
/** The longest beginning of a body in which its first words are looked for. */
const looked = 4_000;

/** Describes an unexpected body for a message: its media type and its first words, without markup. */
export function excerpt(headers: Headers, text: string): string {
  const type = headers.get("content-type")?.split(";")[0] ?? "of no media type";
  const words = text
    .slice(0, looked)
    .replace(/<(script|style)\b[^]*?(<\/\1>|$)|<[^>]{0,500}>/gi, " ")
    .replace(/[\s\p{Cc}]+/gu, " ")
    .trim();
  if (words === "") return `it is ${type}, and empty`;
  return `it is ${type}, and begins with "${words.slice(0, longestExcerpt)}${words.length > longestExcerpt ? "…" : ""}"`;
}
