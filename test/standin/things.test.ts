import { readFileSync } from "node:fs";
import { join } from "node:path";
import { load } from "js-yaml";
import { describe, expect, it } from "vitest";
import { readContract } from "../../src/core/readContract.js";
import { createStandin, type Standin, type StandinOptions } from "../../src/standin/standin.js";
import type { PlayedContract } from "../../src/standin/playedContract.js";
import { packageRoot } from "../support/packageRoot.js";
import { contractWith, okay } from "../support/smallContract.js";

const demoText = (version: string, file: string) =>
  readFileSync(join(packageRoot, "demo/contracts", version, file), "utf8");

function played(name: string, text: string, document: string): PlayedContract {
  const { contract, schema, problems } = readContract(name, [{ document, text }]);
  if (!contract) throw new Error(problems[0]?.message);
  return { contract, schema, raw: document.endsWith(".graphql") ? undefined : load(text) };
}
const berths = (version = "v1") => played("berths", demoText(version, "berths.yaml"), "berths.yaml");
const passages = () => played("passages", demoText("v1", "passages.graphql"), "passages.graphql");
const standin = (contracts: PlayedContract[], options: Partial<StandinOptions> = {}): Standin =>
  createStandin(contracts, { seed: 1, eventEveryMs: 5, ...options });

type Body = Readonly<Record<string, unknown>>;
async function call(app: Standin, method: string, path: string, body?: unknown, headers: Record<string, string> = {}) {
  const response = await app.request(path, {
    method,
    headers: { ...(body === undefined ? {} : { "content-type": "application/json" }), ...headers },
    ...(body === undefined ? {} : { body: JSON.stringify(body) }),
  });
  const text = await response.text();
  return {
    status: response.status,
    headers: response.headers,
    body: (/^[[{]/.test(text) ? JSON.parse(text) : text) as Body & { items: Body[] },
  };
}
const vessel = { kind: "sail", id: "v-900", name: "Grey Gull", length: 9.5, mastHeight: 12 };

describe("objects of a REST contract", () => {
  it("that were created are listed, fetched, changed and deleted", async () => {
    const app = standin([berths()]);
    const berth = { id: "Z-01", quay: "west", length: 12, draught: 3, status: "free" };
    const { body: template } = await call(app, "GET", "/berths/berths/Z-00");
    const { note: _note, ...more } = template;
    const made = await call(app, "POST", "/berths/berths", { ...more, ...berth });
    expect([made.status, made.body]).toMatchObject([201, berth]);
    const listed = async () => (await call(app, "GET", "/berths/berths?pageSize=100")).body.items.map(({ id }) => id);
    expect(await listed()).toContain("Z-01");
    expect((await call(app, "GET", "/berths/berths/Z-01")).body).toMatchObject(berth);
    const merging = { "content-type": "application/merge-patch+json" };
    const changed = await call(app, "PATCH", "/berths/berths/Z-01", { status: "closed", note: null }, merging);
    expect([changed.status, changed.body["status"]]).toEqual([200, "closed"]);
    expect((await call(app, "GET", "/berths/berths/Z-01")).body).toEqual({ ...made.body, status: "closed" });
    expect((await call(app, "DELETE", "/berths/berths/Z-01")).status).toBe(204);
    expect((await call(app, "GET", "/berths/berths/Z-01")).status).toBe(404);
    expect((await call(app, "DELETE", "/berths/berths/Z-01")).status).toBe(404);
    expect(await listed()).not.toContain("Z-01");
  });

  it("that are listed can be fetched and are the same there", async () => {
    const app = standin([berths()]);
    const { body } = await call(app, "GET", "/berths/berths?pageSize=100");
    expect(body.items.length).toBeGreaterThan(3);
    expect(new Set(body.items.map(({ id }) => id)).size).toBe(body.items.length);
    for (const item of body.items) {
      const { body: fetched } = await call(app, "GET", `/berths/berths/${String(item["id"])}`);
      expect(fetched).toMatchObject({ id: item["id"], quay: item["quay"], status: item["status"] });
    }
  });

  it("are paged to the end, and filtered", async () => {
    const app = standin([berths()]);
    const ids: unknown[] = [];
    let cursor: unknown = "";
    let pages = 0;
    do {
      const query = cursor === "" ? "" : `&cursor=${encodeURIComponent(String(cursor))}`;
      const { body } = await call(app, "GET", `/berths/berths?pageSize=3${query}`);
      expect(body.items.length).toBeLessThanOrEqual(3);
      ids.push(...body.items.map(({ id }) => id));
      cursor = body["nextCursor"];
      pages++;
    } while (typeof cursor === "string");
    expect([pages, ids.length, new Set(ids).size]).toEqual([3, 7, 7]);
    const { body } = await call(app, "GET", "/berths/berths?quay=far-east");
    expect(body.items.length).toBeGreaterThan(0);
    expect(body.items.every(({ quay }) => quay === "far-east")).toBe(true);
  });

  it.each([
    ["offset", [{ name: "offset", in: "query", schema: { type: "integer", default: 0 } }], "offset=4&limit=2"],
    ["number", [{ name: "page", in: "query", schema: { type: "integer", default: 1 } }], "page=3&limit=2"],
  ])("are paged by %s", async (_by, parameters, query) => {
    const list = {
      type: "object",
      required: ["items", "total"],
      properties: {
        items: { type: "array", items: { $ref: "#/components/schemas/Crew" } },
        total: { type: "integer" },
      },
    };
    const contract = contractWith(
      { Crew: { type: "object", required: ["id"], properties: { id: { type: "string" } } } },
      {
        "/crews": {
          get: {
            parameters: [...parameters, { name: "limit", in: "query", schema: { type: "integer" } }],
            responses: okay(list),
          },
        },
      },
    );
    const app = standin([played("api", JSON.stringify(contract), "api.json")]);
    const all = (await call(app, "GET", "/api/crews")).body;
    expect(all["total"]).toBe(7);
    const page = (await call(app, "GET", `/api/crews?${query}`)).body;
    expect(page.items).toEqual(all.items.slice(4, 6));
  });

  it("that are alone at their path keep changes", async () => {
    const settings = { type: "object", required: ["theme"], properties: { theme: { type: "string" } } };
    const ref = { $ref: "#/components/schemas/Settings" };
    const contract = contractWith(
      { Settings: settings },
      {
        "/settings": {
          get: { responses: okay(ref) },
          put: { requestBody: { content: { "application/json": { schema: ref } } }, responses: okay(ref) },
        },
      },
    );
    const app = standin([played("api", JSON.stringify(contract), "api.json")]);
    await call(app, "PUT", "/api/settings", { theme: "night" });
    expect((await call(app, "GET", "/api/settings")).body).toEqual({ theme: "night" });
  });

  it("that are still valid are kept if the contract changes", async () => {
    const app = standin([berths("v1")]);
    await call(app, "POST", "/berths/vessels", vessel);
    app.replace([berths("v2")]);
    expect((await call(app, "GET", "/berths/vessels/v-900")).body).toMatchObject({ name: "Grey Gull" });
    app.forget();
    expect((await call(app, "GET", "/berths/vessels/v-900")).body).not.toMatchObject({ name: "Grey Gull" });
  });
});

describe("overrides and authentication", () => {
  it.each([
    ["status=409", 409, "application/problem+json"],
    ["status=503", 503, "application/problem+json"],
    ["status=422, delay=5", 422, "application/problem+json"],
  ])("a request overrides %s", async (override, status, mediaType) => {
    const app = standin([berths()]);
    const body = { vesselId: "v", arrival: "2026-07-01", departure: "2026-07-02", crew: 2 };
    const found = await call(app, "POST", "/berths/berths/N-07/reservations", body, { "Rhema-Play": override });
    expect([found.status, found.headers.get("content-type")]).toEqual([status, mediaType]);
  });

  it("an invalid override is refused with the valid ones", async () => {
    const found = await call(standin([berths()]), "GET", "/berths/berths", undefined, { "Rhema-Play": "stauts=1" });
    expect([found.status, found.body["detail"]]).toEqual([
      400,
      "`stauts` is not a valid key. Use status, delay, items, example.",
    ]);
  });

  it("configured overrides apply to their operation, and a header has priority", async () => {
    const overrides = [{ operation: "listBerths", override: { status: 401, items: 2 } }];
    const app = standin([berths()], { overrides });
    expect((await call(app, "GET", "/berths/berths")).status).toBe(401);
    expect((await call(app, "GET", "/berths/vessels")).status).toBe(200);
    const own = await call(app, "GET", "/berths/berths", undefined, { "Rhema-Play": "status=200" });
    expect([own.status, own.body.items.length]).toEqual([200, 2]);
  });

  it("credentials are required as the contract says, and any value is accepted", async () => {
    const app = standin([berths()], { asksAuth: true });
    expect((await call(app, "GET", "/berths/berths")).status).toBe(401);
    const authorization = { authorization: "Bearer whatever" };
    expect((await call(app, "GET", "/berths/berths", undefined, authorization)).status).toBe(200);
  });
});

describe("entities of a GraphQL schema", () => {
  const ask = async (app: Standin, query: string, variables: object = {}) => {
    const { body } = await call(app, "POST", "/passages", { query, variables });
    return body as { data?: Record<string, never>; errors?: unknown };
  };
  interface Voyage {
    id: string;
    status: string;
    vessel: { id: string; name: string };
    cargo: unknown[];
  }

  it("mutations create and change what queries then return, relations included", async () => {
    const app = standin([passages()]);
    const { data: first } = await ask(app, "{ vessels { id name } ports { id } }");
    const { vessels, ports } = first as unknown as { vessels: { id: string; name: string }[]; ports: { id: string }[] };
    const [boat, port] = [vessels[0], ports[0]];
    const plan = { vesselId: boat?.id, from: port?.id, to: port?.id, departsAt: "2026-06-01T08:00:00Z" };
    const { data, errors } = await ask(
      app,
      "mutation P($plan: VoyagePlan!) { planVoyage(plan: $plan) { id status from { id } vessel { id name } } }",
      { plan },
    );
    expect(errors).toBeUndefined();
    const made = (data as unknown as { planVoyage: Voyage }).planVoyage;
    expect(made).toMatchObject({ status: "PLANNED", vessel: boat, from: port });
    const all = async () =>
      (
        (await ask(app, "{ voyages(first: 100) { edges { node { id } } } }")).data as unknown as {
          voyages: { edges: { node: { id: string } }[] };
        }
      ).voyages.edges.map(({ node }) => node.id);
    expect(await all()).toContain(made.id);
    await ask(app, "mutation C($id: ID!) { cancelVoyage(id: $id) { id } }", { id: made.id });
    const { data: then } = await ask(app, "query V($id: ID!) { voyage(id: $id) { status vessel { id } } }", {
      id: made.id,
    });
    expect(then).toEqual({ voyage: { status: "CANCELLED", vessel: { id: boat?.id } } });
  });

  it("connections page to the end, and filters work", async () => {
    const app = standin([passages()]);
    const ids: string[] = [];
    let after: string | null = null;
    do {
      const { data } = await ask(
        app,
        "query V($after: String) { voyages(first: 3, after: $after) { edges { node { id } } pageInfo { hasNextPage endCursor } } }",
        { after },
      );
      const { voyages } = data as unknown as {
        voyages: { edges: { node: { id: string } }[]; pageInfo: { hasNextPage: boolean; endCursor: string } };
      };
      ids.push(...voyages.edges.map(({ node }) => node.id));
      after = voyages.pageInfo.hasNextPage ? voyages.pageInfo.endCursor : null;
    } while (after !== null);
    expect([ids.length, new Set(ids).size]).toEqual([8, 8]);
    const { data } = await ask(app, "{ voyages(filter: { status: [ARRIVED] }) { edges { node { status } } } }");
    const { voyages } = data as unknown as { voyages: { edges: { node: { status: string } }[] } };
    expect(voyages.edges.length).toBeGreaterThan(0);
    expect(voyages.edges.every(({ node }) => node.status === "ARRIVED")).toBe(true);
  });

  it("deleted objects are removed, and a boolean response is possible", async () => {
    const text = `type Query { crews: [Crew!]! crew(id: ID!): Crew }
      type Crew { id: ID! name: String! }
      type Mutation { addCrew(name: String!): Added! removeCrew(id: ID!): Boolean! renameCrew(crewId: ID!, name: String!): Crew }
      type Added { crew: Crew ok: Boolean! errors: [String!]! }`;
    const app = standin([played("passages", text, "s.graphql")]);
    const { data } = await ask(app, 'mutation { addCrew(name: "Oda") { ok errors crew { id name } } }');
    const { addCrew } = data as unknown as { addCrew: { crew: { id: string; name: string } } };
    expect(addCrew).toMatchObject({ ok: true, errors: [], crew: { name: "Oda" } });
    const { id } = addCrew.crew;
    await ask(app, `mutation { renameCrew(crewId: "${id}", name: "Oda B") { id } }`);
    expect((await ask(app, `{ crew(id: "${id}") { name } }`)).data).toEqual({ crew: { name: "Oda B" } });
    expect((await ask(app, `mutation { removeCrew(id: "${id}") }`)).data).toEqual({ removeCrew: true });
    expect((await ask(app, `{ crew(id: "${id}") { name } }`)).data).toEqual({ crew: null });
  });

  it("overrides work for root fields", async () => {
    const app = standin([passages()], { overrides: [{ operation: "ports", override: { items: 0 } }] });
    expect((await ask(app, "{ ports { id } }")).data).toEqual({ ports: [] });
  });
});

describe("the page", () => {
  it("has a valid sample for every operation", async () => {
    const app = standin([berths(), passages()], { asksAuth: true });
    const { body } = await call(app, "GET", "/.play/state");
    const { contracts } = body as unknown as {
      contracts: {
        name: string;
        operations: {
          operation: string;
          method: string;
          path: string;
          mediaType: string;
          body: string;
          headers: Record<string, string>;
        }[];
      }[];
    };
    const refused: unknown[] = [];
    let count = 0;
    for (const sample of contracts.flatMap(({ operations }) => operations)) {
      if (sample.operation.startsWith("subscription") || sample.operation.includes("photo")) continue;
      const sent = sample.body === "" ? undefined : (JSON.parse(sample.body) as unknown);
      const found = await call(app, sample.method, sample.path, sent, {
        ...sample.headers,
        ...(sent === undefined ? {} : { "content-type": sample.mediaType }),
      });
      count++;
      if (found.status >= 400) refused.push([sample.operation, found.status, found.body]);
    }
    expect(refused).toEqual([]);
    expect(count).toBeGreaterThan(20);
  });

  it("shows requests without their credentials, only to its own page", async () => {
    const app = standin([berths()]);
    await call(app, "GET", "/berths/berths?api_key=planted-1&nope=1", undefined, { authorization: "Bearer planted-2" });
    const state = await app.request("/.play/state", { headers: { host: "localhost:4020" } });
    const text = await state.text();
    expect(text).toContain("(hidden)");
    expect(text).not.toMatch(/planted-\d/);
    const entry = (JSON.parse(text) as { calls: { misfits: string[] }[] }).calls[0];
    expect(entry?.misfits.join()).toContain("nope is not a parameter of this operation");
    for (const headers of [
      { origin: "https://elsewhere.test" },
      { host: "elsewhere.test" },
      { "sec-fetch-site": "cross-site" },
    ])
      expect((await app.request("/.play/state", { headers })).status).toBe(403);
  });

  it("is one document without injected content", async () => {
    const response = await standin([berths()]).request("/", { headers: { accept: "text/html" } });
    expect(response.headers.get("content-security-policy")).toContain("default-src 'none'");
    expect(await response.text()).not.toMatch(/innerHTML|https?:\/\//);
  });
});
