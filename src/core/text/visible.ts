/**
 * Invisible characters that change what is visible. They steer a terminal (C0, C1), change the direction of text, end
 * lines at other places, or hide text in text. Characters that join letters of scripts and emoji are not among them.
 * This is the inside of a character class, for expressions with the flag `u`.
 */
export const hiddenCharacters =
  "\\u0000-\\u001f\\u007f-\\u009f\\u00ad\\u061c\\u180e\\u200b\\u200e\\u200f\\u2028-\\u202e\\u2060-\\u206f\\ufeff\\ufff9-\\ufffb\\u{e0000}-\\u{e007f}";

const hidden = new RegExp(`[${hiddenCharacters}]`, "u");
const allHidden = new RegExp(hidden, "gu");
const allButLines = new RegExp(`(?![\\n\\t])[${hiddenCharacters}]`, "gu");

/** Returns text of one line with invisible characters replaced by a middle dot, so that it can be printed. */
export function visible(text: string): string {
  return replaceHidden(text.replaceAll("\t", "  "), () => "·");
}

/** Returns text of several lines that is safe to print. */
export function visibleLines(text: string): string {
  return hidden.test(text) ? text.replace(allButLines, "·") : text;
}

/**
 * Replaces every invisible character. A search first is cheapest, because they are rare.
 *
 * @param replacement returns the text for a character
 */
export function replaceHidden(text: string, replacement: (character: string) => string): string {
  return hidden.test(text) ? text.replace(allHidden, replacement) : text;
}

/**
 * Returns data as JSON with the same meaning and without invisible characters, except line endings.
 *
 * @param indent the number of spaces for each level
 */
export function visibleJson(data: unknown, indent?: number): string {
  const text = JSON.stringify(data, null, indent);
  // A search for anything but plain characters takes a fifth of the time, and a contract often has no others.
  return /[^\n -~]/.test(text) ? text.replace(allButLines, escapes) : text;
}

/** Returns a character as JSON escapes it. */
export function escapes(character: string): string {
  return character
    .split("")
    .map((unit) => `\\u${unit.charCodeAt(0).toString(16).padStart(4, "0")}`)
    .join("");
}
