import type { SentRequest } from "../contract/model.js";
import { atKey, below } from "../problem/place.js";
import { dataMember, isData, type Data } from "../text/parseData.js";
import { operationNodes, pathItems } from "./readPathItem.js";
import { readOperation } from "./readOperation.js";
import type { Located } from "./restDocument.js";
import type { SchemaReader } from "./schemas/schemaReader.js";

/** Reads one part, and skips it if it is not valid. */
export type Attempt = (what: string, read: () => void) => void;

/**
 * Reads the requests that the server sends on its own (OpenAPI 3.1, section 4.8.1: `webhooks`).
 *
 * @param attempt reads one webhook, and skips it if it is not valid
 */
export function readWebhooks(reader: SchemaReader, attempt: Attempt): SentRequest[] {
  const { document } = reader;
  const place = document.at("/webhooks");
  const found: SentRequest[] = [];
  for (const [name, entry] of Object.entries(dataMember(document.root, "webhooks") ?? {})) {
    attempt(`webhook ${name}`, () => {
      readItem(name, undefined, { entry: { value: entry, place: below(place, name) }, reader, attempt, into: found });
    });
  }
  return found;
}

/**
 * Reads the requests that an operation makes the server send (section 4.8.18).
 *
 * @param operation the operation object
 * @param of the label of the operation
 */
export function readCallbacks(
  operation: Located<Data>,
  of: string,
  { reader, attempt }: { readonly reader: SchemaReader; readonly attempt: Attempt },
): SentRequest[] {
  const found: SentRequest[] = [];
  for (const [name, entry] of Object.entries(dataMember(operation.value, "callbacks") ?? {})) {
    if (name.startsWith("x-")) continue;
    attempt(`callback ${name} of ${of}`, () => {
      const place = below(operation.place, "callbacks", name);
      const callback = reader.document.object({ value: entry, place }, "callback");
      for (const [address, item] of Object.entries(callback.value)) {
        if (address.startsWith("x-") || !isData(item)) continue;
        readItem(name, address, {
          entry: { value: item, place: below(callback.place, address) },
          reader,
          attempt,
          into: found,
        });
      }
    });
  }
  return found;
}

function readItem(
  name: string,
  address: string | undefined,
  {
    entry,
    reader,
    attempt,
    into,
  }: {
    readonly entry: Located;
    readonly reader: SchemaReader;
    readonly attempt: Attempt;
    readonly into: SentRequest[];
  },
): void {
  const items = pathItems(entry, reader.document);
  for (const { method, node } of operationNodes(items, reader.document)) {
    attempt(`${method.toUpperCase()} of ${address === undefined ? "webhook" : "callback"} ${name}`, () => {
      const located = reader.document.object(node, "operation");
      const operation = readOperation(
        { method, path: undefined, items },
        { value: located.value, place: atKey(located.place) },
        reader,
      );
      into.push({ name, ...(address === undefined ? {} : { address }), operation });
    });
  }
}
