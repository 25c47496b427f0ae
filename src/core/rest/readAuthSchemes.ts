import type { AuthScheme } from "../contract/model.js";
import { below } from "../problem/place.js";
import { dataMember, isData, listMember, member, textMember, type Data } from "../text/parseData.js";
import { Fault } from "./fault.js";
import type { RestDocument } from "./restDocument.js";

/**
 * Reads the contract's security schemes (OpenAPI 3.1, section 4.8.27; 2.0 has them in `securityDefinitions`).
 *
 * @returns the schemes by name, without those that are not valid
 */
export function readAuthSchemes(document: RestDocument): Map<string, AuthScheme> {
  const isOlder = document.dialect === "2.0";
  const pointer = isOlder ? "/securityDefinitions" : "/components/securitySchemes";
  const owner = isOlder ? document.root : (dataMember(document.root, "components") ?? {});
  const schemes = dataMember(owner, isOlder ? "securityDefinitions" : "securitySchemes") ?? {};
  const found = new Map<string, AuthScheme>();
  for (const [name, node] of Object.entries(schemes)) {
    const place = below(document.at(pointer), name);
    const scheme = readLocated(node, place, document);
    if (scheme) found.set(name, scheme);
    else
      document.note(
        "contract.invalid",
        `The auth scheme \`${name}\` is not a valid scheme. Calls do not use it.`,
        place,
      );
  }
  return found;
}

function readLocated(node: unknown, place: ReturnType<typeof below>, document: RestDocument): AuthScheme | undefined {
  try {
    return readAuthScheme(document.object({ value: node, place }, "authScheme").value);
  } catch (error) {
    // A scheme that cannot be read skips no call: the app can still add its own header.
    if (error instanceof Fault) return undefined;
    throw error;
  }
}

function readAuthScheme(node: Data): AuthScheme | undefined {
  const description = textMember(node, "description");
  const words = description === undefined ? {} : { description };
  const location = member(node, "in");
  const name = textMember(node, "name");
  switch (member(node, "type")) {
    case "http":
      return httpScheme(textMember(node, "scheme") ?? "bearer", words);
    case "basic":
      return { kind: "basic", ...words };
    case "oauth2":
    case "openIdConnect":
      return { kind: "bearer", ...words };
    case "mutualTLS":
      return { kind: "certificate", ...words };
    case "apiKey":
      return name !== undefined && (location === "header" || location === "query" || location === "cookie")
        ? { kind: "key", in: location, name, ...words }
        : undefined;
    default:
      return undefined;
  }
}

function httpScheme(scheme: string, words: { description?: string }): AuthScheme {
  const lower = scheme.toLowerCase();
  if (lower === "basic" || lower === "bearer") return { kind: lower, ...words };
  // The scheme becomes part of a header (RFC 9110, section 11.1: a token).
  return /^[A-Za-z0-9!#$%&'*+.^_`|~-]+$/.test(scheme)
    ? { kind: "scheme", scheme, ...words }
    : { kind: "bearer", ...words };
}

/**
 * Returns the credentials of an operation: its own, otherwise the contract's.
 *
 * @param operation the operation object
 * @param root the whole contract
 * @returns alternatives, each a list of schemes that are needed together; an empty list means "none"
 */
export function readAuth(operation: Data, root: Data): string[][] {
  const declared = listMember(operation, "security") ?? listMember(root, "security") ?? [];
  return declared.filter(isData).map((alternative) => Object.keys(alternative));
}
