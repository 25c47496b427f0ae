import { readFileSync } from "node:fs";
import { join } from "node:path";
import { Ajv } from "ajv";
import { beforeEach, describe, expect, it } from "vitest";
import { withLanguages } from "../../src/core/languages/configurationSchema.js";
import { languages } from "../../src/core/languages/index.js";
import { demoProject, TemporaryProject } from "../support/temporaryProject.js";
import { packageRoot } from "../support/packageRoot.js";
import { toy } from "./toy/tools.js";

const shipped = JSON.parse(readFileSync(join(packageRoot, "schema/rhema.schema.json"), "utf8")) as object;
const validate = new Ajv({ allErrors: true, verbose: true, strict: false }).compile(
  withLanguages(shipped, [...languages, toy]),
);

const board = `  quay-board:
    language: typescript`;

/** The demo with a toy SDK next to its own. */
function withToy(settings = "{}", project = demoProject()): TemporaryProject {
  const sdk = `  shelf:\n    language: toy\n    covers: [berths, passages]\n    into: shelf\n    settings: ${settings}\n`;
  project.write("rhema.yaml", project.read("rhema.yaml").replace(board, `${sdk}${board}`));
  project.languages = { more: [toy], validate };
  return project;
}

let project: TemporaryProject;
beforeEach(() => {
  project = withToy();
});

describe("a language that has only its own folders", () => {
  it("is generated, checked and kept up to date next to the others", async () => {
    const { code, out } = await project.run(["generate"]);
    expect([code, out]).toEqual([0, expect.stringMatching(/^generate: quay-board, shelf written\n/)]);
    expect((await project.run(["check"])).code).toBe(0);
    expect((await project.run(["generate"])).out).toMatch(/^generate: quay-board, shelf already up to date/);
    project.write("shelf/berths/types.toy", "mine");
    expect(await project.run(["generate"])).toMatchObject({
      code: 1,
      err: expect.stringContaining("output.edited") as string,
    });
  });

  it("prints what the plan has decided: requests, responses, pages, names and text", async () => {
    await project.run(["generate"]);
    expect(project.read("shelf/berths/calls/berths.toy")).toContain(`# The berths of the harbour, a page at a time.
# \`GET /berths\`
call list_berths(quay words, status list(berth_status), min_length decimal, cursor words, page_size whole) "berths.listBerths"
  asks GET "/berths"
  query "quay" quay as form
  query "status" status as form
  query "minLength" min_length as form
  query "cursor" cursor as form
  query "pageSize" page_size as form
  auth harbourToken
  answers 200 as json berth_page
  fails 401 as json problem
  pages list_berths_all by cursor
`);
    const files = project.tree("shelf");
    expect(Object.keys(files)).toEqual(
      expect.arrayContaining([
        "README.md",
        "berths/calls/berths.md",
        "passages/calls/fleet.toy",
        "wire/pages.toy",
        "wire/wire.toy",
      ]),
    );
    expect(files["berths/types.toy"]).toMatch(/^choice berth_status open\n {2}free = "free"$/m);
  });

  it("refuses settings that it does not have, by name", async () => {
    const { code, err } = await withToy("{ int64: bigint, shout: loud, colour: red }").run(["generate"]);
    expect([code, err]).toEqual([2, expect.stringContaining("An SDK in Toy has no setting `int64`.")]);
    expect(err).toContain("`shout` must be true or false");
    expect(err).toContain("The key `colour` is unknown.");
    expect((await withToy("{}", demoWithLanguage("latin")).run(["generate"])).err).toContain(
      '`language` cannot be "latin"',
    );
  });
});

function demoWithLanguage(language: string): TemporaryProject {
  const demo = demoProject();
  demo.write(
    "rhema.yaml",
    `${demo.read("rhema.yaml")}  other: { language: ${language}, covers: [berths], into: other }\n`,
  );
  return demo;
}

const contract = (amount: string, note: string, status: string) => `openapi: 3.1.0
info: { title: Tides, version: "1" }
paths:
  /tides:
    get:
      operationId: readTide
      responses: { "200": { description: One tide, content: { application/json: { schema: { $ref: "#/components/schemas/Tide" } } } } }
components:
  schemas:
    Tide:
      type: object
      required: [metres, note, status]
      properties:
        metres: { type: ${amount} }
        ${note}
        status: { enum: [${status}] }
`;
const before = contract("integer", "note: { type: [string, 'null'] }", "rising, falling");
const after = contract("number", "note: { type: string }", "rising, falling, slack").replace("metres, note", "metres");
const sdks = `sdks:
  app: { language: typescript, covers: [tides], into: src/sdk }
  shelf: { language: toy, covers: [tides], into: shelf }
`;

describe("a change that affects two SDKs differently", () => {
  const changed = async (source: string): Promise<TemporaryProject> => {
    const tides = new TemporaryProject({
      "rhema.yaml": `contracts:\n  tides: { from: tides.yaml }\n${sdks}`,
      "tides.yaml": before,
      "src/app.ts": source,
    });
    tides.languages = { more: [toy], validate };
    expect((await tides.run(["generate"])).code).toBe(0);
    tides.write("tides.yaml", after);
    return tides;
  };

  it("has one code verdict for each, and counts as the worst one in use", async () => {
    const tides = await changed("export {};\n");
    const { out } = await tides.run(["impact", "--json"]);
    const [{ changes }] = (JSON.parse(out) as { contracts: [{ changes: Change[] }] }).contracts;
    const seen = Object.fromEntries(changes.map(({ code, verdict, sdks }) => [code, [verdict.code, ...sdks]]));
    expect(seen).toEqual({
      // Two number types are one to the first compiler, and two to the other.
      "answer.type.changed": [
        "breaking",
        { sdk: "app", code: "compatible", use: "not used" },
        { sdk: "shelf", code: "breaking", use: "cannot tell" },
      ],
      // A value that was null is absent now, which the other language does not distinguish.
      "answer.field.now-optional": [
        "compatible",
        { sdk: "app", code: "breaking", use: "not used" },
        { sdk: "shelf", code: "compatible", use: "cannot tell" },
      ],
      "answer.null.lost": [
        "compatible",
        { sdk: "app", code: "compatible", use: "not used" },
        { sdk: "shelf", code: "compatible", use: "cannot tell" },
      ],
      // Enums are open in one language by its own default.
      "answer.choice.new": [
        "compatible",
        { sdk: "app", code: "risky", use: "not used" },
        { sdk: "shelf", code: "compatible", use: "cannot tell" },
      ],
    });
    expect((await tides.run(["impact"])).out).toMatch(
      /cannot tell whether it uses any of this[\s\S]*answer\.type\.changed[\s\S]*code by SDK: shelf breaking, app compatible/,
    );
  });

  it("is in use if one of them is, each with its own names; for the other Rhema cannot tell", async () => {
    const used = await changed(`import { connectTides, readTide } from "./sdk/tides/index.js";
export const tide = readTide(connectTides({ baseUrl: "http://localhost" }));
`);
    expect((await used.run(["outline"])).out).toMatch(/\* .*GET \/tides/);
    const unused = await changed("export {};\n");
    expect((await unused.run(["outline"])).out).toMatch(/\? .*GET \/tides/);
    // An SDK that is not written is made in memory, so its uses are found anyway.
    unused.remove("src/sdk");
    const { out } = await unused.run(["impact", "--json"]);
    expect(out).toMatch(/"sdk": "app",\s+"code": "breaking",\s+"use": "not used"/);
    const reading = await changed(`import { connectTides, readTide } from "./sdk/tides/index.js";
export const { note } = await readTide(connectTides({ baseUrl: "http://localhost" }));
`);
    reading.remove("src/sdk");
    expect((await reading.run(["impact", "--json"])).out).toMatch(
      /"sdk": "app",\s+"code": "breaking",\s+"use": "used"/,
    );
  });

  it("is compile-checked by the compilers that exist, and reports the rest", async () => {
    const source = `import { connectTides, readTide } from "./sdk/tides/index.js";
export const length = async (): Promise<number> => {
  const { note } = await readTide(connectTides({ baseUrl: "http://localhost" }));
  return note === null ? 0 : note.length;
};
`;
    const tides = await changed(source);
    const { out, code } = await tides.run(["impact", "--prove"]);
    expect(code).toBe(1);
    expect(out).toContain("cannot tell for shelf: there is no compiler for them");
    expect(out).toMatch(/TS\d+/);
  });

  it("is tried in the language that performs calls, and a program is written in one that can run", async () => {
    const tides = await changed("export {};\n");
    expect((await tides.run(["try", "readTide"])).out).toContain("try: readTide responded 200");
    tides.write("rhema.yaml", tides.read("rhema.yaml").replace(/^ {2}app: .*\n/m, ""));
    const { out } = await tides.run(["try", "readTide", "--code", "tried"]);
    expect(out).toContain("-> node tried/read-tide.mjs");
  });
});

interface Change {
  readonly code: string;
  readonly verdict: { readonly code: string };
  readonly sdks: readonly object[];
}
