import { describe, expect, it } from "vitest";
import { oneAnswer } from "../support/oneAnswer.js";
import { TemporaryProject } from "../support/temporaryProject.js";

const configuration = {
  "package.json": '{ "type": "module" }',
  "tsconfig.json": JSON.stringify({
    compilerOptions: { strict: true, target: "ES2022", module: "ESNext", moduleResolution: "Bundler", noEmit: true },
    include: ["src"],
  }),
};

const text = { type: "string" };
const choice = (...values: string[]) => ({ type: "string", enum: values });
const reading = (body: string) =>
  `import type { Berth } from "./sdk/berths/index.js";\ndeclare const berth: Berth;\n${body}\n`;

/** The highest verdict on source, with the result of the gate on source, and the number of errors in a proof. */
async function judged(before: string, after: string, source: string) {
  const project = new TemporaryProject({
    ...configuration,
    "berths.json": before,
    "rhema.yaml":
      "contracts: { berths: { from: berths.json } }\nsdks: { app: { language: typescript, covers: [berths], into: src/sdk } }\n",
    "src/app.ts": reading(source),
  });
  expect((await project.run(["generate"])).code).toBe(0);
  project.write("berths.json", after);
  return verdicts(project);
}

async function verdicts(project: TemporaryProject) {
  const scanned = await project.run(["impact", "--judge", "code", "--json"]);
  const proved = await project.run(["impact", "--judge", "code", "--prove", "--json"]);
  const changesOf = (out: string) =>
    (
      JSON.parse(out) as { contracts: { changes: { code: string; use: string; verdict: { code: string } }[] }[] }
    ).contracts
      .flatMap(({ changes }) => changes)
      .filter(({ use }) => use === "used")
      .map(({ code, verdict }) => `${code} ${verdict.code}`);
  const [told, provedTold] = [changesOf(scanned.out), changesOf(proved.out)];
  expect(provedTold, "a proof says the same").toEqual(told);
  expect(proved.code).toBe(scanned.code);
  return [scanned.code, ...told];
}

describe("source that narrows types", () => {
  it.each<[string, string, string, string, unknown[]]>([
    [
      "a text that becomes a choice, and is compared with another value",
      oneAnswer({ state: text }),
      oneAnswer({ state: choice("open", "shut") }),
      'export const lost = berth.state === "lost";',
      [1, "answer.type.changed breaking"],
    ],
    [
      "a text that becomes a choice, and is compared with one of its values",
      oneAnswer({ state: text }),
      oneAnswer({ state: choice("open", "shut") }),
      'export const open = berth.state === "open";',
      [0, "answer.type.changed compatible"],
    ],
    [
      "a union that loses text",
      oneAnswer({ size: { anyOf: [text, { type: "number" }, { type: "boolean" }] } }),
      oneAnswer({ size: { anyOf: [{ type: "number" }, { type: "boolean" }] } }),
      'export const length = typeof berth.size === "string" ? berth.size.length : 0;',
      [1, "answer.member.gone breaking"],
    ],
    [
      "a union that gains a member whose common field has another type",
      oneAnswer(
        { owner: { anyOf: [{ $ref: "#/components/schemas/Person" }, { $ref: "#/components/schemas/Club" }] } },
        {
          Person: { type: "object", required: ["kind", "id"], properties: { kind: { const: "person" }, id: text } },
          Club: { type: "object", required: ["kind", "id"], properties: { kind: { const: "club" }, id: text } },
        },
      ),
      oneAnswer(
        {
          owner: {
            anyOf: ["Person", "Club", "Fleet"].map((name) => ({ $ref: `#/components/schemas/${name}` })),
          },
        },
        {
          Person: { type: "object", required: ["kind", "id"], properties: { kind: { const: "person" }, id: text } },
          Club: { type: "object", required: ["kind", "id"], properties: { kind: { const: "club" }, id: text } },
          Fleet: {
            type: "object",
            required: ["kind", "id"],
            properties: { kind: { const: "fleet" }, id: { type: "number" } },
          },
        },
      ),
      "export const id: string = berth.owner.id;",
      [1, "answer.member.new breaking"],
    ],
    [
      "a record of all values of a choice that grows",
      oneAnswer({ state: { $ref: "#/components/schemas/State" } }, { State: choice("open", "shut") }),
      oneAnswer({ state: { $ref: "#/components/schemas/State" } }, { State: choice("open", "shut", "lost") }),
      'const words: Record<Berth["state"], string> = { open: "Open", shut: "Shut" };\nexport const word = words[berth.state];',
      [1, "answer.choice.new breaking"],
    ],
    [
      "a match that says it is whole",
      oneAnswer({ state: choice("open", "shut") }),
      oneAnswer({ state: choice("open", "shut", "lost") }),
      'const never = (value: never): never => value;\nexport const is = berth.state === "open" ? 1 : berth.state === "shut" ? 2 : never(berth.state);',
      [1, "answer.choice.new breaking"],
    ],
    [
      "a comparison, when another value is added",
      oneAnswer({ state: choice("open", "shut") }),
      oneAnswer({ state: choice("open", "shut", "lost") }),
      'export const open = berth.state === "open";',
      [0, "answer.choice.new compatible"],
    ],
  ])("%s", async (_what, before, after, source, expected) => {
    expect(await judged(before, after, source)).toEqual(expected);
  });

  const pets = (members: string) =>
    `type Query { pet: Pet }\nunion Pet = ${members}\n${["Cat", "Dog", "Rat"].map((name) => `type ${name} { name: String! age: Int! }`).join("\n")}\n`;
  const whole = "Cat | Dog | Rat";
  const some = "Cat | Dog";
  it.each<[string, string, [string, string], unknown[]]>([
    ['a.pet?.__typename === "Rat"', "says what is gone", [whole, some], [1, "answer.member.gone breaking"]],
    ['a.pet?.__typename === "Cat"', "says what stays", [whole, some], [0, "answer.member.gone compatible"]],
    ["named(a.pet?.__typename)", "says all that there was", [some, whole], [1, "answer.member.new breaking"]],
    ["String(a.pet?.__typename)", "takes whatever comes", [some, whole], [0, "answer.member.new compatible"]],
  ])("of a query's response: %s %s", async (expression, _what, [before, after], expected) => {
    const project = new TemporaryProject({
      ...configuration,
      "pets.graphql": pets(before),
      "src/pet.graphql": "query Pet { pet { __typename ... on Cat { name } ... on Dog { name } } }\n",
      "rhema.yaml":
        'contracts: { pets: { from: pets.graphql, queries: ["src/*.graphql"] } }\nsdks: { app: { language: typescript, covers: [pets], into: src/sdk } }\n',
      "src/app.ts": `import { connectPets, pet } from "./sdk/pets/index.js";\nexport const named = (kind: "${before.replaceAll(" | ", '" | "')}" | undefined) => kind ?? "none";\nconst a = await pet(connectPets({ url: "/" }));\nexport const is = ${expression};\n`,
    });
    expect((await project.run(["generate"])).code).toBe(0);
    project.write("pets.graphql", pets(after));
    expect(await verdicts(project)).toEqual(expected);
  });

  it("that the compiler does not check keeps its verdict", async () => {
    const before = oneAnswer({ state: choice("open", "shut") });
    const after = oneAnswer({ state: choice("open", "shut", "lost") });
    const project = new TemporaryProject({
      ...configuration,
      "berths.json": before,
      "rhema.yaml":
        "contracts: { berths: { from: berths.json } }\nsdks: { app: { language: typescript, covers: [berths], into: src/sdk } }\n",
      "src/app.js":
        'import { connectBerths, getBerth } from "./sdk/berths/index.js";\nexport const open = (await getBerth(connectBerths({ baseUrl: "/" }))).state === "open";\n',
    });
    expect((await project.run(["generate"])).code).toBe(0);
    project.write("berths.json", after);
    expect(await verdicts(project)).toEqual([0, "answer.choice.new risky"]);
  });

  it("of an invented name: changes are reported where source uses it, with its errors", async () => {
    const inline = { type: "object", required: ["metres"], properties: { metres: { type: "number" } } };
    const before = oneAnswer({ size: inline });
    const after = oneAnswer({ size: { $ref: "#/components/schemas/Size" } }, { Size: inline });
    const naming =
      'import type { BerthSize } from "./sdk/berths/index.js";\nexport const metres = (size: BerthSize) => size.metres;\nexport const own = metres(berth.size);';
    expect(await judged(before, after, naming)).toEqual([1, "type.name.gone breaking"]);
    expect(await judged(before, after, "export const own = berth.size.metres;")).toEqual([0]);
  });
});
