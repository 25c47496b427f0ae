import { createServer, type AddressInfo } from "node:net";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { bytesBody } from "../../runtimes/typescript/wire/bodies.js";
import { connection } from "../../runtimes/typescript/wire/connection.js";
import { multipart } from "../../runtimes/typescript/wire/forms.js";
import { form, header, segment } from "../../runtimes/typescript/wire/parameters.js";
import { deepObject, jsonQuery, reserved, spaced, tabbed } from "../../runtimes/typescript/wire/rarerParameters.js";
import { send, type RestRequest } from "../../runtimes/typescript/wire/send.js";

/** The request that a server received, byte by byte. */
interface Received {
  readonly target: string;
  readonly headers: ReadonlyMap<string, string>;
  readonly body: string;
}

let received: Received | undefined;
let address = "";
const server = createServer((socket) => {
  let bytes = Buffer.alloc(0);
  socket.on("data", (chunk) => {
    bytes = Buffer.concat([bytes, chunk]);
    const end = bytes.indexOf("\r\n\r\n");
    if (end < 0) return;
    const [line = "", ...fields] = bytes.subarray(0, end).toString("latin1").split("\r\n");
    const headers = new Map(
      fields.map((field) => [
        field.slice(0, field.indexOf(":")).toLowerCase(),
        field.slice(field.indexOf(":") + 1).trim(),
      ]),
    );
    const rest = bytes.subarray(end + 4);
    const isChunked = headers.get("transfer-encoding") === "chunked";
    if (
      isChunked
        ? !rest.includes("\r\n0\r\n\r\n") && !rest.subarray(0, 5).equals(Buffer.from("0\r\n\r\n"))
        : rest.length < Number(headers.get("content-length") ?? 0)
    )
      return;
    received = { target: line.split(" ")[1] ?? "", headers, body: isChunked ? unchunked(rest) : rest.toString("utf8") };
    socket.end("HTTP/1.1 204 No Content\r\nconnection: close\r\n\r\n");
  });
});

function unchunked(bytes: Buffer): string {
  let text = "";
  for (let at = 0; at < bytes.length;) {
    const line = bytes.indexOf("\r\n", at);
    const size = Number.parseInt(bytes.subarray(at, line).toString(), 16);
    if (size === 0) break;
    text += bytes.subarray(line + 2, line + 2 + size).toString("utf8");
    at = line + 4 + size;
  }
  return text;
}

beforeAll(async () => {
  await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
  address = `http://127.0.0.1:${String((server.address() as AddressInfo).port)}`;
});
afterAll(() => void server.close());

/** Sends a request and returns the bytes that arrived. */
async function arrived(more: Partial<RestRequest<undefined>>): Promise<Received> {
  const request = { call: "v.row", method: "POST", path: "/v", answers: { 204: "none" }, ...more } as const;
  await send(connection("v", address, {}), request);
  if (!received) throw new Error("Nothing arrived.");
  return received;
}

describe("parameters", () => {
  it.each([".", "..", [".."]])("a path argument %j is refused, because it would change the path", async (value) => {
    await expect(arrived({ path: `/v/${segment(value, "berthId")}/x` })).rejects.toThrow("would change the path");
    await expect(arrived({ path: `/v/${segment(value, "berthId")}` })).rejects.toThrow("would change the path");
  });

  it.each(["", [], {}, "\ud800", ["\udc00"]])("a path argument %j is refused with its name", async (value) => {
    await expect(arrived({ path: `/v/${segment(value, "berthId")}` })).rejects.toMatchObject({
      status: "unreachable",
      message: expect.stringContaining("the argument `berthId` is empty or contains half a character") as string,
    });
  });

  it.each([
    form("q", "\ud800"),
    form("q", { a: 10n ** 20n, deep: { big: 1n } }),
    spaced("q", ["\ud800"]),
    deepObject("q", { a: "\ud800" }),
    jsonQuery("q", { big: 1n }),
    reserved("q", "\udfff"),
  ])("values that a query cannot express are refused: %j", async (pair) => {
    await expect(arrived({ query: [pair] })).rejects.toMatchObject({ status: "unreachable" });
  });

  it("values may be separated by tabs (OpenAPI 2.0, tsv)", async () => {
    expect((await arrived({ query: [tabbed("a", ["x", "y"])] })).target).toBe("/v?a=x%09y");
  });

  it("absent values are not sent", () => {
    expect([form("a", undefined), deepObject("a", undefined), jsonQuery("a", undefined), header(undefined)]).toEqual([
      "",
      "",
      "",
      undefined,
    ]);
    expect(form("a", { x: undefined, y: 1 })).toBe("y=1");
  });
});

describe("a body that is a stream", () => {
  const stream = (): ReadableStream<Uint8Array> => new Blob(["in pieces"]).stream();
  const part = (head: string, text: string): string =>
    `--BOUNDARY\r\nContent-Disposition: form-data; ${head}\r\n\r\n${text}\r\n`;

  it("is sent as it comes", async () => {
    const { headers, body } = await arrived({ body: bytesBody(stream(), "image/png") });
    expect([headers.get("content-type"), body]).toEqual(["image/png", "in pieces"]);
  });

  it.each([
    [
      "with its type",
      { photo: { type: "image/png" } },
      part('name="photo"; filename="blob"\r\nContent-Type: image/png', "in pieces"),
    ],
    [
      "without a type",
      {},
      part('name="photo"; filename="blob"\r\nContent-Type: application/octet-stream', "in pieces"),
    ],
  ])("may be a part of multipart, %s", async (_how, options, expected) => {
    const { headers, body } = await arrived({ body: multipart({ photo: stream(), note: "n" }, options) });
    const boundary = /^multipart\/form-data; boundary=(.+)$/.exec(headers.get("content-type") ?? "")?.[1] ?? "";
    expect(body.replaceAll(boundary, "BOUNDARY")).toBe(`${expected}${part('name="note"', "n")}--BOUNDARY--\r\n`);
  });
});
