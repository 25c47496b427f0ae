import { expect, it } from "vitest";
import { quaysContract, quaysProject, text } from "../support/quaysProject.js";

/** The report about a removed field, for an SDK with this many more characters than it needs. */
async function gone(more: number) {
  const project = quaysProject(
    {
      "src/list.ts":
        'import { load } from "./quays.js";\nexport const notes = (await load()).map(({ note }) => note);\n',
    },
    [],
  );
  const fields = (...names: string[]) => Object.fromEntries(names.map((name) => [name, text]));
  const contract = (...names: string[]) => {
    const document = JSON.parse(quaysContract(fields(...names))) as { components: { schemas: { Quay: object } } };
    document.components.schemas.Quay = { ...document.components.schemas.Quay, description: "words ".repeat(more / 6) };
    return JSON.stringify(document);
  };
  project.write("quays.json", contract("id", "name", "note"));
  expect((await project.run(["generate"])).code).toBe(0);
  project.write("quays.json", contract("id", "name"));
  const { code, out, err } = await project.run(["impact", "--json"], { RHEMA_DEBUG: "1" });
  const [{ changes }] = (JSON.parse(out) as { contracts: [{ changes: { use: string; hits: object[] }[] }] }).contracts;
  return { code, isBeside: err.includes("in a thread of its own"), changes };
}

it("finds the same uses of a large SDK in a parallel process", async () => {
  const [small, large] = [await gone(600), await gone(1_600_000)];
  expect([small.isBeside, large.isBeside]).toEqual([false, true]);
  expect(large.changes.map(({ use, hits }) => ({ use, hits }))).toEqual(
    small.changes.map(({ use, hits }) => ({ use, hits })),
  );
  expect([large.code, large.changes[0]?.use]).toEqual([1, "used"]);
});
