import { createServer, type Server } from "node:http";
import type { AddressInfo } from "node:net";
import { buildSchema, graphql } from "graphql";

/** The server's requests, and a function that stops it. */
export interface ExecutingServer {
  readonly address: string;
  readonly asked: { readonly query?: string; readonly variables?: unknown; readonly [key: string]: unknown }[];
  readonly close: () => void;
}

/** Starts a GraphQL server over HTTP that executes with the reference implementation. */
export async function executingServer(
  schema: string,
  rootValue: unknown,
  known: ReadonlyMap<string, string> = new Map(),
): Promise<ExecutingServer> {
  const built = buildSchema(schema);
  const asked: ExecutingServer["asked"] = [];
  const server: Server = createServer((request, response) => {
    let body = "";
    request.setEncoding("utf8").on("data", (part: string) => (body += part));
    request.on("end", () => {
      const url = new URL(request.url ?? "", "http://localhost");
      const given = (request.method === "GET" ? Object.fromEntries(url.searchParams) : JSON.parse(body)) as Record<
        string,
        unknown
      >;
      asked.push(given);
      const { query, documentId, operationName, variables } = given;
      const variableValues = (typeof variables === "string" ? JSON.parse(variables) : variables) as Record<
        string,
        unknown
      >;
      const source = typeof query === "string" ? query : (known.get(String(documentId)) ?? "");
      const asking = {
        schema: built,
        source,
        rootValue,
        variableValues,
        ...(operationName === undefined ? {} : { operationName: operationName as string }),
      };
      void graphql(asking).then((result) => {
        response.setHeader("content-type", "application/graphql-response+json");
        response.end(JSON.stringify(result));
      });
    });
  });
  await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
  return {
    address: `http://127.0.0.1:${String((server.address() as AddressInfo).port)}/graphql`,
    asked,
    close: () => {
      server.closeAllConnections();
      server.close();
    },
  };
}
