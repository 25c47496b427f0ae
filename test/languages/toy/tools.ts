import { join } from "node:path";
import type { WorkspaceLanguage } from "../../../src/workspace/languages/languageTools.js";
import { packageRoot } from "../../support/packageRoot.js";
import { description } from "./description.js";

/** The toy as the workspace knows it: nobody looks through its source, and nothing compiles it. */
export const toy: WorkspaceLanguage = {
  ...description,
  load: async () => (await import("./language.js")).language,
  loadTools: () =>
    Promise.resolve({
      runtimeFolder: join(packageRoot, "test/languages/toy/runtime"),
      settled: (configured) => configured,
    }),
};
