import { readFileSync } from "node:fs";
import { createServer, type AddressInfo } from "node:net";
import { join } from "node:path";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { bytesBody, jsonBody, textBody, type Body } from "../../runtimes/typescript/wire/bodies.js";
import { connection } from "../../runtimes/typescript/wire/connection.js";
import { multipart, urlencoded, type FieldOptions } from "../../runtimes/typescript/wire/forms.js";
import { form, header, segment } from "../../runtimes/typescript/wire/parameters.js";
import {
  deepObject,
  jsonQuery,
  jsonText,
  label,
  matrix,
  piped,
  reserved,
  spaced,
  tabbed,
} from "../../runtimes/typescript/wire/rarerParameters.js";
import { send, type RestRequest } from "../../runtimes/typescript/wire/send.js";
import { itemsBody } from "../../runtimes/typescript/wire/streams.js";
import { packageRoot } from "../support/packageRoot.js";

interface Row {
  readonly writer: string;
  readonly name?: string;
  readonly value: unknown;
  readonly explode?: boolean;
  readonly text: string;
}

const { rows } = JSON.parse(readFileSync(join(packageRoot, "vectors/parameters.json"), "utf8")) as { rows: Row[] };
const writers: Record<string, (row: Row) => string | undefined> = {
  form: ({ name = "", value, explode }) => form(name, value, explode),
  segment: ({ value, explode }) => segment(value, "v", explode),
  header: ({ value, explode }) => header(value, explode),
  spaced: ({ name = "", value }) => spaced(name, value),
  piped: ({ name = "", value }) => piped(name, value),
  tabbed: ({ name = "", value }) => tabbed(name, value),
  reserved: ({ name = "", value, explode }) => reserved(name, value, explode),
  jsonText: ({ value }) => jsonText(value),
  deepObject: ({ name = "", value }) => deepObject(name, value),
  jsonQuery: ({ name = "", value }) => jsonQuery(name, value),
  label: ({ value, explode }) => label(value, explode),
  matrix: ({ name = "", value, explode }) => matrix(name, value, explode),
};

/** What a server received, byte by byte. */
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

/** Sends a request and gives the bytes that arrived. */
async function arrived(more: Partial<RestRequest<undefined>>): Promise<Received> {
  const request = { call: "v.row", method: "POST", path: "/v", answers: { 204: "none" }, ...more } as const;
  await send(connection("v", address, {}), request);
  if (!received) throw new Error("Nothing arrived.");
  return received;
}

describe("the vectors of parameter styles", () => {
  it.each(rows)("$writer $name $value $explode", async (row) => {
    const text = writers[row.writer]?.(row) ?? "";
    expect(text).toBe(row.text);
    if (["segment", "label", "matrix"].includes(row.writer)) {
      expect((await arrived({ path: `/v/${text}` })).target).toBe(`/v/${row.text}`);
    } else if (row.writer === "header") {
      expect((await arrived({ headers: { "x-row": text } })).headers.get("x-row")).toBe(row.text);
    } else expect((await arrived({ query: [text] })).target).toBe(row.text === "" ? "/v" : `/v?${row.text}`);
  });

  it.each([".", "..", [".."]])("a path argument %j is refused, because it would lead elsewhere", async (value) => {
    await expect(arrived({ path: `/v/${segment(value, "berthId")}/x` })).rejects.toThrow("would lead to another path");
    await expect(arrived({ path: `/v/${segment(value, "berthId")}` })).rejects.toThrow("would lead to another path");
  });

  it.each(["", [], {}, "\ud800", ["\udc00"]])("a path argument %j is refused by its name", async (value) => {
    await expect(arrived({ path: `/v/${segment(value, "berthId")}` })).rejects.toMatchObject({
      status: "unreachable",
      message: expect.stringContaining("the argument `berthId` is empty or holds half a character") as string,
    });
  });

  it.each([
    form("q", "\ud800"),
    form("q", { a: 10n ** 20n, deep: { big: 1n } }),
    spaced("q", ["\ud800"]),
    deepObject("q", { a: "\ud800" }),
    jsonQuery("q", { big: 1n }),
    reserved("q", "\udfff"),
  ])("what no query can carry is refused: %j", async (pair) => {
    await expect(arrived({ query: [pair] })).rejects.toMatchObject({ status: "unreachable" });
  });

  it("absent values write nothing", () => {
    expect([form("a", undefined), deepObject("a", undefined), jsonQuery("a", undefined), header(undefined)]).toEqual([
      "",
      "",
      "",
      undefined,
    ]);
    expect(form("a", { x: undefined, y: 1 })).toBe("y=1");
  });
});

interface BodyRow {
  readonly writer: string;
  readonly value: unknown;
  readonly options?: Readonly<Record<string, FieldOptions>>;
  readonly type?: string;
  readonly body: string;
}

const bodies = (JSON.parse(readFileSync(join(packageRoot, "vectors/bodies.json"), "utf8")) as { rows: BodyRow[] }).rows;

/** Files stand in rows as their text, type and name. */
function withFiles(value: unknown): unknown {
  if (typeof value !== "object" || value === null || Array.isArray(value)) return value;
  const { file, stream, type, name } = value as Record<string, string>;
  if (stream !== undefined) return new Blob([stream]).stream();
  if (file !== undefined) return new File([file], name ?? "", { type: type ?? "" });
  return Object.fromEntries(Object.entries(value).map(([key, each]) => [key, withFiles(each)]));
}

function bodyOf({ writer, value, options, type = "" }: BodyRow): Body | undefined {
  const given = withFiles(value);
  switch (writer) {
    case "urlencoded":
      return urlencoded(given, options);
    case "multipart":
      return multipart(given, options);
    case "json":
      return jsonBody(given, type);
    case "text":
      return textBody(given as string, type);
    case "bytes":
      return bytesBody(given as Blob, type);
    case "stream":
      return bytesBody((given as Blob).stream(), type);
    default:
      return itemsBody(given as unknown[], writer as "lines", type);
  }
}

describe("the vectors of bodies, as bytes on the wire", () => {
  it.each(bodies)("$writer $value $options", async (row) => {
    const { headers, body } = await arrived({ body: bodyOf(row) });
    const sent = headers.get("content-type") ?? "";
    const boundary = /^multipart\/form-data; boundary=(.+)$/.exec(sent)?.[1];
    expect(boundary === undefined ? body : body.replaceAll(boundary, "BOUNDARY")).toBe(row.body);
    if (row.writer === "urlencoded") expect(sent).toBe("application/x-www-form-urlencoded");
    else if (row.writer !== "multipart") expect(sent).toBe(row.type);
  });
});
