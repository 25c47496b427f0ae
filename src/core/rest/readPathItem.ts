import { below } from "../problem/place.js";
import { dataMember, isData, member, textMember, type Data } from "../text/parseData.js";
import type { Located, RestDocument } from "./restDocument.js";

const methods = ["get", "put", "post", "delete", "options", "head", "patch", "trace"];

/** Returns a path item and the one that it refers to. Members next to the reference override (section 4.8.9). */
export function pathItems(entry: Located, document: RestDocument): Located<Data>[] {
  const { value, place } = entry;
  if (!isData(value) || textMember(value, "$ref") === undefined) return [document.object(entry, "pathItem")];
  const target = document.object(entry, "pathItem");
  return Object.keys(value).length > 1 ? [{ value, place }, target] : [target];
}

/**
 * Returns the operations of a path item, with `additionalOperations` of OpenAPI 3.2.
 *
 * @returns the operations with their method in lower case
 */
export function operationNodes(
  items: readonly Located<Data>[],
  document: RestDocument,
): { method: string; node: Located }[] {
  const known = document.dialect === "3.2" ? [...methods, "query"] : methods;
  const found = new Map<string, Located>();
  for (const { value, place } of items) {
    for (const method of known) {
      const node = member(value, method);
      if (node !== undefined && !found.has(method)) found.set(method, { value: node, place: below(place, method) });
    }
    const additional = document.dialect === "3.2" ? (dataMember(value, "additionalOperations") ?? {}) : {};
    for (const [method, node] of Object.entries(additional)) {
      const key = method.toLowerCase();
      const at = below(place, "additionalOperations", method);
      // A method is a part of the request line (RFC 9110, section 9.1: a token).
      if (!/^[A-Za-z0-9!#$%&'*+.^_`|~-]+$/.test(method))
        document.note("contract.invalid", `\`${method}\` is not a valid method. It is skipped.`, at);
      else if (!found.has(key)) found.set(key, { value: node, place: at });
    }
  }
  return [...found].map(([method, node]) => ({ method, node }));
}
