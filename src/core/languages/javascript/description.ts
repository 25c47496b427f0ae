import type { LanguageDescription } from "../language.js";
import { description as typescript } from "../typescript/description.js";

const { imports: _imports, ...own } = typescript.settings.own;

/** What a configuration can say of a JavaScript SDK: as of a TypeScript one, but that imports end as a browser needs them. */
export const description: LanguageDescription = {
  id: "javascript",
  title: "JavaScript",
  settings: { shared: typescript.settings.shared, own },
  judging: "JavaScript is rated by TypeScript's compiler with `checkJs`.",
  scalar: typescript.scalar,
};
