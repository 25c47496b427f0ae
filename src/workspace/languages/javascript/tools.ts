import type { LanguageTools } from "../languageTools.js";
import { scriptTools } from "../typescript/tools.js";

/** What JavaScript needs files and a compiler for: TypeScript's, which looks at plain scripts too. */
export function javascriptTools(): LanguageTools {
  const { runtimeFolder, settled, uses, proof } = scriptTools({ index: "index.js", checksScripts: true });
  return {
    runtimeFolder,
    settled: (...given) => {
      const { imports: _imports, ...others } = settled(...given);
      return others;
    },
    ...(uses ? { uses } : {}),
    ...(proof ? { proof } : {}),
  };
}
