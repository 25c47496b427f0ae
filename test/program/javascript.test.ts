import { existsSync, readFileSync } from "node:fs";
import { extname, join } from "node:path";
import { describe, expect, it } from "vitest";
import { chromium } from "../support/chromium.js";
import { pageAfter } from "../support/pageAfter.js";
import { listening } from "../support/listening.js";
import { packageRoot } from "../support/packageRoot.js";
import { runNode } from "../support/runNode.js";
import { demoProject, TemporaryProject } from "../support/temporaryProject.js";

const contract = (version: "v1" | "v2"): string =>
  readFileSync(join(packageRoot, "demo/contracts", version, "berths.yaml"), "utf8");

/** A page without a build step, and a module next to it. */
const page = {
  "index.html": `<!doctype html><meta charset="utf-8"><pre id="told">running</pre><script type="module">
    import { run } from "./board.js";
    const told = document.getElementById("told");
    run(location.search.slice(1)).then((value) => { told.textContent = JSON.stringify(value); }, (error) => { told.textContent = "failed " + error; });
  </script>`,
  "board.js": `import { berthsCalls, connectBerths } from "./src/sdk/berths/grouped.js";
import { isReserveBerthFailure } from "./src/sdk/berths/index.js";

export async function run(address) {
  const harbour = berthsCalls(connectBerths({ baseUrl: \`\${address}/berths\`, auth: { harbourToken: "any" } }));
  const told = [await harbour.getBerth({ berthId: "N/07 ü" }), await harbour.currentNotices()];
  for await (const vessel of harbour.listVesselsItems({ pageSize: 2 })) told.push(vessel.name);
  try {
    await harbour.reserveBerth({ berthId: "N-07", body: { vesselId: 7, arrival: "x", departure: "y" } });
  } catch (error) {
    told.push(isReserveBerthFailure(error) ? error.status : String(error));
  }
  return told;
}
`,
};

const withContract = (files: Readonly<Record<string, string>>) =>
  new TemporaryProject({ "berths.yaml": contract("v1"), ...files });

/** A project after `init` and `generate`. */
async function begun(files: Readonly<Record<string, string>>): Promise<TemporaryProject> {
  const project = withContract(files);
  expect(await project.run(["init", "--yes", "--into", "src/sdk"])).toMatchObject({ code: 0 });
  expect(await project.run(["generate"])).toMatchObject({ code: 0 });
  return project;
}

const contentTypes: Readonly<Record<string, string>> = { ".html": "text/html", ".js": "text/javascript" };

describe("a project without a build step", () => {
  it.each([
    ["a page", { "index.html": "<!doctype html>" }, "javascript"],
    ["scripts and no TypeScript", { "package.json": "{}", "lib/main.mjs": "" }, "javascript"],
    [
      "a compiler among its packages",
      { "package.json": '{ "devDependencies": { "typescript": "5" } }', "a.js": "" },
      "typescript",
    ],
    ["a file with types", { "vite.config.js": "", "src/main.ts": "" }, "typescript"],
    ["nothing yet", {}, "typescript"],
  ])("with %s gets an SDK in its language", async (_what, files: Readonly<Record<string, string>>, language) => {
    const project = withContract(files);
    expect((await project.run(["init", "--yes"])).code).toBe(0);
    expect(project.read("rhema.yaml")).toContain(`language: ${language}`);
  });

  it("may select a language that differs from its files", async () => {
    const project = withContract({ "src/main.ts": "" });
    expect((await project.run(["init", "--yes", "--language", "javascript"])).out).toContain("in JavaScript");
    expect((await project.run(["init", "--yes", "--language", "cobol"])).code).toBe(2);
  });

  it.skipIf(chromium === undefined)("runs its SDK without a bundler, from a static server and in Node", async () => {
    const project = await begun(page);
    const address = await project.play();
    project.write(
      "node.mjs",
      `import { run } from "./board.js";\nconsole.log(JSON.stringify(await run(${JSON.stringify(address)})));\n`,
    );
    project.write("package.json", '{ "type": "module" }');
    const inNode = JSON.parse(await runNode(project.folder, ["node.mjs"])) as unknown[];
    const at = await listening((request, response) => {
      const { pathname } = new URL(request.url ?? "/", "http://page.test");
      const path = project.path(pathname === "/" ? "index.html" : pathname.slice(1));
      const type = contentTypes[extname(path)];
      if (type === undefined || !existsSync(path)) response.writeHead(404).end();
      else response.writeHead(200, { "content-type": type }).end(readFileSync(path));
    });
    expect(JSON.parse(await pageAfter(`${at}/?${address}`, project.path("profile")))).toEqual(inNode);
    expect(inNode.at(-1)).toBe("unexpected");
    expect(inNode.length).toBeGreaterThan(5);
  });

  it("gets the parameter and response types in the editor", async () => {
    const project = await begun(page);
    project.write(
      "wrong.js",
      'import { connectBerths, getBerth } from "./src/sdk/berths/index.js";\nconst berth = await getBerth(connectBerths({ baseUrl: "/" }), { berth: "N-07" });\nconsole.log(berth.quays, berth.quay.length);\n',
    );
    project.write("package.json", '{ "type": "module" }');
    const complaints = project.compile({ allowJs: true, checkJs: true, noImplicitAny: false }, ["wrong.js"]);
    expect(complaints.split("\n")).toEqual([
      expect.stringMatching(/^wrong\.js:2.* 'berth' does not exist in type 'GetBerthArgs'/),
      expect.stringMatching(/^wrong\.js:3.* Property 'quays' does not exist on type 'Berth'/),
    ]);
  });

  it("gets the impact on its modules and on the module scripts of its pages", async () => {
    const project = await begun({
      "shown.js":
        'import { getBerth } from "./src/sdk/berths/index.js";\nexport const note = async (at) => (await getBerth(at, { berthId: "N-07" })).note;\n',
      "tides.html":
        '<h1>Tides</h1>\n<script src="old.js"></script>\n<script type="module">\n  import { berthsCalls, connectBerths } from "/src/sdk/berths/grouped.js";\n  const harbour = berthsCalls(connectBerths({ baseUrl: "/berths" }));\n  console.log(await harbour.listBerths({ minLength: 3 }));\n</script>\n',
    });
    project.write("berths.yaml", contract("v2"));
    const { code, out } = await project.run(["impact", "--json", "--judge", "code"]);
    const told = JSON.parse(out) as {
      contracts: { changes: { code: string; verdict: { code: string }; hits: { file: string; line: number }[] }[] }[];
    };
    const found = (wanted: string): string[] =>
      told.contracts.flatMap(({ changes }) =>
        changes
          .filter((change) => change.code === wanted)
          .flatMap((change) => change.hits.map(({ file, line }) => `${change.verdict.code} ${file}:${String(line)}`)),
      );
    expect(code).toBe(1);
    expect(found("answer.field.gone")).toContain("breaking shown.js:2");
    expect(found("ask.parameter.gone")).toEqual(["breaking tides.html:6"]);
    const proof = await project.run(["impact", "--prove", "--judge", "code"]);
    expect(proof.out).toMatch(/compile check: 2 new compile errors, 2 explained by a change/);
    expect(proof.out).toContain("does not compile  shown.js:2:77");
  });

  it("tries a call with a program in JavaScript", async () => {
    const project = await begun(page);
    const address = await project.play();
    expect(
      (await project.run(["try", "getBerth", "berthId=N-07", "--code", "tried", "--base-url", `${address}/berths`]))
        .code,
    ).toBe(0);
    expect(await runNode(project.folder, ["tried/get-berth.mjs"])).toContain("N-07");
  });

  it("gets documentation in JavaScript", async () => {
    const project = demoProject();
    project.write(
      "rhema.yaml",
      project
        .read("rhema.yaml")
        .replace("language: typescript", "language: javascript")
        .replaceAll("{ typescript: string }", "{ javascript: string }"),
    );
    expect((await project.run(["generate"])).code).toBe(0);
    const pages = Object.entries(project.tree("src/sdk")).filter(([path]) => path.endsWith(".md"));
    expect(pages.length).toBeGreaterThan(8);
    for (const [, text] of pages) expect(text).not.toMatch(/```ts|\bdeclare\b| as never/);
    expect(project.read("src/sdk/README.md")).toContain(
      'import { berthsCalls, connectBerths } from "./berths/grouped.js";',
    );
    expect(project.tree("src/sdk")["berths/calls/berths.js"]).toMatch(
      /^\/\/ Written by rhema generate[^\n]*\n\nimport /,
    );
  });
});
