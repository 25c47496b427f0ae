import { describe, expect, it } from "vitest";
import { demoProject, restProject } from "../support/temporaryProject.js";
import { uglyContract } from "../support/uglyContract.js";

describe("generated code", () => {
  it("compiles and lints without warnings for the ugliest valid contract, with nothing left out", async () => {
    const project = restProject(uglyContract);
    const { code, out, err } = await project.run(["--json", "generate"]);
    expect([code, err]).toEqual([0, ""]);
    const { sdks } = JSON.parse(out) as { sdks: { contracts: { setAside: unknown[]; calls: number }[] }[] };
    expect(sdks[0]?.contracts[0]?.setAside).toEqual([]);
    expect(project.compileAndLint()).toEqual([]);
    for (const text of Object.values(project.tree("src/sdk"))) expect(text).not.toMatch(/[:<|(,=] ?any\b[^ ]/);
  });

  it("compiles with bundler resolution without file extensions, and with the extensions of nodenext", async () => {
    const project = demoProject();
    project.write(
      "tsconfig.json",
      '{ // comments are allowed\n "compilerOptions": { "module": "preserve", "moduleResolution": "bundler" } }',
    );
    expect((await project.run(["generate"])).code).toBe(0);
    expect(project.read("src/sdk/berths/index.ts")).toContain('from "./connect";');
    expect(project.compile({ module: "preserve", moduleResolution: "bundler" }, ["src/sdk"])).toBe("");
  });

  it("of the demo compiles and lints without warnings, app included", async () => {
    const project = demoProject();
    expect((await project.run(["generate"])).code).toBe(0);
    expect(project.compileAndLint()).toEqual([]);
  });

  it("does not compile with values that the contract forbids", async () => {
    const project = demoProject();
    await project.run(["generate"]);
    project.write(
      "src/wrong.ts",
      `import { getBerth, reserveBerth, connectBerths, isReserveBerthFailure } from "./sdk/berths/index.js";
import { connectPassages, crewContact, arrivalsToday } from "./sdk/passages/index.js";
const berths = connectBerths();
// @ts-expect-error a required argument is missing
void getBerth(berths, {});
// @ts-expect-error a required field of the body is missing
void reserveBerth(berths, { berthId: "N-07", body: { vesselId: "v", arrival: "2026-05-01" } });
// @ts-expect-error no such argument
void getBerth(berths, { berthId: "N-07", quay: "north" });
// @ts-expect-error the endpoint's URL is not in a schema
connectPassages();
const passages = connectPassages({ baseUrl: "http://localhost" });
// @ts-expect-error a connection to another contract
void crewContact(berths, { id: "1" });
// @ts-expect-error a required variable is missing
void arrivalsToday(passages, {});
void crewContact(passages, { id: "1" }).then((answer) => {
  // @ts-expect-error it can be null
  answer.crewMember.name;
  // @ts-expect-error it is not selected
  answer.crewMember?.voyages;
});
void getBerth(berths, { berthId: "N-07" }).then((berth) => {
  // @ts-expect-error a choice has no such value
  if (berth.status === "sunk") throw new Error();
});
try {
  await reserveBerth(berths, { berthId: "N-07", body: { vesselId: "v", arrival: "2026-05-01", departure: "2026-05-02" } });
} catch (error) {
  if (isReserveBerthFailure(error) && error.status === 409) error.body.conflictsWith.trim();
  // @ts-expect-error only the conflict tells with what
  if (isReserveBerthFailure(error) && error.status === 404) error.body.conflictsWith;
}
`,
    );
    expect(project.compile({ noUnusedLocals: false })).toBe("");
  });

  it("has a sample of every call in its pages, and every sample compiles", async () => {
    const project = demoProject();
    await project.run(["generate"]);
    const samplesOf = (text: string) => [...text.matchAll(/```ts\n([\s\S]*?)```/g)].map(([, sample = ""]) => sample);
    const readme = project.read("src/sdk/README.md");
    for (const contract of ["berths", "passages"]) {
      const connect = samplesOf(readme).find((sample) => sample.includes(`./${contract}/`)) ?? "";
      const pages = Object.entries(project.tree(`src/sdk/${contract}`)).filter(([path]) => path.endsWith(".md"));
      for (const [path] of pages) expect(readme).toContain(`](${contract}/${path})`);
      const samples = pages.flatMap(([, text]) => samplesOf(text));
      const calls = samples.map((sample) => /(\w+)\(connection/.exec(sample)?.[1] ?? "");
      expect(calls.sort()).toEqual(
        [...readme.matchAll(/^- \[?`(\w+)`/gm)]
          .map(([, name]) => name)
          .filter((name = "") => calls.includes(name))
          .sort(),
      );
      expect(samples).toHaveLength(contract === "berths" ? 15 : 9);
      const imports = connect.replace("import {", `import { ${calls.join(", ")},`).replace("./", "./sdk/");
      project.write(`src/${contract}Samples.ts`, `${imports}\n${samples.join("\n")}`);
    }
    expect(project.compile()).toBe("");
  });
});
