import type { RestOperation } from "../contract/model.js";
import { listMember, textMember, type Data } from "../text/parseData.js";
import { readOlderBody } from "./older/readOlderBody.js";
import { annotate } from "./schemas/readAnnotations.js";
import { readAuth } from "./readAuthSchemes.js";
import { readBody } from "./readContents.js";
import { parameterNodes, readParameters } from "./readParameters.js";
import { readResponses } from "./readResponses.js";
import { readServers } from "./readServers.js";
import type { Located } from "./restDocument.js";
import type { SchemaReader } from "./schemas/schemaReader.js";

/** Where an operation stands: in a path, or in what the server sends. */
export interface OperationHome {
  readonly method: string;
  /** Undefined for webhooks and callbacks. */
  readonly path: string | undefined;
  /** The path item, and what it refers to. */
  readonly items: readonly Located<Data>[];
}

/** Reads one operation (OpenAPI 3.1, section 4.8.10; 2.0 likewise). Throws a Fault when a part it needs is broken. */
export function readOperation(home: OperationHome, node: Located<Data>, reader: SchemaReader): RestOperation {
  const { method, path, items } = home;
  const { value, place } = node;
  const tags = (listMember(value, "tags") ?? []).filter(
    (tag): tag is string => typeof tag === "string" && tag.trim() !== "",
  );
  const nodes = parameterNodes([...items, node], reader);
  const isOlder = reader.document.dialect === "2.0";
  const body = isOlder ? readOlderBody(value, nodes, reader) : readBody(value, place, reader);
  const operationId = textMember(value, "operationId")?.trim();
  const summary = textMember(value, "summary")?.trim() || textMember(items[0]?.value ?? {}, "summary")?.trim();
  const operation: { -readonly [K in keyof RestOperation]: RestOperation[K] } = {
    method,
    path: path ?? "",
    group: tags[0] ?? firstFixedSegment(path ?? ""),
    tags,
    parameters: readParameters(path, nodes, { place, reader }),
    responses: readResponses(value, place, reader),
    auth: readAuth(value, reader.document.root),
    servers: [node, ...items].map((owner) => readServers(owner.value)).find((servers) => servers.length > 0) ?? [],
    callbacks: [],
    place,
  };
  if (operationId) operation.operationId = operationId;
  if (body) operation.body = body;
  if (summary) operation.summary = summary;
  annotate(operation, value);
  return operation;
}

function firstFixedSegment(path: string): string {
  return path.split("/").find((segment) => segment !== "" && !segment.includes("{")) ?? "root";
}
