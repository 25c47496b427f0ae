import { describe, expect, it } from "vitest";
import { readRest } from "../../support/readRest.js";
import { contractWith, okay } from "../../support/smallContract.js";

const operationOf = (operation: Record<string, unknown>, item: Record<string, unknown> = {}, path = "/things/{id}") => {
  const { contract, problems } = readRest(contractWith({}, { [path]: { ...item, get: operation } }));
  return { operation: contract.operations[0]!, problems };
};

describe("parameters", () => {
  it("of the operation override those of the path", () => {
    const item = {
      parameters: [
        { name: "id", in: "path", required: true, schema: { type: "string" } },
        { name: "q", in: "query", schema: { type: "string" } },
      ],
    };
    const { operation } = operationOf(
      { parameters: [{ name: "q", in: "query", required: true, schema: { type: "integer" } }], responses: okay(true) },
      item,
    );
    expect(operation.parameters.map((each) => [each.name, each.in, each.required, each.type.shape.kind])).toEqual([
      ["id", "path", true, "text"],
      ["q", "query", true, "integer"],
    ]);
  });

  it("that a path needs and nothing declares are strings, with a warning", () => {
    const { operation, problems } = operationOf({ responses: okay(true) });
    expect(operation.parameters).toMatchObject([
      { name: "id", in: "path", required: true, type: { shape: { kind: "text" } } },
    ]);
    expect(problems.map((each) => each.code)).toEqual(["contract.invalid"]);
  });

  it("for headers that belong to the connection are left out", () => {
    const headers = ["Accept", "content-type", "Authorization", "X-Own"].map((name) => ({
      name,
      in: "header",
      schema: { type: "string" },
    }));
    expect(
      operationOf({ parameters: headers, responses: okay(true) }, {}, "/things").operation.parameters.map(
        (each) => each.name,
      ),
    ).toEqual(["X-Own"]);
  });

  it.each([
    [{ in: "query" }, "form", true],
    [{ in: "query", style: "form", explode: false }, "form", false],
    [{ in: "query", style: "pipeDelimited" }, "pipeDelimited", false],
    [{ in: "query", style: "deepObject" }, "deepObject", true],
    [{ in: "query", style: "nonsense" }, "form", true],
    [{ in: "header" }, "simple", false],
    [{ in: "query", content: { "application/json": { schema: { type: "object" } } } }, "json", false],
  ])("%j is written in style %s", (parameter, style, explode) => {
    const { operation } = operationOf(
      { parameters: [{ name: "p", schema: { type: "string" }, ...parameter }], responses: okay(true) },
      {},
      "/things",
    );
    expect(operation.parameters[0]).toMatchObject({ style, explode });
  });
});

describe("responses and bodies", () => {
  it("statuses, ranges and default; other keys are ignored with a warning", () => {
    const { operation, problems } = operationOf(
      {
        responses: {
          200: { description: "" },
          "4xx": { description: "" },
          default: { description: "" },
          ok: { description: "" },
        },
      },
      {},
      "/a",
    );
    expect(operation.responses.map((each) => each.status)).toEqual(["200", "4XX", "default"]);
    expect(problems).toHaveLength(1);
  });

  it.each([
    ["application/json", "json"],
    ["application/vnd.harbour+json; charset=utf-8", "json"],
    ["*/*", "json"],
    ["text/plain", "text"],
    ["application/xml", "text"],
    ["application/x-www-form-urlencoded", "urlencoded"],
    ["multipart/form-data", "multipart"],
    ["application/pdf", "bytes"],
  ])("%s is read as %s", (mediaType, form) => {
    const { operation } = operationOf(
      { responses: { 200: { description: "", content: { [mediaType]: { schema: { type: "string" } } } } } },
      {},
      "/a",
    );
    expect(operation.responses[0]?.contents[0]?.form).toBe(form);
  });

  it("a request body behind a reference", () => {
    const data = contractWith(
      {},
      { "/a": { post: { requestBody: { $ref: "#/components/requestBodies/B" }, responses: okay(true) } } },
    );
    (data["components"] as Record<string, unknown>)["requestBodies"] = {
      B: { required: true, content: { "application/json": { schema: { type: "integer" } } } },
    };
    expect(readRest(data).contract.operations[0]?.body).toMatchObject({
      required: true,
      contents: [{ type: { shape: { kind: "integer" } } }],
    });
  });
});

describe("authentication and servers", () => {
  it("reads schemes, alternatives and operations without authentication", () => {
    const data = contractWith(
      {},
      { "/a": { get: { responses: okay(true) } }, "/b": { get: { security: [], responses: okay(true) } } },
    );
    Object.assign(data, {
      security: [{ key: [] }, { token: [], login: [] }],
      servers: [{ url: "https://{where}.example.test", variables: { where: { default: "north" } } }, "junk"],
    });
    (data["components"] as Record<string, unknown>)["securitySchemes"] = {
      key: { type: "apiKey", in: "query", name: "k" },
      token: { type: "oauth2", flows: {} },
      login: { type: "http", scheme: "Basic" },
      odd: { type: "carrier-pigeon" },
    };
    const { contract, problems } = readRest(data);
    expect(contract.operations.map((each) => each.auth)).toEqual([[["key"], ["token", "login"]], []]);
    expect([...contract.authSchemes].map(([name, { kind }]) => [name, kind])).toEqual([
      ["key", "key"],
      ["token", "bearer"],
      ["login", "basic"],
    ]);
    expect(problems.map((each) => each.message)).toEqual([
      "The auth scheme `odd` is not a valid scheme. Calls do not use it.",
      'An item must be an object, but is the string "junk".',
    ]);
    expect(contract.servers).toEqual([
      { url: "https://{where}.example.test", variables: new Map([["where", { default: "north" }]]) },
    ]);
  });

  it("groups by the first tag, or by the first fixed part of the path", () => {
    const { contract } = readRest(
      contractWith(
        {},
        {
          "/a/{x}": { get: { tags: ["Tagged"], responses: {} } },
          "/{x}/b": { get: { responses: {} } },
          "/{x}": { get: { responses: {} } },
        },
      ),
    );
    expect(contract.operations.map((each) => [each.path, each.group])).toEqual([
      ["/a/{x}", "Tagged"],
      ["/{x}", "root"],
      ["/{x}/b", "b"],
    ]);
  });
});
