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

/** The place of an operation: in a path, or in a request from the server. */
export interface OperationHome {
  readonly method: string;
  /** Undefined for webhooks and callbacks. */
  readonly path: string | undefined;
  /** The path item, and the items that it refers to. */
  readonly items: readonly Located<Data>[];
}

/**
 * Reads one operation (OpenAPI 3.1, section 4.8.10; the same in 2.0).
 *
 * @param home the path item of the operation
 * @param node the operation object
 * @throws Fault if a part that it needs is not valid
 */
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
