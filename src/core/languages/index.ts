import type { Language, ListedLanguage } from "./language.js";
import { description as javascript } from "./javascript/description.js";
import { description as kotlin } from "./kotlin/description.js";
import { description as swift } from "./swift/description.js";
import { description as typescript } from "./typescript/description.js";

/** The language of a first SDK, and the one in which `try` makes calls, whatever the SDK's language. */
export const usualLanguage = "typescript";

/** Loads a language. @throws Error if there is none with that name */
export async function loadLanguage(id: string): Promise<Language> {
  const found = languages.find((each) => each.id === id);
  if (!found) throw new Error(`There is no language ${id}, only ${languages.map((each) => each.id).join(", ")}.`);
  return found.load();
}

/** Loads the reader of GraphQL in source files. */
export async function loadEmbedded() {
  return import("./typescript/embedded.js");
}

/** All languages of SDKs. This is the only list of them in the core. */
export const languages: readonly ListedLanguage[] = [
  { ...typescript, load: async () => (await import("./typescript/language.js")).language },
  { ...javascript, load: async () => (await import("./javascript/language.js")).language },
  { ...kotlin, load: async () => (await import("./kotlin/language.js")).language },
  { ...swift, load: async () => (await import("./swift/language.js")).language },
];
