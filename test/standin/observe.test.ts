import { buildSchema } from "graphql";
import { describe, expect, it } from "vitest";
import type { SeenExchange } from "../../src/standin/observe/exchange.js";
import { harExchanges } from "../../src/standin/observe/harExchanges.js";
import { graphqlJudge } from "../../src/standin/observe/judgeGraphql.js";
import { Observations } from "../../src/standin/observe/observations.js";
import { readRest } from "../support/readRest.js";
import { contractWith } from "../support/smallContract.js";

const berth = {
  type: "object",
  required: ["id", "length"],
  properties: { id: { type: "string" }, length: { type: "number" } },
};
const document = {
  ...contractWith(
    { Berth: berth },
    {
      "/berths/{berthId}": {
        get: {
          operationId: "getBerth",
          parameters: [
            { name: "berthId", in: "path", required: true, schema: { type: "string", maxLength: 4 } },
            { name: "depth", in: "query", schema: { type: "integer" } },
          ],
          responses: {
            200: {
              description: "",
              headers: { "Rate-Left": { required: true, schema: { type: "integer" } } },
              content: { "application/json": { schema: { $ref: "#/components/schemas/Berth" } } },
            },
            404: { description: "" },
          },
        },
        put: {
          requestBody: {
            required: true,
            content: { "application/json": { schema: { $ref: "#/components/schemas/Berth" } } },
          },
          responses: { 204: { description: "" } },
        },
      },
      "/notices": {
        get: { responses: { 200: { description: "", content: { "text/event-stream": { itemSchema: berth } } } } },
      },
    },
  ),
  servers: [{ url: "https://api.ostrel.example/v1" }],
};
const played = () => {
  const { contract } = readRest(document);
  return [{ contract, raw: document }];
};

const exchange = (
  more: Partial<SeenExchange> & {
    readonly path?: string;
    readonly sent?: unknown;
    readonly got?: unknown;
    readonly type?: string;
  },
): SeenExchange => {
  const { path = "/v1/berths/N-07", sent, got, type = "application/json", ...rest } = more;
  return {
    method: "GET",
    url: new URL(path, "http://127.0.0.1:1"),
    requestHeader: (name) =>
      name.toLowerCase() === "content-type" && sent !== undefined ? "application/json" : undefined,
    requestBody: sent === undefined ? "" : JSON.stringify(sent),
    status: 200,
    answerHeader: (name) =>
      ({ "content-type": got === undefined ? undefined : type, "rate-left": "3" })[name.toLowerCase()],
    answerBody: got === undefined ? "" : typeof got === "string" ? got : JSON.stringify(got),
    ...rest,
  };
};
const fine = { id: "N-07", length: 12 };
const judged = (one: SeenExchange): readonly string[] =>
  new Observations(played(), undefined).add(one)?.disagreements ?? ["(passed over)"];

describe("observed REST traffic", () => {
  it.each<[string, SeenExchange, string[]]>([
    ["what agrees", exchange({ got: fine }), []],
    ["a number where text is promised", exchange({ got: { id: 7, length: 12 } }), ["response 200: /id must be string"]],
    [
      "a field that is missing",
      exchange({ got: { id: "N-07" } }),
      ["response 200: must have required property 'length'"],
    ],
    ["no JSON", exchange({ got: "<html>", type: "application/json" }), ["response 200: is not JSON"]],
    [
      "another media type",
      exchange({ got: "<p>", type: "text/html; charset=utf-8" }),
      ["response 200: is text/html, documented is application/json"],
    ],
    ["an undocumented status", exchange({ status: 418 }), ["response 418: is not documented (200, 404)"]],
    ["a documented failure", exchange({ status: 404 }), []],
    [
      "a header that is missing",
      exchange({ got: fine, answerHeader: (name) => (name === "content-type" ? "application/json" : undefined) }),
      ["response 200: header Rate-Left is missing"],
    ],
    [
      "a parameter that does not fit",
      exchange({ path: "/v1/berths/N-07?depth=deep", got: fine }),
      ["request: query depth must be integer"],
    ],
    [
      "a path value that does not fit",
      exchange({ path: "/v1/berths/N-0700", got: fine }),
      ["request: path berthId must NOT have more than 4 characters"],
    ],
    [
      "an undeclared query parameter",
      exchange({ path: "/v1/berths/N-07?x=1", got: fine }),
      ["request: query x is not a parameter of this operation"],
    ],
    [
      "a body that does not fit",
      exchange({ method: "PUT", status: 204, sent: { id: "N-07" } }),
      ["request: body must have required property 'length'"],
    ],
    [
      "a body where none is documented",
      exchange({ method: "PUT", status: 204, sent: fine, got: { done: true } }),
      ["response 204: has a body, but none is documented"],
    ],
    ["a wrong method", exchange({ method: "DELETE" }), ["request: DELETE /v1/berths/N-07, which accepts GET, PUT"]],
    [
      "an event that does not fit",
      exchange({
        path: "/v1/notices",
        type: "text/event-stream",
        got: 'data: {"id":"a","length":1}\n\ndata: {"id":1,"length":1}\n\ndata: {"id"',
      }),
      ["response 200 item: /id must be string"],
    ],
  ])("reports %s", (_name, one, expected) => {
    expect(judged(one)).toEqual(expected);
  });

  it("counts by operation, keeps the first request without credentials, and lists unseen ones", () => {
    const observations = new Observations(played(), "");
    for (const id of [1, 2])
      observations.add(exchange({ path: "/v1/berths/A?depth=1&token=hush", got: { id, length: 1 } }));
    observations.add(exchange({ got: fine }));
    observations.add(exchange({ path: "/v1/berth/N-07" }));
    const observed = observations.observed();
    expect(observed).toMatchObject({ exchanges: 4, disagreeing: 3, known: 4 });
    expect(observed.operations).toMatchObject([
      {
        operation: "GET /berths/{berthId}",
        seen: 3,
        statuses: { 200: 3 },
        disagreements: [
          {
            message: "request: query token is not a parameter of this operation",
            count: 2,
            first: "GET /v1/berths/A?depth=1&token=%28hidden%29",
          },
          { message: "response 200: /id must be string", count: 2 },
        ],
      },
    ]);
    expect(observed.unknown[0]?.message).toBe(
      "GET /v1/berth/N-07 is not in any contract. The closest is /berths/{berthId}",
    );
    expect(observed.neverSeen.map(({ operation }) => operation)).toContain("GET /notices");
    expect(JSON.stringify(observed)).not.toContain("hush");
  });
});

describe("observed GraphQL traffic", () => {
  const schema = buildSchema(
    "type Query { voyage(id: ID!): Voyage! boats: [Boat!] } type Voyage { id: ID! eta: String! legs: [Int!]! } interface Boat { name: String! } type Sail implements Boat { name: String! mast: Float } type Tug implements Boat { name: String! } enum State { LATE }",
  );
  const judge = graphqlJudge(schema);
  const asked = (query: string, answer: unknown, variables: object = {}) =>
    judge(exchange({ method: "POST", path: "/graphql", sent: { query, variables }, got: answer }))?.disagreements;
  const voyage =
    "query V($id: ID!, $on: Boolean = true) { voyage(id: $id) { id due: eta legs eta @include(if: $on) } }";

  it.each<[string, unknown, string[]]>([
    ["what agrees", { id: "1", due: "x", legs: [1], eta: "x" }, []],
    [
      "a number where text is promised",
      { id: "1", due: 5, legs: [1], eta: "x" },
      ["response 200 /data/voyage/due: must be text, but is a number"],
    ],
    [
      "null where none may be",
      { id: "1", due: null, legs: [1, null], eta: "x" },
      ["response 200 /data/voyage/due: must not be null", "response 200 /data/voyage/legs/*: must not be null"],
    ],
    [
      "a field that is missing",
      { id: "1", legs: [], eta: "x" },
      ["response 200 /data/voyage/due: is selected, but missing"],
    ],
    [
      "a list that is none",
      { id: "1", due: "x", legs: 3, eta: "x" },
      ["response 200 /data/voyage/legs: must be a list, but is a number"],
    ],
  ])("reports %s", (_name, answer, expected) => {
    expect(asked(voyage, { data: { voyage: answer } }, { id: "1" })).toEqual(expected);
  });

  it("reports queries and variables that do not match, without their values", () => {
    expect(asked("{ voyage { id } }", {})?.[0]).toContain('request: Field "voyage" argument "id"');
    const [wrong] = asked(voyage, { data: null, errors: [{ message: "no" }] }, { id: { secret: "hush" } }) ?? [];
    expect(wrong).toContain('request: Variable "$id" got an invalid value');
    expect(wrong).not.toContain("hush");
  });

  it("uses __typename, nulls of errors, and conditional selections", () => {
    const boats = "{ boats { __typename name ... on Sail { mast } } }";
    expect(
      asked(boats, {
        data: {
          boats: [
            { __typename: "Sail", name: "a", mast: "high" },
            { __typename: "Tug", name: "b" },
          ],
        },
      }),
    ).toEqual(["response 200 /data/boats/*/mast: must be a number, but is text"]);
    // An interface has the common fields of its types, also if a response does not contain the type.
    expect(asked("{ boats { name } }", { data: { boats: [{ name: 1 }, {}] } })).toEqual([
      "response 200 /data/boats/*/name: must be text, but is a number",
      "response 200 /data/boats/*/name: is selected, but missing",
    ]);
    expect(asked("{ boats { kind: __typename name } }", { data: { boats: [{ kind: "Sail", name: "a" }] } })).toEqual(
      [],
    );
    expect(asked("{ boats { __typename } }", { data: { boats: [{ __typename: "Voyage" }] } })).toEqual([
      "response 200 /data/boats/*/__typename: must be a type of Boat, but is Voyage",
    ]);
    const failed = {
      data: { voyage: { id: "1", due: null, legs: [] } },
      errors: [{ message: "no", path: ["voyage", "due"] }],
    };
    expect(asked(voyage, failed, { id: "1", on: false })).toEqual([]);
    expect(asked("{ boats { name } }", { boats: [] })).toEqual(["response 200: has neither data nor errors"]);
  });

  it("ignores requests that are not GraphQL, and reports queries known only by id", () => {
    expect(judge(exchange({ method: "POST", sent: { name: "x" } }))).toBeUndefined();
    expect(judge(exchange({ method: "POST", sent: { id: "abc", variables: {} } }))?.unjudged).toEqual([
      "the request has an id that no SDK here knows",
    ]);
  });

  it("checks a query that is known by its id like one that is sent", () => {
    const byId = graphqlJudge(schema, new Map([["sha256:b0", "query Fleet { boats { name } }"]]));
    const found = byId(
      exchange({ method: "POST", sent: { documentId: "sha256:b0" }, got: { data: { boats: [{ name: 1 }] } } }),
    );
    expect(found?.operation).toBe("query Fleet");
    expect(found?.disagreements).toEqual(["response 200 /data/boats/*/name: must be text, but is a number"]);
  });
});

describe("recorded traffic", () => {
  const entry = (request: object, response: object) => ({
    request: { method: "GET", url: "https://api.ostrel.example/v1/berths/N-07", headers: [], ...request },
    response: {
      status: 200,
      headers: [
        { name: "Content-Type", value: "application/json" },
        { name: "rate-left", value: "1" },
      ],
      content: {},
      ...response,
    },
  });

  it("is read with its bodies, also base64, multipart and missing ones", () => {
    const text = JSON.stringify({
      log: {
        entries: [
          entry({}, { content: { text: JSON.stringify(fine) } }),
          entry(
            {},
            {
              content: {
                text: btoa(JSON.stringify({ id: 1, length: 1 })),
                encoding: "base64",
                mimeType: "application/json",
              },
            },
          ),
          entry({}, { content: { size: 50 } }),
          entry({ url: "https://cdn.example/logo.png" }, {}),
          entry({}, { status: 0 }),
          "nonsense",
        ],
      },
    });
    const observations = new Observations(played(), undefined);
    for (const each of harExchanges(text) ?? []) observations.add(each);
    expect(observations.observed()).toMatchObject({
      exchanges: 4,
      passedOver: 1,
      disagreeing: 1,
      unjudged: { "the response body was not recorded": 1 },
    });
    expect(harExchanges('{"log": 1}')).toBeUndefined();
    expect(harExchanges("{")).toBeUndefined();
  });
});
