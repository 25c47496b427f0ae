import { describe, expect, it } from "vitest";
import { compilerOutputs, importEnding } from "../../src/workspace/languages/typescript/importEnding.js";
import { TemporaryProject } from "../support/temporaryProject.js";

const ending = (files: Record<string, string>, folder = "src/sdk") => {
  const project = new TemporaryProject(files);
  return importEnding(project.folder, project.path(folder));
};
const config = (compilerOptions: object, more: object = {}) => JSON.stringify({ compilerOptions, ...more });

describe("the extension of imports follows the app's compiler settings", () => {
  it.each<[Record<string, string>, string]>([
    [{}, "js"],
    [{ "tsconfig.json": config({ module: "nodenext" }) }, "js"],
    [{ "tsconfig.json": config({ moduleResolution: "Bundler", module: "ESNext" }) }, "bare"],
    [{ "tsconfig.json": config({ moduleResolution: "node" }) }, "bare"],
    [{ "tsconfig.json": config({ module: "commonjs" }) }, "bare"],
    [{ "tsconfig.json": config({ module: "preserve" }) }, "bare"],
    [{ "tsconfig.json": '// words\n{ /* more */ "compilerOptions": { "module": "preserve", }, }' }, "bare"],
    [{ "tsconfig.json": "not json" }, "js"],
    [
      { "tsconfig.json": config({}, { extends: "./base" }), "base.json": config({ moduleResolution: "bundler" }) },
      "bare",
    ],
    [
      {
        "tsconfig.json": config({ moduleResolution: "nodenext" }, { extends: "./base.json" }),
        "base.json": config({ moduleResolution: "bundler" }),
      },
      "js",
    ],
    [
      {
        "tsconfig.json": config({}, { extends: ["./a.json", "./b.json"] }),
        "a.json": config({ moduleResolution: "nodenext" }),
        "b.json": config({ moduleResolution: "bundler" }),
      },
      "bare",
    ],
    [
      {
        "tsconfig.json": config({}, { extends: "shared/base.json" }),
        "node_modules/shared/base.json": config({ moduleResolution: "bundler" }),
        "node_modules/shared/package.json": "{}",
      },
      "bare",
    ],
    [{ "tsconfig.json": config({}, { extends: "nowhere" }) }, "js"],
    [{ "tsconfig.json": config({}, { extends: "./tsconfig.json" }) }, "js"],
    [
      {
        "tsconfig.json": config({ moduleResolution: "bundler" }),
        "src/tsconfig.json": config({ moduleResolution: "nodenext" }),
      },
      "js",
    ],
  ])("%j gives %s", (files, expected) => {
    expect(ending(files)).toBe(expected);
  });

  it("finds the compiler's output", () => {
    const project = new TemporaryProject({ "tsconfig.json": config({ outDir: "./lib/out/" }) });
    expect(compilerOutputs(project.folder)).toEqual(["lib/out"]);
    expect(compilerOutputs(new TemporaryProject().folder)).toEqual([]);
  });
});
