import { createServer, type IncomingMessage, type ServerResponse } from "node:http";
import type { AddressInfo } from "node:net";
import { join } from "node:path";
import { WebSocketServer } from "ws";
import { readGraphqlContract } from "../../src/core/graphql/readGraphqlContract.js";
import { readQueryDocuments } from "../../src/core/graphql/documents/readQueryDocuments.js";
import { planGraphql } from "../../src/core/sdk/planGraphql.js";
import type { GraphqlPlan } from "../../src/core/sdk/sdkPlan.js";
import { eventServer, socketServer, subscriptionRows } from "../support/subscriptionServers.js";
import { TemporaryProject } from "../support/temporaryProject.js";

const schema = `
scalar Upload
"How something is found."
input Which @oneOf { number: Int name: String @deprecated file: Upload which: Which those: [Which!] String: String }
type Query { n(text: String!, note: String): Int which(by: Which!): String }
type Mutation { send(first: Upload!, files: [Upload!]!): String put(by: Which!): String }
type Subscription { n: Int }
`;
const queries = `
query Now($text: String!, $note: String) { n(text: $text, note: $note) }
query Look($by: Which!) { which(by: $by) }
mutation Put($by: Which!) { put(by: $by) }
mutation Send($first: Upload!, $files: [Upload!]!) { send(first: $first, files: $files) }
subscription Count { n }
`;

/** The calls of the rows. */
export function countedPlan(): GraphqlPlan {
  const reading = readGraphqlContract("counted", [{ document: "s.graphql", text: schema }]);
  if (!reading.contract || !reading.schema) throw new Error("The schema cannot be read.");
  const { problems, ...read } = readQueryDocuments(reading.schema, [{ document: "q.graphql", text: queries }], {
    fragments: "named",
  });
  if (problems.length > 0) throw new Error(problems.map(({ message }) => message).join("; "));
  return planGraphql(reading.contract, read, { scalars: new Map([["Upload", { format: "binary" }]]) });
}

/** A part of a form: its name, its file's name, and its content. */
const partOfForm = /name="(\w+)"(?:; filename="(.*)")?[^]*?\r\n\r\n([^]*)\r\n/;

/** A server for queries, mutations with files, and a socket that stays silent. */
function answering(request: IncomingMessage, response: ServerResponse): void {
  const pieces: Buffer[] = [];
  request.on("data", (piece: Buffer) => pieces.push(piece));
  request.on("end", () => {
    const body = Buffer.concat(pieces).toString("utf8");
    const say = (value: object, status = 200): void => {
      response.writeHead(status, { "content-type": "application/json" }).end(JSON.stringify(value));
    };
    if (request.headers.authorization !== "Bearer t0ken" || request.headers["x-app"] !== "quay") {
      say({}, 401);
      return;
    }
    const type = request.headers["content-type"] ?? "";
    if (type.startsWith("multipart/")) {
      const boundary = /boundary=(.*)$/.exec(type)?.[1] ?? "";
      const parts = body.split(boundary).flatMap((part): string[] => {
        const [, name, file = "", content = ""] = partOfForm.exec(part) ?? [];
        return name === undefined || name === "operations" ? [] : [`${name},${file},${content}`];
      });
      const isMarked = request.headers["graphql-require-preflight"] === "1";
      const told = `${String(isMarked)} ${parts.join(",")}`;
      say({ data: { send: told, put: told } });
      return;
    }
    const asked =
      request.method === "GET"
        ? {
            variables: JSON.parse(
              new URL(request.url ?? "", "http://x").searchParams.get("variables") ?? "{}",
            ) as object,
          }
        : (JSON.parse(body) as { variables: object });
    const { text, by } = asked.variables as { text: string; by?: object };
    if (by) say({ data: { which: JSON.stringify(by) } });
    else if (text === "errors") say({ data: { n: 4 }, errors: [{ message: "fog", path: ["n", 0] }] });
    else if (text === "odd") say({ data: { n: "four" } });
    else if (text === "page") response.writeHead(502, { "content-type": "text/html" }).end("<p>Bad gateway</p>");
    else say({ data: { n: Object.keys(asked.variables).length + text.length } });
  });
}

/** The results of a program, with the expected ones. */
export interface PlayedRows {
  /** For each row of subscriptions, over events and over sockets. */
  readonly subscriptions: { readonly found: readonly unknown[]; readonly expected: readonly unknown[] };
  /** For queries, mutations and files: the server's records. */
  readonly asked: string | undefined;
  /** The payloads with which sockets were opened. */
  readonly initial: readonly unknown[];
}

/**
 * Runs the rows of subscriptions, and queries and mutations, with a program.
 *
 * @param run runs the program with a file of lines: "CARRIER ADDRESS ERRORS"; it prints the result of each as a line
 * of JSON
 */
export async function playGraphqlRows(run: (file: string) => Promise<string>): Promise<PlayedRows> {
  const server = createServer(answering);
  const silent = new WebSocketServer({ server });
  silent.on("connection", (peer) => {
    peer.on("message", (data: Buffer) => {
      if (data.toString().includes("connection_init")) peer.send('{"type":"connection_ack"}');
    });
  });
  await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
  const address = `http://127.0.0.1:${String((server.address() as AddressInfo).port)}`;
  const rows = subscriptionRows.flatMap((row) => (["events", "socket"] as const).map((carrier) => ({ row, carrier })));
  const servers = await Promise.all(
    rows.map(({ row, carrier }) => (carrier === "events" ? eventServer(row) : socketServer(row))),
  );
  try {
    const lines = [
      ...rows.map(({ row, carrier }, at) => `${carrier} ${servers[at]?.address ?? ""} ${row.errors}`),
      `asked ${address} -`,
    ];
    const data = new TemporaryProject({ "lines.txt": lines.join("\n") });
    const found = (await run(join(data.folder, "lines.txt"))).trim().split("\n");
    const expected = rows.map(({ row: { gives, told, fails } }) => ({
      gives,
      ...(told ? { told } : {}),
      ...(fails === undefined ? {} : { fails }),
    }));
    return {
      subscriptions: { found: found.slice(0, -1).map((line) => JSON.parse(line) as unknown), expected },
      asked: found.at(-1),
      initial: rows.flatMap(({ carrier }, at) => (carrier === "socket" ? [servers[at]?.initial[0]] : [])),
    };
  } finally {
    silent.close();
    server.closeAllConnections();
    server.close();
    for (const each of servers) each.close();
  }
}

/** The server's records of files, and of inputs of which one field is given. */
export const saidOfFiles = {
  chosen: "{'number':7}|{'those':[{'name':'n'},{'which':{'String':'x'}}]}",
  many: "true map,,{'0':['variables.first','variables.files.0'],'1':['variables.files.1']},0,p.png,photo,1,blob,two",
  one: "true map,,{'0':['variables.by.which.file']},0,p.png,photo",
};
