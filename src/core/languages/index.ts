import type { Language, ListedLanguage } from "./language.js";
import { description as javascript } from "./javascript/description.js";
import { description as kotlin } from "./kotlin/description.js";
import { description as swift } from "./swift/description.js";
import { description as typescript } from "./typescript/description.js";

/** The language of a first SDK, and the one that performs a call whatever language its SDK is in. */
export const usualLanguage = "typescript";

/** Loads a language. @throws Error when there is none of that name */
export async function loadLanguage(id: string): Promise<Language> {
  const found = languages.find((each) => each.id === id);
  if (!found) throw new Error(`There is no language ${id}, only ${languages.map((each) => each.id).join(", ")}.`);
  return found.load();
}

/** Loads what reads the GraphQL inside source files. */
export async function loadEmbedded() {
  return import("./typescript/embedded.js");
}

/** Every language that SDKs can be written in. The only list of them in the core. */
export const languages: readonly ListedLanguage[] = [
  { ...typescript, load: async () => (await import("./typescript/language.js")).language },
  { ...javascript, load: async () => (await import("./javascript/language.js")).language },
  { ...kotlin, load: async () => (await import("./kotlin/language.js")).language },
  { ...swift, load: async () => (await import("./swift/language.js")).language },
];
