import { createServer, type Server } from "node:http";
import type { AddressInfo } from "node:net";
import { afterEach, describe, expect, it } from "vitest";
import { runNode } from "../support/runNode.js";
import { demoProject, TemporaryProject } from "../support/temporaryProject.js";

const servers: Server[] = [];
afterEach(() => {
  for (const server of servers.splice(0)) server.close();
});

interface Seen {
  readonly method: string;
  readonly url: string;
  readonly authorization: string | undefined;
  readonly body: string;
}

/** A server that records its requests, and responds the same to all of them. */
async function answering(status: number, body: unknown): Promise<{ address: string; seen: Seen[] }> {
  const seen: Seen[] = [];
  const server = createServer((request, response) => {
    let text = "";
    request.setEncoding("utf8").on("data", (part: string) => (text += part));
    request.on("end", () => {
      const { method = "", url = "", headers } = request;
      seen.push({ method, url, authorization: headers.authorization, body: text });
      response.writeHead(status, { "content-type": "application/json" }).end(JSON.stringify(body));
    });
  });
  servers.push(server);
  await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
  return { address: `http://127.0.0.1:${String((server.address() as AddressInfo).port)}`, seen };
}

const problem = { type: "about:blank", title: "Taken", status: 409, detail: "Taken.", conflictsWith: "R-1" };

describe("try", () => {
  it("performs a call on the stand-in server with the given values, and lists the samples for the rest", async () => {
    const project = demoProject();
    const { code, out, err } = await project.run(["try", "reserveBerth", "berthId=N-07", "body.crew=3"]);
    expect([code, err]).toEqual([0, ""]);
    expect(out).toMatch(/^try: reserveBerth responded 201 in \d+ ms, from the stand-in server\n/);
    expect(out).toContain("  POST /berths/berths/N-07/reservations\n    authorization: (hidden)\n");
    expect(out).toContain('"crew": 3');
    expect(out).toMatch(/sample values used for body\.vesselId, body\.arrival, body\.departure/);
    expect(out).toMatch(/^ {2}berthId: N-07$/m);
    expect(out).toMatch(/^ {2}price:\n {4}amount:/m);
    // The same call has the same response.
    expect(
      (await project.run(["try", "reserveBerth", "berthId=N-07", "body.crew=3"])).out.split("\n").slice(1),
    ).toEqual(out.split("\n").slice(1));
  });

  it("finds calls by operationId, by method and path, by query and by root field", async () => {
    const project = demoProject();
    const call = async (name: string): Promise<unknown> =>
      (JSON.parse((await project.run(["try", name, "--json"])).out) as { operation: unknown }).operation;
    expect(await call("GET /tariffs")).toBe("GET /tariffs");
    expect(await call("listTariffs")).toBe("GET /tariffs");
    expect(await call("Fleet")).toBe("query Fleet");
    expect(await call("fleet")).toBe("query Fleet");
    // No query document selects only this field.
    expect(await call("node")).toBe("query Node");
    const stream = JSON.parse((await project.run(["try", "liveArrivals", "--json"])).out) as { answer: unknown[] };
    expect(stream.answer).toHaveLength(5);
  });

  it("shows a failure with its body, and ends with 1", async () => {
    const project = demoProject();
    const { code, out } = await project.run(["try", "reserveBerth", "--override", "status=409"]);
    expect(code).toBe(1);
    expect(out.split("\n")[0]).toMatch(/^try: reserveBerth failed 409/);
    expect(out).toMatch(/^ {2}status: 409$/m);
  });

  it("reports invalid arguments before anything is sent", async () => {
    const project = demoProject();
    const { address, seen } = await answering(200, {});
    for (const [args, code] of [
      [["listBirths"], "try.unknown"],
      [["listBerths", "pagesize=2"], "try.argument"],
      [["listBerths", "pageSize=two"], "try.argument"],
      [["listBerths", "status=freee"], "try.argument"],
      [["reserveBerth", "body.vesselID=1"], "try.argument"],
      [["reserveBerth", "body.crew.size=1"], "try.argument"],
      [["listBerths", "pageSize"], "try.argument"],
      [["getBerth", "--base-url", address], "try.missing"],
      [["removeBerth", "berthId=N-07", "--base-url", address], "try.unsafe"],
      [["listBerths", "--override", "status=soon"], "play.override"],
      [["listBerths", "--header", "nonsense"], "option.value"],
    ] as const) {
      const ran = await project.run(["try", ...args]);
      expect([args.join(" "), ran.code, ran.err.includes(code)]).toEqual([args.join(" "), 2, true]);
    }
    expect(seen).toEqual([]);
  });

  it("calls a real server with a credential from the environment, which is never shown", async () => {
    const project = demoProject();
    const token = "b1946ac92492d2347c6235b4d2611184";
    const { address, seen } = await answering(409, problem);
    const ran = await project.run(
      [
        "try",
        "reserveBerth",
        "berthId=N/07",
        'body={"vesselId":"v","arrival":"2031-05-01","departure":"2031-05-02"}',
        "--base-url",
        address,
        "--header",
        "authorization: Bearer ${HARBOUR_TOKEN}",
        "--yes",
      ],
      { HARBOUR_TOKEN: token },
    );
    expect(seen).toEqual([
      {
        method: "POST",
        url: "/berths/N%2F07/reservations",
        authorization: `Bearer ${token}`,
        body: '{"vesselId":"v","arrival":"2031-05-01","departure":"2031-05-02"}',
      },
    ]);
    expect(ran.code).toBe(1);
    expect(ran.out).toContain("conflictsWith: R-1");
    expect(ran.out + ran.err).not.toContain(token);
    const unset = await project.run(["try", "listBerths", "--base-url", address, "--header", "a: ${NOT_SET}"]);
    expect([unset.code, unset.err.includes("config.variable")]).toEqual([2, true]);
    const nobody = await project.run(["try", "listBerths", "--base-url", "http://127.0.0.1:9"]);
    expect([nobody.code, nobody.out.split("\n")[0]?.includes("failed (unreachable)")]).toEqual([1, true]);
  });

  it("writes a program that runs, adds only what is missing, and changes no other file", async () => {
    const project = demoProject();
    const manifest = project.read("package.json");
    const first = await project.run(["try", "reserveBerth", "berthId=N-07", "--code", "samples"]);
    expect(first.out).toMatch(/^try: samples\/reserve-berth\.mjs written, \d+ files in all\n/);
    await project.run(["try", "liveArrivals", "--code", "samples"]);
    const address = await project.play();
    const served = { BERTHS_URL: `${address}/berths`, PASSAGES_URL: `${address}/passages` };
    expect(await runNode(project.folder, ["samples/reserve-berth.mjs"], served)).toContain("berthId: 'N-07'");
    project.write("samples/reserve-berth.mjs", "// mine\n");
    const again = await project.run(["try", "reserveBerth", "--code", "samples"]);
    expect(again.out).toContain("nothing was written");
    expect([project.read("samples/reserve-berth.mjs"), project.read("package.json")]).toEqual(["// mine\n", manifest]);
    expect(project.read("samples/live-arrivals.mjs")).toContain("for await (const item of await liveArrivals(");
    expect((await project.run(["try", "getBerth", "--code", "../elsewhere"])).err).toContain("path.outside");
  });

  it("calls the selected operation if several could have the same name", async () => {
    const reading = (operationId: string, schema: object) => ({
      get: { operationId, responses: { "200": { description: "", content: { "application/json": { schema } } } } },
    });
    const project = new TemporaryProject({
      "rhema.yaml":
        "contracts: { port: { from: port.json } }\nsdks: { app: { language: typescript, covers: [port], into: sdk } }\n",
      "port.json": JSON.stringify({
        openapi: "3.1.0",
        info: { title: "Port", version: "1" },
        servers: [{ url: "https://port.example" }],
        paths: {
          "/one": reading("task", { const: "one" }),
          "/two": reading("Task", { const: "two" }),
          "/three": reading("task", { const: "three" }),
        },
      }),
    });
    for (const way of ["one", "two", "three"]) {
      const name = `get${way.charAt(0).toUpperCase()}${way.slice(1)}`;
      const asked = way === "two" ? "Task" : `GET /${way}`;
      const { code, out } = await project.run(["try", asked, "--code", "samples"]);
      expect([code, out.split(",")[0]]).toEqual([0, `try: samples/get-${way}.mjs written`]);
      expect((await project.run(["try", name])).out).toMatch(
        new RegExp(`^try: ${name} responded 200 [^]*\\n  ${way}\\n$`),
      );
    }
  });
});
