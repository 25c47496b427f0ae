import type { LanguageDescription } from "../language.js";
import { description as typescript } from "../typescript/description.js";

const { imports: _imports, ...own } = typescript.settings.own;

/** The description of JavaScript: the same as TypeScript's, except that imports end as browsers require. */
export const description: LanguageDescription = {
  id: "javascript",
  title: "JavaScript",
  settings: { shared: typescript.settings.shared, own },
  judging: "JavaScript is rated by TypeScript's compiler with `checkJs`.",
  scalar: typescript.scalar,
};
