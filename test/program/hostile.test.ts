import { describe, expect, it } from "vitest";
import { contractWith, okay } from "../support/smallContract.js";
import { graphqlProject, restProject } from "../support/temporaryProject.js";

/** Texts with an attack, wherever they are written. */
const attacks = [
  "*/ globalThis.owned = true; /*",
  "/* nested */ /* */ owned() //",
  '"; globalThis.owned = true; "',
  "`${globalThis.owned = true}`",
  '\\"; owned(); //',
  "\u2028globalThis.owned = true\u2029",
  "</script><script>owned()</script>",
  "constructor",
  "__proto__",
  "../../../owned",
  "..\\..\\owned",
  "@internal\n@public */ owned()",
  "eslint-disable */ owned()",
  "x\r\nowned()",
  "\u202eowned\u202c",
  "//# sourceMappingURL=data:owned",
];

/** A contract with an attack in every place for a text. */
function steering(attack: string): Record<string, unknown> {
  const described = { description: attack, title: attack, "x-note": attack };
  const field = {
    type: "string",
    ...described,
    default: attack,
    example: attack,
    pattern: attack,
    format: attack,
    enum: [attack, "b"],
  };
  const subject = {
    type: "object",
    ...described,
    deprecated: true,
    properties: { [attack]: field, plain: { const: attack } },
    required: [attack],
  };
  const json = { [`application/${attack}+json`]: { schema: subject }, "application/json": { schema: subject } };
  return {
    openapi: "3.1.0",
    info: { title: attack, version: attack, description: attack },
    servers: [
      {
        url: `https://{${attack}}.ostrel.example/${attack}`,
        description: attack,
        variables: { [attack]: { default: attack, enum: [attack], description: attack } },
      },
    ],
    tags: [{ name: attack, description: attack }],
    paths: {
      [`/x/${attack.replaceAll("/", "-")}/{${attack}}`]: {
        summary: attack,
        post: {
          operationId: attack,
          tags: [attack],
          summary: attack,
          description: attack,
          deprecated: true,
          servers: [{ url: attack }],
          security: [{ [attack]: [attack] }],
          parameters: ["path", "query", "header", "cookie"].map((place) => ({
            name: attack,
            in: place,
            required: true,
            description: attack,
            schema: field,
          })),
          requestBody: {
            description: attack,
            content: {
              ...json,
              "multipart/form-data": { schema: subject, encoding: { [attack]: { contentType: attack } } },
            },
          },
          responses: {
            200: { description: attack, headers: { [attack]: { description: attack, schema: field } }, content: json },
            404: { description: attack },
          },
          callbacks: {
            [attack]: { [attack]: { post: { summary: attack, requestBody: { content: json }, responses: {} } } },
          },
        },
      },
    },
    webhooks: { [attack]: { post: { description: attack, requestBody: { content: json }, responses: okay(subject) } } },
    components: {
      schemas: {
        [attack]: subject,
        Union: {
          oneOf: [{ $ref: "#/components/schemas/Union2" }],
          discriminator: { propertyName: attack, mapping: { [attack]: "Union2" } },
        },
        Union2: subject,
      },
      securitySchemes: {
        [attack]: { type: "apiKey", in: "header", name: attack, description: attack },
        other: { type: "http", scheme: attack },
      },
    },
  };
}

/** The SDK as code, without its comments and the texts of its literals. */
function codeOf(files: Record<string, string>): string {
  return Object.entries(files)
    .filter(([path]) => path.endsWith(".ts"))
    .map(([, text]) => text.replace(/\/\*[\s\S]*?\*\/|\/\/[^\n]*|"(?:[^"\\\n]|\\.)*"|`(?:[^`\\]|\\.)*`/g, ""))
    .join("\n");
}

describe("a contract that tries to change the SDK", () => {
  it.each(attacks)("by %j in every string", async (attack) => {
    const project = restProject(JSON.stringify(steering(attack)));
    const { code, err } = await project.run(["generate"]);
    expect([code, err.includes("defect")]).toEqual([0, false]);
    expect(project.compile()).toBe("");
    const files = project.tree("src/sdk");
    expect(codeOf(files)).not.toMatch(/\bowned\(\)|globalThis\.owned/);
    for (const path of Object.keys(files)) expect(path).toMatch(/^[\w/.-]+$/);
    expect(Object.keys(project.tree("."))).not.toContain("owned");
    if (attack === attacks[0]) expect(project.compileAndLint()).toEqual([]);
  });

  it("or a terminal and its readers, with invisible characters, in no output and no file", async () => {
    // C0, C1, bidirectional marks, line separators, characters without width, and letters of the plane of tags.
    const unseen = Array.from("\u0007\u001b\u007f\u009b\u061c\u200b\u202e\u2066\u2028\ufeff\u{e0041}");
    const attack = `a${unseen.join("b")}\u001b[31mred\u001b]0;owned\u0007\u009b2J`;
    const before = steering(attack) as { paths: object; components: { schemas: object } };
    const after = { ...before, paths: {}, info: { title: `2${attack}`, version: `2${attack}` } };
    const broken = { ...before, components: { schemas: { [attack]: { type: `x${attack}`, required: attack } } } };
    const project = restProject(JSON.stringify(before), {
      "after.json": JSON.stringify(after),
      "schema.graphql": `"""\n${attack}\n"""\ntype Query { "${attack.replace(/[\u0000-\u001f]/g, "")}" ship(id: ID = "${attack.replace(/[\u0000-\u001f]/g, "")}"): Int @deprecated(reason: "${attack.replace(/[\u0000-\u001f]/g, "")}") }`,
      "q/ship.graphql": "query Ship { ship }\n",
      "rhema.yaml":
        'contracts:\n  api: { from: api.yaml }\n  fleet: { from: schema.graphql, queries: ["q/*.graphql"] }\n' +
        "sdks:\n  app: { language: typescript, covers: [api, fleet], into: src/sdk, settings: { testing: true } }\n",
    });
    const seen = new Map<string, string>();
    const run = async (...args: string[]): Promise<void> => {
      for (const env of [{}, { FORCE_COLOR: "1", NO_COLOR: undefined as unknown as string }]) {
        const { code, out, err } = await project.run(args, { RHEMA_DEBUG: "1", ...env });
        expect([args, code === null || code === 70, err.includes("defect")]).toEqual([args, false, false]);
        seen.set(`${args.join(" ")} ${Object.keys(env).join()}`, `${out}${err}`.replace(/\u001b\[(?:\d|[23]\d)m/g, ""));
      }
    };
    const commands = [
      ["generate", "--force"],
      ["generate", "--force", "--json"],
      ["generate", "--files"],
      ["check"],
      ["outline"],
      ["outline", "--json"],
      ["outline", "--about", attack],
      ["draft", "fleet", "--into", "drafts"],
      ["try", "ship"],
      ["impact", "api", "--all", "--after", "after.json"],
      ["impact", "api", "--all", "--json", "--after", "after.json"],
      ...["markdown", "html", "sarif", "junit", "changelog", "annotations"].map((form) => [
        ...["impact", "api", "--all", "--after", "after.json", "--report", form],
      ]),
    ];
    for (const args of commands) await run(...args);
    const har = { request: { method: "PUT", url: "http://h.example/x" }, response: { status: 200, content: {} } };
    project.write("seen.har", JSON.stringify({ log: { entries: [har] } }));
    await run("observe", "--har", "seen.har", "--report", "markdown");
    const played = await project.play();
    await (await fetch(`${played}/api/x?q=${encodeURIComponent(attack)}`)).text();
    seen.set("the state of the page", await (await fetch(`${played}/.play/state`)).text());
    for (const [path, text] of Object.entries(project.tree("src/sdk"))) seen.set(path, text);
    for (const [path, text] of Object.entries(project.tree("drafts"))) seen.set(path, text);
    for (const [path, text] of Object.entries(project.tree(".rhema")))
      if (!path.endsWith(".graphql")) seen.set(path, text);
    project.write("api.yaml", JSON.stringify(broken));
    for (const args of [["generate"], ["generate", "--json"], ["check"]]) await run(...args);
    project.write("api.yaml", `openapi: 3.1.0\n\u202e[${attack}`);
    for (const args of [["generate"], ["generate", "--json"], ["check"]]) await run(...args);
    const steered = [...seen].flatMap(([where, text]) => {
      const [found] =
        /(?![\n\t])[\u0000-\u001f\u007f-\u009f\u061c\u200b\u200e\u200f\u2028-\u202e\u2060-\u2069\ufeff\u{e0000}-\u{e007f}]/u.exec(
          text,
        ) ?? [];
      return found === undefined
        ? []
        : [[where, text.slice(Math.max(0, text.indexOf(found) - 60), text.indexOf(found) + 20)]];
    });
    expect(steered).toEqual([]);
    expect(seen.size).toBeGreaterThan(50);
  });

  it("by prototypes", async () => {
    const text = `{"openapi":"3.1.0","info":{"title":"T","version":"1"},"__proto__":{"paths":{"/owned":{"get":{}}}},"paths":{"/a":{"get":{"operationId":"a","__proto__":{"deprecated":true},"responses":{"200":{"description":"","content":{"application/json":{"schema":{"type":"object","properties":{"__proto__":{"type":"string"},"a":{"type":"string"}},"required":["__proto__"]}}}}}}}}}`;
    const project = restProject(text);
    expect((await project.run(["generate"])).code).toBe(0);
    expect(project.compile()).toBe("");
    expect(project.read("src/sdk/api/index.ts")).not.toContain("owned");
    expect(project.read("src/sdk/api/calls/a.ts")).not.toContain("@deprecated");
  });
});

describe("a contract that tries to exhaust the program or to leave the folder", () => {
  it("with very deep nesting ends with a message or a skipped part", async () => {
    const deep = (levels: number) => `${'{"type":"array","items":'.repeat(levels)}{}${"}".repeat(levels)}`;
    for (const levels of [300, 5_000, 100_000]) {
      const text = JSON.stringify(contractWith({ Good: { type: "string" }, Deep: "HERE" })).replace(
        '"HERE"',
        deep(levels),
      );
      const project = restProject(text);
      const { code, out, err } = await project.run(["generate"]);
      expect([0, 3]).toContain(code);
      expect(`${out}${err}`).toMatch(/nested (more than 250 levels deep|too deeply)/);
    }
  });

  it("with lists in lists of a schema is skipped if nothing could walk through it", async () => {
    const deep = (levels: number): string => `${"[".repeat(levels)}Int${"]".repeat(levels)}`;
    for (const levels of [101, 5_000]) {
      const project = graphqlProject(
        `type Query { deep: ${deep(levels)} b(x: ${deep(levels)}): Int fine: ${deep(20)} }`,
        { a: "query Q { b fine }" },
      );
      const { code, out } = await project.run(["generate"]);
      expect([levels, code]).toEqual([levels, 0]);
      expect(out).toContain("2 parts skipped");
      expect(out).toContain("its lists are nested more than 100 levels deep");
      expect(project.compile()).toBe("");
    }
  });

  it("with very deep queries ends with a message", async () => {
    const schema = "type Query { n: Query b(x: J): Int } scalar J";
    for (const text of [
      `query Q { ${"n { ".repeat(5_000)}b${" }".repeat(5_000)} }`,
      `query Q { b(x: ${"[".repeat(50_000)}1${"]".repeat(50_000)}) }`,
      `query Q { ${"n { ".repeat(600)}b${" }".repeat(600)} }`,
    ]) {
      const { code, err } = await graphqlProject(schema, { a: text }).run(["generate"]);
      expect([code, err.includes("defect")]).toEqual([1, false]);
    }
    for (const text of [
      `query Q { ${"n { ".repeat(400)}b${" }".repeat(400)} }`,
      `query Q { b(x: ${"[".repeat(400)}1${"]".repeat(400)}) }`,
    ])
      expect((await graphqlProject(schema, { a: text }).run(["generate"])).code).toBe(0);
    const { err } = await graphqlProject(schema, {
      a: `query Q { b(x: ${"[".repeat(3_000)}1${"]".repeat(3_000)}) }`,
    }).run(["generate"]);
    expect(err).not.toContain("defect");
  });

  it("with fragments that are spread twice takes no longer than with others", async () => {
    const schema = "type Query { n: Node } type Node { id: ID! next: Node other: Node }";
    const chain = (count: number, inner: (name: string) => string): string =>
      [
        "query Q { n { ...F0 } }",
        ...Array.from(
          { length: count },
          (_, at) => `fragment F${String(at)} on Node { id ${inner(`F${String(at + 1)}`)} }`,
        ),
        `fragment F${String(count)} on Node { id }`,
      ].join("\n");
    const twice = graphqlProject(schema, {
      a: chain(200, (name) => `...${name} ... on Node { ...${name} } ...${name}`),
    });
    expect((await twice.run(["generate"])).code).toBe(0);
    expect(twice.compile()).toBe("");
    // Below different fields they are different types, of which there are too many.
    const below = graphqlProject(schema, { a: chain(40, (name) => `next { ...${name} } other { ...${name} }`) });
    const { code, err } = await below.run(["generate"]);
    expect([code, err.includes("selects more than 20,000 fields when its")]).toEqual([1, true]);
  });

  it("with a very long enum takes linear time, and keeps each value whole", async () => {
    const odd = ["a | b", '"', "`", "} | {", "(a", "\\", "${x} | y", "] |"];
    const values = [...odd, ...Array.from({ length: 20_000 }, (_, at) => `value ${String(at)}`)];
    const schemas = {
      Many: { type: "string", enum: values },
      Holder: { type: "object", properties: { odd: { enum: odd }, many: { enum: values } } },
    };
    const project = restProject(contractWith(schemas));
    const startedAt = performance.now();
    expect((await project.run(["generate"])).code).toBe(0);
    expect(performance.now() - startedAt).toBeLessThan(5_000);
    expect(project.compile()).toBe("");
  });

  it("with aliases that expand without end ends with a message", async () => {
    const lines = ["a0: &a0 [x, x, x, x, x, x, x, x, x]"];
    for (let level = 1; level < 10; level++)
      lines.push(
        `a${String(level)}: &a${String(level)} [${Array.from({ length: 9 }, () => `*a${String(level - 1)}`).join(", ")}]`,
      );
    const { code, err } = await restProject(`openapi: 3.1.0\n${lines.join("\n")}\n`).run(["generate"]);
    expect(code).toBe(3);
    expect(err).toContain("aliases unfold");
  });

  it("with schemas that merge and refer without end gives one type", async () => {
    const ref = (name: string) => ({ $ref: `#/components/schemas/${name}` });
    const names = Array.from({ length: 30 }, (_, at) => `S${String(at)}`);
    const schemas = Object.fromEntries(
      names.map((name, at) => [
        name,
        {
          allOf: names
            .filter((_, other) => other !== at)
            .slice(0, 6)
            .map((other) => ({ properties: { [other]: { allOf: [ref(other), ref(name)] } } })),
          oneOf: [ref(names[(at + 1) % 30] ?? ""), { type: "object" }],
        },
      ]),
    );
    const project = restProject(JSON.stringify(contractWith(schemas)));
    const { code } = await project.run(["generate"]);
    expect(code).toBe(0);
    expect(project.compile()).toBe("");
  });

  it.each([
    "/etc/passwd",
    "file:///etc/passwd",
    "../../../../etc/passwd",
    "\\\\host\\share\\x.yaml",
    "http://169.254.169.254/x",
    "ftp://ostrel.example/x",
    "javascript:alert(1)",
  ])("refers to %s without success", async (reference) => {
    const project = restProject(
      JSON.stringify(contractWith({ Good: { type: "string" }, Out: { $ref: `${reference}#/root` } })),
    );
    const { code, out } = await project.run(["generate"]);
    expect(code).toBe(0);
    expect(out.replace(/\s+/g, " ")).toMatch(
      /GET \/s\/Out .*refers to a document that (is outside the project|is on a host|does not exist)/,
    );
    expect(JSON.stringify(project.tree("."))).not.toContain("root:x:0");
  });
});
