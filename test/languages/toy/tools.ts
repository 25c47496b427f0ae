import { join } from "node:path";
import type { WorkspaceLanguage } from "../../../src/workspace/languages/languageTools.js";
import { packageRoot } from "../../support/packageRoot.js";
import { description } from "./description.js";

/** The toy in the workspace: its source cannot be searched or compiled. */
export const toy: WorkspaceLanguage = {
  ...description,
  load: async () => (await import("./language.js")).language,
  loadTools: () =>
    Promise.resolve({
      runtimeFolder: join(packageRoot, "test/languages/toy/runtime"),
      settled: (configured) => configured,
    }),
};
