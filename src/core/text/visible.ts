/**
 * Characters that nobody sees but that change what is seen: they steer a terminal (C0, C1), turn the order of text
 * around, end lines where no line ends, or hide text in text. What joins letters of scripts and emoji is not among them.
 * The inside of a character class, for expressions with the flag `u`.
 */
export const hiddenCharacters =
  "\\u0000-\\u001f\\u007f-\\u009f\\u00ad\\u061c\\u180e\\u200b\\u200e\\u200f\\u2028-\\u202e\\u2060-\\u206f\\ufeff\\ufff9-\\ufffb\\u{e0000}-\\u{e007f}";

const hidden = new RegExp(`[${hiddenCharacters}]`, "u");
const allHidden = new RegExp(hidden, "gu");
const allButLines = new RegExp(`(?![\\n\\t])[${hiddenCharacters}]`, "gu");

/** Text of one line with what nobody sees replaced by a middle dot, so that it can be printed. */
export function visible(text: string): string {
  return replaceHidden(text.replaceAll("\t", "  "), () => "·");
}

/** Text of several lines, safe to be printed. */
export function visibleLines(text: string): string {
  return hidden.test(text) ? text.replace(allButLines, "·") : text;
}

/** Text with every character that nobody sees replaced. Looking for what is rarely there costs least. */
export function replaceHidden(text: string, replacement: (character: string) => string): string {
  return hidden.test(text) ? text.replace(allHidden, replacement) : text;
}

/** Data as JSON that says the same and has no character in it that nobody sees, but line ends. */
export function visibleJson(data: unknown, indent?: number): string {
  const text = JSON.stringify(data, null, indent);
  return hidden.test(text) ? text.replace(allButLines, escapes) : text;
}

/** A character as JSON escapes it. */
export function escapes(character: string): string {
  return character
    .split("")
    .map((unit) => `\\u${unit.charCodeAt(0).toString(16).padStart(4, "0")}`)
    .join("");
}
