import { gzipSync } from "node:zlib";
import { join } from "node:path";
import { build } from "esbuild";
import { describe, expect, it } from "vitest";
import { language as javascript } from "../../src/core/languages/javascript/language.js";
import { settledSettings } from "../../src/core/languages/settings.js";
import { language as typescript } from "../../src/core/languages/typescript/language.js";
import type { Framework } from "../../src/core/languages/typescript/settings.js";
import { lowerSdk } from "../../src/core/sdk/lower/lowerSdk.js";
import { printLowered } from "../../src/core/languages/printSdk.js";
import { planRest } from "../../src/core/sdk/planRest.js";
import { packageRoot } from "../support/packageRoot.js";
import { readRest, runtime } from "../support/readRest.js";
import { contractWith } from "../support/smallContract.js";

const frameworks: readonly Framework[] = ["angular", "react", "solid", "svelte", "vue"];

/** The files of an SDK with some bindings. */
function files(language: typeof typescript, settings: object): Map<string, string> {
  const { contract } = readRest(contractWith({}, { "/berths": { get: { responses: { 204: { description: "" } } } } }));
  const plan = { name: "app", contracts: [planRest(contract, {})] };
  const lowered = lowerSdk(plan, settledSettings(language.settings, { ...settings }));
  return printLowered(language, lowered, { runtime, scalars: new Map(), settings: { ...settings } });
}

describe("bindings", () => {
  it.each(frameworks)("for %s add at most 2 KB to an app, dependencies included", async (framework) => {
    const { outputFiles } = await build({
      entryPoints: [join(packageRoot, "runtimes/typescript/views", `${framework}.ts`)],
      ...{ bundle: true, minify: true, write: false, format: "esm", packages: "external" },
    });
    const size = gzipSync(outputFiles[0]?.contents ?? "", { level: 9 }).length;
    expect(size).toBeGreaterThan(500);
    expect(size).toBeLessThanOrEqual(2048);
  });

  it("are generated only for the configured frameworks, together with described calls", () => {
    const views = (settings: object): string[] =>
      [...files(typescript, settings).keys()].filter((path) => /views\/|cached|described\./.test(path));
    expect(views({})).toEqual([]);
    expect(views({ views: [] })).toEqual([]);
    const always = ["api/cached.ts", "views/live.ts", "wire/described.ts"];
    expect(views({ views: "react" })).toEqual([...always, "views/react.ts"].sort());
    expect(views({ views: ["vue", "solid"] })).toEqual([...always, "views/solid.ts", "views/vue.ts"].sort());
    expect(files(typescript, { views: "react" }).get("wire/index.ts")).not.toContain("views");
  });

  it("mark their files for the browser if a framework requires that, and import as the app does", () => {
    const printed = files(javascript, { views: "react" });
    expect(printed.get("views/react.js")).toMatch(/^"use client";\n\nimport /);
    expect(printed.get("views/react.d.ts")).toContain("export declare function useAnswer<");
    const bare = files(typescript, { views: "react", imports: "bare" });
    const imported = [...(bare.get("views/react.ts") ?? "").matchAll(/ from "(.*)";/g)].map(([, path]) => path);
    expect(imported).toEqual(["react", "../wire/described", "./live"]);
  });
});
