import type { LanguageTools } from "../languageTools.js";
import { scriptTools } from "../typescript/tools.js";

/** Returns the tools of JavaScript, which need files and a compiler: TypeScript's, which also checks plain scripts. */
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
