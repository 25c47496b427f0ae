import { kebabCase } from "./words.js";

/** Longer ones are cut: the usual file systems take 255 bytes for a name, its ending included. */
const longestBase = 120;

/**
 * The name of a file for something that a contract names, without its ending; "" when the name has no word.
 *
 * @param mark tells names apart that begin alike
 */
export function fileBase(name: string, mark: (name: string) => string): string {
  const base = kebabCase(name);
  return base.length <= longestBase ? base : `${base.slice(0, longestBase)}-${mark(name)}`;
}
