import { pointerToken, type PointerPlace } from "../problem/place.js";
import { isData, type Data } from "../text/parseData.js";
import { documentNamed } from "./documentNames.js";

/** The key under which a linked contract keeps its other documents, by name. */
export const partsKey = "x-rhema-documents";
const partsPointer = `/${partsKey}/`;

/** One parsed document of a contract. */
export interface ContractDocument {
  /** The name in messages, unique in its contract. */
  readonly document: string;
  /** The base of its references: a URL, or a path of the project. */
  readonly base: string;
  readonly data: unknown;
}

export interface LinkedContract {
  /** One document in which every reference is a JSON pointer into itself. */
  readonly data: Data;
  /** Documents that are referred to but were not given. */
  readonly wanted: readonly string[];
  /** Documents that were given but that nothing refers to. */
  readonly unused: readonly string[];
}

/** Keywords whose members are the author's names, not keywords. */
export const namesBelow = new Set([
  "properties",
  "patternProperties",
  "dependentSchemas",
  "$defs",
  "definitions",
  "schemas",
  "responses",
  "parameters",
  "requestBodies",
  "headers",
  "securitySchemes",
  "links",
  "callbacks",
  "pathItems",
  "mediaTypes",
  "paths",
  "webhooks",
  "content",
  "encoding",
  "variables",
  "mapping",
]);

/** Members that contain values of the API. Nothing in them is a reference, whatever it looks like. */
export const valuesBelow = new Set(["example", "default", "enum", "const", "value", "dataValue", "security"]);

/**
 * Returns whether a text may contain references that are not JSON pointers into itself. This is cheap, and never misses
 * a `$ref`, `$id`, `$anchor` or their dynamic variants.
 */
export function needsLinking(text: string): boolean {
  // A search from dollar to dollar is many times as fast as a pattern that is tried at every character.
  for (let at = text.indexOf("$"); at >= 0; at = text.indexOf("$", at + 1)) {
    linkingWord.lastIndex = at;
    if (linkingWord.test(text)) return true;
    localReference.lastIndex = at;
    if (text.startsWith("$ref", at) && !localReference.test(text)) return true;
  }
  return false;
}

const linkingWord = /\$(?:id|anchor|dynamicRef|dynamicAnchor|self)\b/y;
/** A reference into the document itself, or a longer word. */
const localReference = /\$ref(?:\w|["']?\s*:\s*["']?#(?:\/|["'\s]))/y;

/**
 * Joins the documents of a contract into one. The other documents are stored under an extension key of the root.
 * References by file, URL, `$id`, `$anchor` or `$dynamicAnchor` (JSON Schema 2020-12, section 8.2) become JSON
 * pointers. A reference that does not resolve stays as it is.
 *
 * @param root the main document
 * @param parts the other documents that are available
 * @returns the linked document, with the names of missing and unused documents
 */
export function linkDocuments(root: ContractDocument, parts: readonly ContractDocument[]): LinkedContract {
  const linker = new Linker();
  linker.index(root, "");
  for (const part of parts) linker.index(part, partsPointer + pointerToken(part.document));
  const data = linker.rewrite(root.data, root.base) as Data;
  const rewritten = parts.map((part) => ({ part, data: linker.rewrite(part.data, part.base) }));
  const isUsed = ({ document }: ContractDocument): boolean => {
    const pointer = partsPointer + pointerToken(document);
    return [...linker.used].some((used) => used === pointer || used.startsWith(`${pointer}/`));
  };
  const used = rewritten.filter(({ part }) => isUsed(part));
  const unused = parts.filter((part) => !isUsed(part)).map(({ document }) => document);
  const result = { wanted: [...linker.wanted], unused };
  if (used.length === 0) return { data, ...result };
  const linked = Object.fromEntries(used.map((each) => [each.part.document, each.data]));
  return { data: { ...data, [partsKey]: linked }, ...result };
}

/** Returns the document and pointer for a pointer into a linked contract; undefined for the root's own. */
export function partOf(pointer: string): { document: string; pointer: string } | undefined {
  if (!pointer.startsWith(partsPointer)) return undefined;
  const rest = pointer.slice(partsPointer.length);
  const end = rest.indexOf("/");
  const token = end < 0 ? rest : rest.slice(0, end);
  return {
    document: token.replaceAll("~1", "/").replaceAll("~0", "~"),
    pointer: end < 0 ? "" : rest.slice(end),
  };
}

/** Returns the pointer into a linked contract for a place in one of its documents. */
export function pointerInLinked({ document, pointer }: PointerPlace, linked: unknown): string {
  const parts = isData(linked) ? linked[partsKey] : undefined;
  return isData(parts) && Object.hasOwn(parts, document) ? partsPointer + pointerToken(document) + pointer : pointer;
}

class Linker {
  readonly wanted = new Set<string>();
  /** Pointers of the documents and schemas that are referred to. */
  readonly used = new Set<string>();
  /** The pointer of each document and each schema with an `$id`, by absolute name. */
  private readonly resources = new Map<string, string>();
  /** The pointer of each anchor, by "resource#anchor". */
  private readonly anchors = new Map<string, string>();

  /** Records every `$id` and anchor of a document, which has a pointer in the linked one. */
  index({ base, data }: Pick<ContractDocument, "base" | "data">, pointer: string): void {
    const own = isData(data) && typeof data["$self"] === "string" ? documentNamed(data["$self"], base) : base;
    this.resources.set(base, pointer);
    if (!this.resources.has(own)) this.resources.set(own, pointer);
    const open: { value: unknown; base: string; pointer: string; names: boolean }[] = [
      { value: data, base, pointer, names: false },
    ];
    for (let next = open.pop(); next; next = open.pop()) {
      const { value } = next;
      if (Array.isArray(value)) {
        value.forEach((each: unknown, at) =>
          open.push({ ...next, value: each, pointer: `${next.pointer}/${String(at)}`, names: false }),
        );
        continue;
      }
      if (!isData(value)) continue;
      const inside = next.names ? next.base : this.resource(value, next.base, next.pointer);
      for (const key of Object.keys(value)) {
        if (!next.names && valuesBelow.has(key)) continue;
        open.push({
          value: value[key],
          base: inside,
          pointer: `${next.pointer}/${pointerToken(key)}`,
          names: !next.names && namesBelow.has(key),
        });
      }
    }
  }

  private resource(value: Data, base: string, pointer: string): string {
    const id = value["$id"];
    const inside = typeof id === "string" ? documentNamed(id.replace(/#.*$/, ""), base) : base;
    if (typeof id === "string" && !this.resources.has(inside)) this.resources.set(inside, pointer);
    for (const key of ["$anchor", "$dynamicAnchor"]) {
      const anchor = value[key];
      const name = typeof anchor === "string" ? `${inside}#${anchor}` : undefined;
      if (name !== undefined && !this.anchors.has(name)) this.anchors.set(name, pointer);
    }
    return inside;
  }

  /** A copy of a value with its references rewritten. */
  rewrite(value: unknown, base: string, names = false): unknown {
    if (Array.isArray(value)) return value.map((each: unknown) => this.rewrite(each, base));
    if (!isData(value)) return value;
    const id = value["$id"];
    const inside = !names && typeof id === "string" ? documentNamed(id.replace(/#.*$/, ""), base) : base;
    const copy: Record<string, unknown> = {};
    const set = (key: string, each: unknown): void => {
      // Defined, not assigned: an author can name a field `__proto__`.
      Object.defineProperty(copy, key, { value: each, enumerable: true, writable: true, configurable: true });
    };
    for (const key of Object.keys(value)) {
      const each = value[key];
      if (names) set(key, typeof each === "string" ? this.mapped(each, inside) : this.rewrite(each, inside));
      else if ((key === "$ref" || key === "$dynamicRef") && typeof each === "string")
        set("$ref", this.reference(each, inside));
      else if (isBookkeeping(key) && typeof each === "string") continue;
      else if (valuesBelow.has(key)) set(key, each);
      else set(key, this.rewrite(each, inside, namesBelow.has(key)));
    }
    return copy;
  }

  /** The mapping of a discriminator names a schema, or refers to one. */
  private mapped(text: string, base: string): string {
    return /[/#]|\.(?:ya?ml|json)$/.test(text) ? this.reference(text, base, false) : text;
  }

  private reference(reference: string, base: string, isNeeded = true): string {
    const [uri, fragment] = split(reference);
    const name = documentNamed(uri, base);
    const pointer = this.resources.get(name);
    if (pointer === undefined) {
      if (!isNeeded) return reference;
      this.wanted.add(name);
      return fragment === "" ? name : `${name}#${fragment}`;
    }
    this.used.add(pointer);
    if (fragment === "" || fragment.startsWith("/")) return `#${encodeFragment(pointer)}${fragment}`;
    const anchored = this.anchors.get(`${name}#${fragment}`);
    return anchored === undefined ? reference : `#${encodeFragment(anchored)}`;
  }
}

/** Once references are pointers, these keys would only change the base of references. */
function isBookkeeping(key: string): boolean {
  return key === "$id" || key === "$anchor" || key === "$dynamicAnchor" || key === "$self";
}

function split(reference: string): [string, string] {
  const at = reference.indexOf("#");
  return at < 0 ? [reference, ""] : [reference.slice(0, at), reference.slice(at + 1)];
}

/** Percent-encodes characters that are not valid in a fragment (RFC 3986, section 3.5). */
function encodeFragment(pointer: string): string {
  return encodeURI(pointer).replaceAll("#", "%23");
}
