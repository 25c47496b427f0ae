import type { RestContract, RestOperation, SentRequest, SetAside, Shape, Tag } from "../contract/model.js";
import { operationLabel } from "../contract/model.js";
import { namedTypes } from "../contract/reachedTypes.js";
import { kindOf } from "../problem/kindOf.js";
import { atKey, below, belowAll, pointerPlace } from "../problem/place.js";
import { problem, type Problem } from "../problem/problem.js";
import { sortedBy } from "../text/sortedBy.js";
import { dataMember, isData, listMember, member, textMember, type Data } from "../text/parseData.js";
import { dialectOf } from "./dialect.js";
import { Fault } from "./fault.js";
import { readAuthSchemes } from "./readAuthSchemes.js";
import { readOperation } from "./readOperation.js";
import { operationNodes, pathItems } from "./readPathItem.js";
import { readCallbacks, readWebhooks, type Attempt } from "./readSentRequests.js";
import { readHost, readServers } from "./readServers.js";
import { RestDocument, type DocumentNames } from "./restDocument.js";
import { SchemaReader } from "./schemas/schemaReader.js";
import { checkStructure } from "./structure/checkStructure.js";

export interface RestReading {
  /** Absent if nothing is readable. */
  readonly contract?: RestContract;
  readonly problems: readonly Problem[];
}

/** The parsed texts of a REST contract: one document in which every reference is a JSON pointer. */
export interface RestSource {
  /** The name of the root document in messages. */
  readonly document: string;
  readonly data: Data;
  readonly names?: DocumentNames;
}

/**
 * Reads a parsed OpenAPI 2.0, 3.0, 3.1 or 3.2 document into the model. A fault stops the run only if nothing is
 * readable. Otherwise the part, and what depends on it, is skipped with its reason.
 *
 * @param name the contract's name in the configuration
 * @returns the contract, if anything is readable, and the problems
 */
export function readRestContract(name: string, { document: documentName, data, names }: RestSource): RestReading {
  const said = textMember(data, "openapi") ?? String(member(data, "openapi") ?? member(data, "swagger"));
  const dialect = dialectOf(said);
  if (!dialect) {
    const place = pointerPlace(documentName, "openapi" in data ? "/openapi" : "/swagger");
    const message = `The contract \`${name}\` is OpenAPI ${said}, which is not supported. Use 2.0, 3.0, 3.1 or 3.2.`;
    return { problems: [problem("contract.version", message, { place })] };
  }
  const document = new RestDocument(documentName, data, dialect, names);
  noteContractRules(document);
  const reader = new SchemaReader(document);
  reader.readAllNamed();
  const read = readPaths(document, reader);
  const { types, faults } = reader.finish();
  const { setAside } = read;
  // Faults have spread to every type that depends on one, so the names in the operation itself are enough.
  const sound = (what: string, operation: RestOperation): boolean => {
    if (faults.size === 0) return true;
    const broken = [...namedTypes(shapesOf(operation))].find((key) => faults.has(key));
    const fault = broken === undefined ? undefined : faults.get(broken);
    if (fault) setAside.push(aside(what, fault));
    return !fault;
  };
  const operations = read.operations
    .filter((operation) => sound(operationLabel(operation), operation))
    .map((operation) =>
      operation.callbacks.length === 0
        ? operation
        : {
            ...operation,
            callbacks: operation.callbacks.filter((callback) =>
              sound(`callback ${callback.name} of ${operationLabel(operation)}`, callback.operation),
            ),
          },
    );
  const webhooks = read.webhooks.filter((webhook) => sound(`webhook ${webhook.name}`, webhook.operation));
  const unreachedFaults = [...new Set(faults.values())].filter(
    (fault) => !setAside.some((each) => each.place === fault.problem.places[0]),
  );
  const info = dataMember(data, "info") ?? {};
  const description = textMember(info, "description");
  return {
    contract: {
      protocol: "rest",
      name,
      dialect: said,
      title: textMember(info, "title")?.trim() || name,
      version: versionText(member(info, "version")),
      ...(description === undefined ? {} : { description }),
      servers: dialect === "2.0" ? readHost(data) : readServers(data),
      authSchemes: readAuthSchemes(document),
      types,
      operations: sortedBy(operations, (operation) => `${operation.path} ${operation.method}`),
      webhooks: sortedBy(webhooks, (webhook) => `${webhook.name} ${webhook.operation.method}`),
      tags: readTags(data),
      setAside: sortedBy(setAside, (each) => each.what),
    },
    problems: [...document.allProblems(), ...unreachedFaults.map((fault) => fault.problem)],
  };
}

/** The whole contract is read, whatever it breaks. */
function noteContractRules(document: RestDocument): void {
  for (const { path, message } of checkStructure("contract", document.root)) {
    document.note("contract.irregular", message, belowAll(document.place, path));
  }
}

/** YAML reads a version such as 1.0 as a number. */
function versionText(value: unknown): string {
  return typeof value === "string" || typeof value === "number" ? String(value) : "";
}

function aside(what: string, fault: Fault): SetAside {
  const [place] = fault.problem.places;
  const hint = fault.problem.hint === undefined ? "" : ` ${fault.problem.hint}`;
  const { code, message } = fault.problem;
  return { what, why: message + hint, code, place: place ?? { document: "", pointer: "" } };
}

/** Returns every shape that an operation uses directly, in requests or responses. */
export function shapesOf(operation: RestOperation): Shape[] {
  return [...askedShapes(operation), ...answeredShapes(operation)];
}

/** Returns the shapes in an operation's request. */
export function askedShapes(operation: RestOperation): Shape[] {
  const contents = operation.body?.contents ?? [];
  return [...operation.parameters, ...contents].map((each) => each.type.shape);
}

/** Returns the shapes in an operation's responses, failures included. */
export function answeredShapes(operation: RestOperation): Shape[] {
  return operation.responses.flatMap((response) =>
    [...response.contents, ...response.headers].map((each) => each.type.shape),
  );
}

interface PathsRead {
  readonly operations: readonly RestOperation[];
  readonly webhooks: readonly SentRequest[];
  readonly setAside: SetAside[];
}

function readPaths(document: RestDocument, reader: SchemaReader): PathsRead {
  const operations: RestOperation[] = [];
  const setAside: SetAside[] = [];
  const attempt: Attempt = (what, read) => {
    try {
      read();
    } catch (error) {
      if (!(error instanceof Fault)) throw error;
      setAside.push(aside(what, error));
    }
  };
  const paths = member(document.root, "paths");
  if (paths !== undefined && paths !== null && !isData(paths)) {
    document.note("contract.invalid", `\`paths\` must be an object, but is ${kindOf(paths)}.`, document.at("/paths"));
  }
  for (const [path, entry] of Object.entries(isData(paths) ? paths : {})) {
    if (path.startsWith("x-")) continue;
    const place = below(document.at("/paths"), path);
    attempt(path, () => {
      if (!path.startsWith("/"))
        throw document.fault("contract.invalid", `The path \`${path}\` must begin with a slash.`, atKey(place));
      const items = pathItems({ value: entry, place }, document);
      for (const { method, node } of operationNodes(items, document)) {
        const label = operationLabel({ method, path });
        attempt(label, () => {
          const located = document.object(node, "operation");
          const keyed = { value: located.value, place: atKey(located.place) };
          const operation = readOperation({ method, path, items }, keyed, reader);
          const callbacks = readCallbacks(located, label, { reader, attempt });
          operations.push(callbacks.length === 0 ? operation : { ...operation, callbacks });
        });
      }
    });
  }
  return { operations, webhooks: readWebhooks(reader, attempt), setAside };
}

function readTags(root: Data): Map<string, Tag> {
  const found = new Map<string, Tag>();
  for (const tag of (listMember(root, "tags") ?? []).filter(isData)) {
    const name = textMember(tag, "name");
    if (name === undefined || found.has(name)) continue;
    const said = ["summary", "description", "parent"].flatMap((key) => {
      const text = textMember(tag, key)?.trim();
      return text ? [[key, text] as const] : [];
    });
    found.set(name, Object.fromEntries(said));
  }
  return found;
}
