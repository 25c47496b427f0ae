/** The script blocks of a component as a module of their own, everything else blanked out: offsets are those of the file. */
export function scriptOf(text: string): string {
  const blank = (part: string): string => part.replace(/[^\n]/g, " ");
  let script = "";
  let end = 0;
  for (const match of text.matchAll(/<script\b[^>]*>([\s\S]*?)<\/script\s*>/gi)) {
    const [whole, inside = ""] = match;
    const start = match.index + whole.indexOf(">") + 1;
    script += blank(text.slice(end, start)) + inside;
    end = start + inside.length;
  }
  return script + blank(text.slice(end));
}
