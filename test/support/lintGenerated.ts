import { ESLint } from "eslint";
import tseslint from "typescript-eslint";

/** Lints a folder of generated TypeScript with the strict typed rules; a line for each complaint, disable comments included. */
export async function lintGenerated(folder: string, tsconfig: string): Promise<string[]> {
  const eslint = new ESLint({
    cwd: folder,
    overrideConfigFile: true,
    overrideConfig: [
      ...(tseslint.configs.strictTypeChecked as object[]),
      ...(tseslint.configs.stylisticTypeChecked as object[]),
      {
        languageOptions: { parserOptions: { project: [tsconfig], tsconfigRootDir: folder } },
        linterOptions: { noInlineConfig: true },
      },
    ] as never,
  });
  const results = await eslint.lintFiles(["src/sdk/**/*.ts"]);
  if (results.length === 0) throw new Error("Nothing was linted.");
  return results.flatMap((result) =>
    result.messages.map(
      (message) =>
        `${result.filePath.slice(folder.length + 1)}:${String(message.line)} ${message.ruleId ?? ""} ${message.message}`,
    ),
  );
}
