import { existsSync, readFileSync } from "node:fs";
import { dirname, join } from "node:path";
import { describe, expect, it } from "vitest";
import { withLanguages } from "../../src/core/languages/configurationSchema.js";
import { languages } from "../../src/core/languages/index.js";
import { renderChangeReference, renderProblemReference } from "../../src/core/report/renderReference.js";
import { packageRoot } from "../support/packageRoot.js";

const read = (path: string) => readFileSync(join(packageRoot, path), "utf8");

describe("the docs match the program", () => {
  it("problem codes and change codes", async () => {
    expect(read("docs/problems.md")).toBe(renderProblemReference());
    expect(read("docs/changes.md")).toBe(
      renderChangeReference(await Promise.all(languages.map((each) => each.load()))),
    );
  });

  it("settings in the schema of the configuration are those of the languages", () => {
    const schema = JSON.parse(read("schema/rhema.schema.json")) as object;
    expect(withLanguages(schema, languages)).toEqual(schema);
  });

  it("every key of the configuration is documented", () => {
    const schema = JSON.parse(read("schema/rhema.schema.json")) as {
      properties: object;
      definitions: Record<string, { properties?: object }>;
    };
    const keys = [schema, ...Object.values(schema.definitions)]
      .flatMap((part) => Object.keys(part.properties ?? {}))
      .filter((key) => key !== "$schema");
    for (const key of keys) expect(read("docs/configuration.md")).toContain(`\`${key}\``);
  });

  const screens = ["angular", "react", "solid", "svelte", "vue"].map((framework) => `docs/screens/${framework}.md`);
  it.each(["README.md", "docs/guide.md", "docs/configuration.md", "docs/architecture.md", ...screens])(
    "%s has no broken links",
    (page) => {
      for (const [, target = ""] of read(page).matchAll(/\]\((?!https?:)([^)#]+)[^)]*\)/g))
        expect(existsSync(join(packageRoot, dirname(page), target)), target).toBe(true);
    },
  );
});
