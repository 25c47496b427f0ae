import type { AuthScheme, RestContract, RestOperation, Server, SetAside } from "../contract/model.js";
import { operationLabel } from "../contract/model.js";
import { namedTypes } from "../contract/childReferences.js";
import type { Shape } from "../contract/model.js";
import type { Problem } from "../problem/problem.js";
import { atKey, below, type PointerPlace } from "../problem/place.js";
import { problem } from "../problem/problem.js";
import { sortedBy } from "../text/sortedBy.js";
import { dataMember, isData, listMember, member, textMember, type Data } from "../text/parseData.js";
import { Fault } from "./fault.js";
import { readOperation, type PathItem } from "./readOperation.js";
import { kindOf, RestDocument } from "./restDocument.js";
import { SchemaReader } from "./schemaReader.js";

export interface RestReading {
  /** Absent when nothing is readable. */
  readonly contract?: RestContract;
  readonly problems: readonly Problem[];
}

const methods = ["get", "put", "post", "delete", "options", "head", "patch", "trace"] as const;

/**
 * Reads a parsed OpenAPI 3.0 or 3.1 document into the model. A fault never stops the run unless nothing is readable:
 * the part, and what depends on it, is set aside with its reason.
 *
 * @param name the contract's name in the configuration
 * @param documentName how messages call the text
 */
export function readRestContract(name: string, documentName: string, data: Data): RestReading {
  const document = new RestDocument(documentName, data);
  const dialect = textMember(data, "openapi") ?? "";
  if (!/^3\.[012](\.|$)/.test(dialect)) {
    const said = dialect || textMember(data, "swagger") || String(member(data, "openapi") ?? member(data, "swagger"));
    const place = { ...document.at("openapi" in data ? "/openapi" : "/swagger") };
    return {
      problems: [
        problem("contract.version", `The contract \`${name}\` is OpenAPI ${said}; 3.0 and 3.1 are read.`, { place }),
      ],
    };
  }
  const reader = new SchemaReader(document, dialect);
  reader.readAllNamed();
  const read = readPaths(document, reader);
  const { types, faults } = reader.finish();
  const setAside = [...read.setAside, ...uncalledParts(document)];
  const operations: RestOperation[] = [];
  for (const operation of read.operations) {
    // Faults have spread to every type that reaches one, so the names an operation uses itself tell enough.
    const broken = [...namedTypes(shapesOf(operation))].find((key) => faults.has(key));
    const fault = broken === undefined ? undefined : faults.get(broken);
    if (fault) setAside.push(aside(operationLabel(operation), fault));
    else operations.push(operation);
  }
  const unreachedFaults = [...new Set(faults.values())].filter(
    (fault) => !setAside.some((each) => each.place === fault.problem.places[0]),
  );
  const info = dataMember(data, "info") ?? {};
  const description = textMember(info, "description");
  return {
    contract: {
      protocol: "rest",
      name,
      dialect,
      title: textMember(info, "title")?.trim() || name,
      version: versionText(member(info, "version")),
      ...(description === undefined ? {} : { description }),
      servers: readServers(data),
      authSchemes: readAuthSchemes(document),
      types,
      operations: sortedBy(operations, (operation) => `${operation.path} ${operation.method}`),
      setAside: sortedBy(setAside, (each) => each.what),
    },
    problems: [...document.problems, ...unreachedFaults.map((fault) => fault.problem)],
  };
}

/** YAML reads a version such as 1.0 as a number. */
function versionText(value: unknown): string {
  return typeof value === "string" || typeof value === "number" ? String(value) : "";
}

function aside(what: string, fault: Fault): SetAside {
  const [place] = fault.problem.places;
  const hint = fault.problem.hint === undefined ? "" : ` ${fault.problem.hint}`;
  return { what, why: fault.problem.message + hint, kind: fault.kind, place: place ?? { document: "", pointer: "" } };
}

/** Every shape an operation uses directly, in requests or answers. */
export function shapesOf(operation: RestOperation): Shape[] {
  return [...askedShapes(operation), ...answeredShapes(operation)];
}

/** The shapes an operation is sent. */
export function askedShapes(operation: RestOperation): Shape[] {
  const contents = operation.body?.contents ?? [];
  return [...operation.parameters, ...contents].map((each) => each.type.shape);
}

/** The shapes an operation answers, failures included. */
export function answeredShapes(operation: RestOperation): Shape[] {
  return operation.responses.flatMap((response) => response.contents.map((content) => content.type.shape));
}

function readPaths(
  document: RestDocument,
  reader: SchemaReader,
): { operations: RestOperation[]; setAside: SetAside[] } {
  const operations: RestOperation[] = [];
  const setAside: SetAside[] = [];
  const attempt = (what: string, read: () => void): void => {
    try {
      read();
    } catch (error) {
      if (!(error instanceof Fault)) throw error;
      setAside.push(aside(what, error));
    }
  };
  const paths = member(document.root, "paths");
  if (paths !== undefined && paths !== null && !isData(paths)) {
    document.note("contract.invalid", `\`paths\` has to be an object, and is ${kindOf(paths)}.`, document.at("/paths"));
  }
  for (const [path, entry] of Object.entries(isData(paths) ? paths : {})) {
    if (path.startsWith("x-")) continue;
    const place = below(document.at("/paths"), path);
    attempt(path, () => {
      if (!path.startsWith("/"))
        throw document.fault("contract.invalid", `The path \`${path}\` has to begin with a slash.`, {
          ...place,
          atKey: true,
        });
      const item: PathItem = { path, item: document.object({ value: entry, place }, "A path item") };
      for (const method of methods) {
        const node = member(item.item.value, method);
        if (node === undefined) continue;
        attempt(operationLabel({ method, path }), () => {
          const located = document.object({ value: node, place: below(item.item.place, method) }, "An operation");
          operations.push(readOperation(method, item, { value: located.value, place: atKey(located.place) }, reader));
        });
      }
    });
  }
  return { operations, setAside };
}

/** Parts that describe what the server sends on its own: legal, and not typed yet. */
function uncalledParts(document: RestDocument): SetAside[] {
  const parts: SetAside[] = [];
  const add = (what: string, why: string, place: PointerPlace): void => {
    parts.push({ what, why, kind: "unsupported", place });
  };
  for (const name of Object.keys(dataMember(document.root, "webhooks") ?? {})) {
    add(`webhook ${name}`, "Webhooks are not typed yet.", below(document.at("/webhooks"), name));
  }
  for (const [path, item] of Object.entries(dataMember(document.root, "paths") ?? {})) {
    const newMethods = isData(item) ? { query: item["query"], ...dataMember(item, "additionalOperations") } : {};
    for (const [method, operation] of Object.entries(newMethods)) {
      if (operation === undefined) continue;
      const label = operationLabel({ method, path });
      add(label, "Methods of OpenAPI 3.2 are not supported yet.", below(document.at("/paths"), path));
    }
    for (const method of methods) {
      const operation = isData(item) ? dataMember(item, method) : undefined;
      for (const name of Object.keys((operation && dataMember(operation, "callbacks")) ?? {})) {
        const place = below(document.at("/paths"), path, method, "callbacks", name);
        add(`callback ${name} of ${operationLabel({ method, path })}`, "Callbacks are not typed yet.", place);
      }
    }
  }
  return parts;
}

function readServers(root: Data): Server[] {
  return (listMember(root, "servers") ?? []).filter(isData).flatMap((server) => {
    const url = textMember(server, "url");
    if (url === undefined) return [];
    const variables = new Map<string, string>();
    for (const [name, variable] of Object.entries(dataMember(server, "variables") ?? {})) {
      variables.set(name, isData(variable) ? (textMember(variable, "default") ?? "") : "");
    }
    const description = textMember(server, "description");
    return [{ url, variables, ...(description === undefined ? {} : { description }) }];
  });
}

function readAuthSchemes(document: RestDocument): Map<string, AuthScheme> {
  const found = new Map<string, AuthScheme>();
  const schemes = dataMember(dataMember(document.root, "components") ?? {}, "securitySchemes") ?? {};
  for (const [name, node] of Object.entries(schemes)) {
    const scheme = readAuthScheme(isData(node) ? node : {});
    if (scheme) found.set(name, scheme);
    else
      document.note(
        "contract.invalid",
        `The auth scheme \`${name}\` has no type this version knows; calls are made without it.`,
        below(document.at("/components/securitySchemes"), name),
      );
  }
  return found;
}

function readAuthScheme(node: Data): AuthScheme | undefined {
  const description = textMember(node, "description");
  const words = description === undefined ? {} : { description };
  const type = member(node, "type");
  const location = member(node, "in");
  const name = textMember(node, "name");
  if (type === "http")
    return { kind: String(member(node, "scheme")).toLowerCase() === "basic" ? "basic" : "bearer", ...words };
  if (type === "oauth2" || type === "openIdConnect") return { kind: "bearer", ...words };
  if (
    type === "apiKey" &&
    name !== undefined &&
    (location === "header" || location === "query" || location === "cookie")
  ) {
    return { kind: "key", in: location, name, ...words };
  }
  return undefined;
}
