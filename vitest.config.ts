import { defineConfig } from "vitest/config";
import { compiledModules } from "./scripts/compileValidators.mjs";

const compiledSchemas = {
  name: "compiled-schemas",
  resolveId: (id: string) => (id in compiledModules ? `\0${id}` : undefined),
  load: (id: string) => {
    return id.startsWith("\0rhema:") ? compiledModules[id.slice(1)]?.() : undefined;
  },
};

export default defineConfig({
  plugins: [compiledSchemas],
  test: {
    include: ["test/**/*.test.ts"],
    testTimeout: 60_000,
    hookTimeout: 120_000,
    globalSetup: ["test/support/buildOnce.ts"],
  },
});
