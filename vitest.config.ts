import { defineConfig } from "vitest/config";
import { compiledModules } from "./scripts/compileValidators.mjs";

const compiledSchemas = {
  name: "compiled-schemas",
  resolveId: (id: string) => (id in compiledModules ? `\0${id}` : undefined),
  load: (id: string) => {
    return id.startsWith("\0rhema:") ? compiledModules[id.slice(1)]?.() : undefined;
  },
};

/** A limit of time ends what hangs; how fast the machine is decides nothing. */
const hangsAfterMs = 600_000;

const shared = {
  setupFiles: ["test/support/setup.ts"],
  testTimeout: hangsAfterMs,
  hookTimeout: hangsAfterMs,
  // Files share a process, and with it the program, the compiler and what that has read of the platform.
  isolate: false,
  pool: "forks" as const,
  // The room that the program gives itself for commands that run on.
  execArgv: ["--max-semi-space-size=64", "--stack-size=3900"],
};

export default defineConfig({
  test: {
    maxWorkers: 2,
    globalSetup: ["test/support/buildOnce.ts"],
    projects: [
      {
        plugins: [compiledSchemas],
        test: {
          ...shared,
          name: "unit",
          include: ["test/{core,runtime,standin,workspace,docs,languages}/**/*.test.ts"],
        },
      },
      { plugins: [compiledSchemas], test: { ...shared, name: "program", include: ["test/program/**/*.test.ts"] } },
      { plugins: [compiledSchemas], test: { ...shared, name: "proof", include: ["test/proof/**/*.test.ts"] } },
      { plugins: [compiledSchemas], test: { ...shared, name: "apps", include: ["test/apps/**/*.test.ts"] } },
    ],
  },
});
