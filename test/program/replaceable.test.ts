import { describe, expect, it } from "vitest";
import { demoProject, type TemporaryProject } from "../support/temporaryProject.js";

/** Hand-written code of an app, each with the report in a comment after it. */
const planted = `
interface Berth { id: string; quay: string; length: number; status: string; occupant: Owner | null } // type Berth -> Berth
interface Owner { id: string; name: string }
type Page = { items: Berth[]; nextCursor: string | null; total: number }; // type Page -> BerthPage
declare const base: string;
declare const http: { get<T>(url: string): Promise<{ data: T }>; post(url: string, body: unknown): Promise<unknown> };

export async function berths(): Promise<Page> {
  const response = await fetch(\`\${base}/berths?status=free\`); // GET /berths -> listBerths
  return response.json();
}
export const one = async (id: string) =>
  (await (await fetch("http://localhost:4020/berths/berths/" + id)).json()) as Berth; // GET /berths/{berthId} -> getBerth
interface Ship { kind: string; id: string; name: string } // type Ship -> Vessel
const path = "/vessels";
export const ships = () => http.get<Ship[]>(path + "/v-12"); // GET /vessels/{vesselId} -> getVessel
export const reserve = (id: string) => http.post(\`/berths/\${id}/reservations\`, {}); // POST /berths/{berthId}/reservations -> reserveBerth
export const change = (id: string) => window.fetch(\`/berths/\${id}\`, { method: "PATCH", body: "{}" }); // PATCH /berths/{berthId} -> changeBerth
interface Tide { at: string; kind: "high" | "low"; level: number } // type Tide -> Tide
interface Table { day: string; tides: Tide[]; station: string } // type Table -> TideTable
export const tides = (day: string) =>
  fetch("/tides/" + day) // GET /tides/{day} -> tideTable
    .then((response) => response.json())
    .then((table: Table) => table.tides);
interface Tariff { upToLength: number; nightly: { amount: string }; season: string } // type Tariff -> Tariff
export async function tariffs() {
  const text = await (await fetch("/tariffs")).text(); // GET /tariffs -> listTariffs
  return (JSON.parse(text) as Tariff[])[0];
}
const send = (query: string) => fetch("/passages", { method: "POST", body: JSON.stringify({ query }) });
export const fleet = send(\`query Fleet { vessels { id name } }\`); // query Fleet -> fleet
declare const axios: (options: { url: string; method: string }) => Promise<unknown>;
export const drop = (id: string) => axios({ url: \`/berths/\${id}\`, method: "delete" }); // DELETE /berths/{berthId} -> removeBerth
declare function apiFetch(path: string): Promise<unknown>;
export const notices = apiFetch("/notices"); // GET /notices -> currentNotices
export const ports = send("query AllPorts { ports { id name } }"); // query AllPorts -> 
`;

/** Code that looks like it, and is not. */
const alike = `
declare const app: { get(path: string, handler: () => void): void };
app.get("/berths", () => undefined);
interface Weather { id: string; quay: string; length: number; status: string }
export const weather = async () => (await (await fetch("https://weather.example/berths")).json()) as Weather;
interface Stored { id: string; quay: string; length: number; status: "free"; shorePower: boolean }
export const stored = JSON.parse(localStorage.getItem("berth") ?? "{}") as Stored;
interface Props { id: string; quay: string; length: number }
export const show = (props: Props) => props.id;
interface Price { id: string; quay: string; price: number }
export const price = async () => { const r = await fetch("/berths/N-07/price"); const p: Price = await r.json(); return p; };
interface Loose { id: any; quay: unknown; length: number }
export const loose = async (r: Response): Promise<Loose> => r.json();
interface Few { id: string; quay: string; length: number }
export const few = async (r: Response): Promise<Few> => r.json();
export const text = "query the harbour master";
export const other = \`query Other { boats { id } }\`;
export const link = "/berths/7";
export const gone = fetch("/berths", { method: "DELETE" });
export const either = (method: string) => fetch("/berths", { method });
declare function prefetch(path: string): void;
prefetch("/berths");
declare const router: { push(path: string): Promise<void> };
export const gone2 = router.push("/berths");
const cache = new Map<string, Props>();
export const got = cache.get("/berths");
`;

interface Told {
  readonly replaceable: readonly { readonly place: string; readonly what: string; readonly instead: string }[];
}

async function told(project: TemporaryProject, ...args: string[]): Promise<string[]> {
  const { code, out } = await project.run(["--json", "outline", "--replaceable", ...args]);
  expect(code).toBe(0);
  return (JSON.parse(out) as Told).replaceable.map(
    ({ place, what, instead }) => `${place.replace(/:\d+$/, "")} ${what} -> ${instead}`,
  );
}

function project(): TemporaryProject {
  const made = demoProject();
  made.remove("src");
  made.write("src/planted.ts", planted);
  made.write("src/alike.ts", alike);
  return made;
}

describe("hand-written code", () => {
  it("is reported if an SDK has the same, and code that only looks similar is not", async () => {
    const made = project();
    await made.run(["generate"]);
    const wanted = planted.split("\n").flatMap((line, at) => {
      const [, what] = / \/\/ ((?:type|query|[A-Z]+) .* -> \w*)$/.exec(line) ?? [];
      return what === undefined ? [] : [`src/planted.ts:${String(at + 1)} ${what}`];
    });
    expect(wanted.length).toBe(17);
    expect((await told(made)).sort()).toEqual(wanted.sort());
    expect((await told(made, "passages")).every((line) => line.includes(" query "))).toBe(true);
  });

  it("is found however long a URL is, and however a type contains itself", async () => {
    const made = project();
    made.remove("src/planted.ts");
    await made.run(["generate"]);
    made.write(
      "src/ugly.ts",
      `export const long = fetch(${Array.from({ length: 5000 }, () => '"/a"').join(" + ")});
const one: string = other; const other: string = one;
export const circle = fetch(one);
export const text = JSON.parse(one) as { id: string; quay: string; length: number };
interface Grown<T> { id: string; quay: T; length: number; next: Grown<T[]> }
export const grown = async () => (await (await fetch("/berths/1")).json()) as Grown<string>;
type Tree<T> = { id: string; status: T; inner: { deeper: Tree<T[]> } };
export const tree = async (): Promise<Tree<string>> => (await fetch("/berths/2")).json();
`,
    );
    expect(await told(made)).toEqual([
      "src/ugly.ts:6 GET /berths/{berthId} -> getBerth",
      "src/ugly.ts:8 GET /berths/{berthId} -> getBerth",
    ]);
    expect(await made.run(["outline", "--replaceable", "--find", "x"])).toMatchObject({ code: 2, out: "" });
  });

  it("is listed file by file, with its replacement", async () => {
    const made = project();
    await made.run(["generate"]);
    const { out } = await made.run(["outline", "--replaceable"]);
    expect(out).toContain("    9:26  GET /berths\n      -> call `listBerths` of src/sdk/berths\n");
    expect(out).toContain("    2:11  type Berth\n      -> the type `Berth` of src/sdk/berths\n");
    expect(out).toContain("-> move it to a file of `queries` of passages");
    made.remove("src/planted.ts");
    expect((await made.run(["outline", "--replaceable"])).out).toBe(
      "replaceable: there is nothing that an SDK of this project can replace\n",
    );
  });

  it("is found in scripts of components too, and before an SDK is written except for types", async () => {
    const made = project();
    made.remove("src/planted.ts");
    made.write(
      "src/Board.vue",
      '<script setup lang="ts">\nconst board = await fetch("/berths");\n</script>\n<template><p>{{ board.status }}</p></template>\n',
    );
    expect(await told(made)).toEqual(["src/Board.vue:2 GET /berths -> listBerths"]);
    expect((await made.run(["outline", "--replaceable"])).err).toContain("quay-board has not been generated yet");
  });
});
