/**
 * Returns a sentence with a capital letter at its beginning.
 *
 * @param text a sentence, or a part of one
 */
export function capital(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1);
}
