import { cpSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { pathToFileURL } from "node:url";
import { Ajv } from "ajv";
import { describe, expect, it } from "vitest";
import { BrowserPage, chromium } from "../support/chromium.js";
import { packageRoot } from "../support/packageRoot.js";
import { demoProject, type TemporaryProject } from "../support/temporaryProject.js";

interface ImpactDocument {
  readonly contracts: {
    readonly changes: {
      readonly code: string;
      readonly subject: string;
      readonly verdict: { readonly code: string };
      readonly use: string;
      readonly errors?: { readonly file: string; readonly code: string; readonly message: string }[];
      readonly accepted?: object;
    }[];
  }[];
  readonly proof: { readonly unexplained: object[]; readonly before: object[] };
}

/** The demo with an SDK of its first contracts, and its second ones in place. */
async function changedDemo(): Promise<TemporaryProject> {
  const project = demoProject();
  await project.run(["generate"]);
  cpSync(join(packageRoot, "demo/contracts/v2"), project.path("contracts"), { recursive: true });
  return project;
}

describe("a compile-checked impact", () => {
  it("shows every new compile error under a change, and the change breaks code", async () => {
    const { code, out } = await (await changedDemo()).run(["impact", "--prove", "--json"]);
    expect(code).toBe(1);
    const schema = JSON.parse(readFileSync(join(packageRoot, "schema/impact-report.schema.json"), "utf8")) as object;
    const validate = new Ajv({ strict: false, allErrors: true }).compile(schema);
    expect(validate(JSON.parse(out)), JSON.stringify(validate.errors?.slice(0, 3))).toBe(true);
    const { contracts, proof } = JSON.parse(out) as ImpactDocument;
    expect(proof.unexplained).toEqual([]);
    const blamed = contracts.flatMap(({ changes }) => changes).filter(({ errors = [] }) => errors.length > 0);
    expect(blamed.every(({ verdict, use }) => verdict.code === "breaking" && use === "used")).toBe(true);
    expect(blamed.map(({ code: change, subject }) => `${change} ${subject}`)).toEqual(
      expect.arrayContaining([
        "answer.field.renamed Berth.draught",
        "answer.field.gone Berth.note",
        "answer.choice.new BerthStatus",
        "ask.parameter.renamed Query.vessels(limit:)",
      ]),
    );
    expect(blamed.flatMap(({ errors = [] }) => errors).length).toBeGreaterThan(10);
  });

  it("writes nothing", async () => {
    const project = await changedDemo();
    const before = project.read("src/sdk/berths/shapes.ts");
    await project.run(["impact", "--prove"]);
    expect(project.read("src/sdk/berths/shapes.ts")).toBe(before);
  });

  it("compares other sides, and makes an SDK in memory if it is not written", async () => {
    const project = await changedDemo();
    const now = JSON.parse((await project.run(["impact", "berths", "--prove", "--json"])).out) as ImpactDocument;
    await project.run(["generate"]);
    const sides = ["--before", join(packageRoot, "demo/contracts/v1/berths.yaml"), "--after", "contracts/berths.yaml"];
    const { code, out } = await project.run(["impact", "berths", "--prove", ...sides, "--json"]);
    const errors = ({ contracts }: ImpactDocument) =>
      contracts.flatMap(({ changes }) =>
        changes.flatMap(({ errors: each = [] }) => each.map(({ message }) => message)),
      );
    expect(code).toBe(1);
    expect(errors(now).length).toBeGreaterThan(3);
    expect(errors(JSON.parse(out) as ImpactDocument)).toEqual(errors(now));
    const fresh = await changedDemo();
    fresh.remove("src/sdk");
    const made = JSON.parse((await fresh.run(["impact", "berths", "--prove", "--json"])).out) as ImpactDocument;
    expect(errors(made)).toEqual(errors(now));
  });

  it("separates errors that existed before", async () => {
    const project = await changedDemo();
    project.write("src/broken.ts", "export const wrong: string = 1;\n");
    const { out } = await project.run(["impact", "--prove"]);
    expect(out).toMatch(/errors? that (was|were) there before/);
    expect(out).toContain("src/broken.ts:1:14");
  });
});

describe("a team's decisions", () => {
  it("levels, accepted changes and expired ones", async () => {
    const own = await changedDemo();
    own.write(
      "rhema.yaml",
      `${own.read("rhema.yaml")}guard:
  rules: { answer.choice.new: { code: compatible, apps: compatible, reason: we have defaults } }
  accepted:
    - { change: answer.field.gone, subject: Berth.note, reason: known, until: "2999-01-01" }
    - { change: answer.field.renamed, subject: Berth.draught, reason: soon, until: "2001-01-01" }
`,
    );
    const { out, err } = await own.run(["impact", "berths"]);
    expect(out).toContain("accepted until 2999-01-01: known");
    expect(out).not.toMatch(/[x!] answer\.choice\.new/);
    expect(err).toContain("guard.outlived");
    expect(err).toContain("`Berth.draught` was accepted until 2001-01-01");
    own.write("rhema.yaml", own.read("rhema.yaml").replace("answer.field.gone,", "answer.feld.gone,"));
    const wrong = await own.run(["impact", "berths"]);
    expect([wrong.code, wrong.err]).toEqual([2, expect.stringContaining("Did you mean `answer.field.gone`")]);
  });
});

describe("the page", () => {
  it("needs no other file, and text from contracts cannot change it", async () => {
    const project = await changedDemo();
    const page = (await project.run(["impact", "--report", "html"])).out;
    expect(page).not.toMatch(/(src|href)=/);
    expect(page).toContain("default-src 'none'");
    const evil = '<script>alert(1)</script>"><img src=x onerror=alert(2)>';
    const contract = (name: string) =>
      JSON.stringify({
        openapi: "3.1.0",
        info: { title: evil, version: evil },
        paths: {
          "/a": {
            get: {
              operationId: "a",
              responses: {
                200: {
                  description: "",
                  content: {
                    "application/json": {
                      schema: { type: "object", properties: { [name + evil]: { type: "string" } } },
                    },
                  },
                },
              },
            },
          },
        },
      });
    project.write("one.json", contract("a"));
    project.write("two.json", contract("b"));
    const { out } = await project.run([
      "impact",
      "berths",
      "--before",
      "one.json",
      "--after",
      "two.json",
      "--report",
      "html",
    ]);
    expect(out).toContain("&lt;script&gt;");
    expect(out).not.toContain("<script>alert");
    expect(out).not.toContain("<img");
  });

  it.skipIf(chromium === undefined)(
    "filters by verdict, level, use and words, with the keyboard alone",
    async () => {
      const project = await changedDemo();
      project.write("page.html", (await project.run(["impact", "--report", "html"])).out);
      const browser = await BrowserPage.open(pathToFileURL(project.path("page.html")).href);
      const shown = async (): Promise<number> =>
        Number(/^\d+/.exec(String(await browser.evaluate("count.textContent")))?.[0]);
      const focused = () => browser.evaluate("document.activeElement.name + '=' + document.activeElement.value");
      try {
        const first = await shown();
        expect(first).toBeGreaterThan(10);
        await browser.press("Tab");
        expect(await focused()).toBe("clock=both");
        await browser.press("ArrowRight");
        expect(await focused()).toBe("clock=code");
        await browser.press("Tab");
        await browser.press(" ");
        expect(await browser.evaluate("document.querySelector('[value=breaking]').checked")).toBe(false);
        const withoutBreaking = await shown();
        expect(withoutBreaking).toBeLessThan(first);
        await browser.press(" ");
        for (let times = 0; times < 3; times++) await browser.press("Tab");
        expect(await focused()).toBe("use=used");
        await browser.press("ArrowLeft");
        const all = await shown();
        expect(all).toBe(await browser.evaluate("document.querySelectorAll('.change').length"));
        await browser.press("Tab");
        await browser.type("Berth.note");
        const named = await shown();
        expect(named).toBeGreaterThan(0);
        expect(named).toBeLessThan(all);
        await browser.press("Tab");
        const isOpen = "document.activeElement.parentElement.open";
        const before = await browser.evaluate(isOpen);
        await browser.press("Enter");
        expect(await browser.evaluate(isOpen)).toBe(before !== true);
      } finally {
        await browser.close();
      }
    },
    60_000,
  );

  it("has a changelog with each change once, whatever is used", async () => {
    const { out } = await (await changedDemo()).run(["impact", "berths", "--report", "changelog"]);
    expect(out).toContain("## berths: 1.4.0 to 2.0.0");
    expect(out).toContain("- DELETE /berths/{berthId} was removed.");
    expect(out.indexOf("### Breaking")).toBeLessThan(out.indexOf("### Compatible"));
    const lines = out.split("\n").filter((line) => line.startsWith("- "));
    expect(new Set(lines).size).toBe(lines.length);
  });
});
