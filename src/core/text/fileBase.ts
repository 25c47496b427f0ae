import { kebabCase } from "./words.js";

/** Longer names are cut: the usual file systems allow 255 bytes for a name with its extension. */
const longestBase = 120;

/**
 * Returns the name of a file for a name of the contract, without extension.
 *
 * @param name any name of a contract
 * @param mark returns a text that distinguishes names with the same beginning
 * @returns "" if the name has no letters or digits
 */
export function fileBase(name: string, mark: (name: string) => string): string {
  const base = kebabCase(name);
  return base.length <= longestBase ? base : `${base.slice(0, longestBase)}-${mark(name)}`;
}
