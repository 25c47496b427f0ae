import { below, belowAll, pointerPlace, pointerTokens, type PointerPlace } from "../problem/place.js";
import type { ProblemCode } from "../problem/codes.js";
import { problem, type Problem } from "../problem/problem.js";
import { kindOf } from "../problem/kindOf.js";
import { nearest } from "../text/nearest.js";
import { isData, member, textMember, type Data } from "../text/parseData.js";
import type { Dialect } from "./dialect.js";
import { Fault } from "./fault.js";
import { partOf } from "./linkDocuments.js";
import type { StructureKind } from "./structure/structureKinds.js";
import { checkStructure } from "./structure/checkStructure.js";

/** A value of the document with its place. */
export interface Located<T = unknown> {
  readonly value: T;
  readonly place: PointerPlace;
}

/** The target of a reference. */
export type Target = Located & {
  /** Pointer into the linked contract. */
  readonly pointer: string;
};

/** The origin of the documents of a contract. */
export interface DocumentNames {
  /** Whether the parts were linked in this run. Places are then shown in the documents they come from. */
  readonly isLinked: boolean;
  /** The reason why a wanted document is missing, as the end of a sentence. */
  readonly unobtainable: ReadonlyMap<string, string>;
}

const noNames: DocumentNames = { isLinked: false, unobtainable: new Map() };

/** A parsed contract, with all its documents linked into one, and the problems found while reading it. */
export class RestDocument {
  readonly problems: Problem[] = [];
  private readonly noted = new Set<string>();
  /** The targets of references. Contracts repeat the same ones thousands of times. */
  private readonly targets = new Map<string, Target>();
  /** Notes that are reported once, however many places they concern. */
  private readonly folded = new Map<string, { code: ProblemCode; places: PointerPlace[] }>();

  constructor(
    readonly name: string,
    readonly root: Data,
    readonly dialect: Dialect,
    private readonly names: DocumentNames = noNames,
  ) {}

  get place(): PointerPlace {
    return pointerPlace(this.name, "");
  }

  /** Returns the place, in its original document, of a pointer into the linked contract. */
  at(pointer: string): PointerPlace {
    const part = this.names.isLinked ? partOf(pointer) : undefined;
    return part ? pointerPlace(part.document, part.pointer) : pointerPlace(this.name, pointer);
  }

  /** Follows a reference (RFC 6901 in a URI fragment). @throws Fault if it does not resolve */
  target(reference: string, from: PointerPlace): Target {
    const known = this.targets.get(reference);
    if (known) return known;
    const found = this.findTarget(reference, from);
    this.targets.set(reference, found);
    return found;
  }

  private findTarget(reference: string, from: PointerPlace): Target {
    if (!reference.startsWith("#")) throw this.unobtained(reference, from);
    const pointer = decodeFragment(reference.slice(1));
    if (pointer !== "" && !pointer.startsWith("/")) {
      throw this.fault("contract.reference", `No schema has the anchor that \`${reference}\` refers to.`, from);
    }
    let value: unknown = this.root;
    for (const token of pointerTokens(pointer)) {
      value = Array.isArray(value)
        ? (value as unknown[])[Number(token)]
        : isData(value)
          ? member(value, token)
          : undefined;
      if (value === undefined) throw this.dangling(reference, pointer, from);
    }
    return { value, place: this.at(pointer), pointer };
  }

  /** Follows `$ref` members, also chains of them. */
  deref(located: Located): Located {
    let current = located;
    const seen = new Set<string>();
    for (;;) {
      const reference = isData(current.value) ? textMember(current.value, "$ref") : undefined;
      if (reference === undefined) return current;
      if (seen.has(reference))
        throw this.fault("contract.cycle", `The reference \`${reference}\` refers to itself.`, current.place);
      seen.add(reference);
      const { value, place } = this.target(reference, below(current.place, "$ref"));
      current = { value: withOwnWords(value, current.value), place };
    }
  }

  /**
   * Follows references to an object of a kind and checks its structure. Errors that the reader would misread are
   * faults, and other violations are notes.
   */
  object(located: Located, kind: StructureKind): Located<Data> {
    const found = this.deref(located);
    if (!isData(found.value)) {
      const message = `${sentenceStart[kind]} must be an object, but is ${kindOf(found.value)}.`;
      throw this.fault("contract.invalid", message, found.place);
    }
    this.check(kind, found.value, found.place);
    return { value: found.value, place: found.place };
  }

  /** Checks an object. @throws Fault for the first error that the reader would misread */
  check(kind: StructureKind, value: Data, place: PointerPlace): void {
    for (const misfit of checkStructure(kind, value)) {
      const at = belowAll(place, misfit.path);
      if (misfit.isFault) throw this.fault("contract.invalid", misfit.message, at);
      this.note("contract.irregular", misfit.message, at);
    }
  }

  fault(
    code: "contract.invalid" | "contract.cycle" | "contract.reference",
    message: string,
    place: PointerPlace,
    hint?: string,
  ): Fault {
    return new Fault(problem(code, message, { level: "warning", place, ...(hint === undefined ? {} : { hint }) }));
  }

  /** Adds a note that does not affect the SDK, once for each place. */
  note(
    code: "contract.conflict" | "contract.invalid" | "contract.irregular" | "contract.wider",
    message: string,
    place: PointerPlace,
  ): void {
    if (code === "contract.irregular" || code === "contract.wider") {
      const known = this.folded.get(message);
      if (known) known.places.push(place);
      else this.folded.set(message, { code, places: [place] });
      return;
    }
    const key = `${place.document}#${place.pointer} ${message}`;
    if (this.noted.has(key)) return;
    this.noted.add(key);
    this.problems.push(problem(code, message, { level: "warning", place }));
  }

  /** Returns all notes. A rule with violations in many places is reported once. */
  allProblems(): Problem[] {
    const irregular = [...this.folded].map(([message, { code, places }]) => {
      const more = places.length > 1 ? ` The same in ${counted(places.length - 1)}.` : "";
      return problem(code, message + more, { level: "note", places: places.slice(0, 1) });
    });
    return [...this.problems, ...irregular];
  }

  private unobtained(reference: string, from: PointerPlace): Fault {
    const reason = this.names.unobtainable.get(reference.replace(/#.*$/, ""));
    const message = `The reference \`${reference}\` refers to a document that ${reason ?? "is not part of this contract"}.`;
    return this.fault("contract.reference", message, from);
  }

  private dangling(reference: string, pointer: string, from: PointerPlace): Fault {
    const tokens = pointerTokens(pointer);
    const wanted = tokens.pop() ?? "";
    let parent: unknown = this.root;
    for (const token of tokens) parent = isData(parent) ? member(parent, token) : undefined;
    const near = isData(parent) ? nearest(wanted, Object.keys(parent))[0] : undefined;
    const hint = near === undefined ? undefined : `The closest name is \`${near}\`.`;
    return this.fault("contract.reference", `The reference \`${reference}\` does not resolve.`, from, hint);
  }
}

const sentenceStart: Readonly<Record<StructureKind, string>> = {
  contract: "The contract",
  schema: "A schema",
  operation: "An operation",
  pathItem: "A path item",
  parameter: "A parameter",
  header: "A header",
  requestBody: "A request body",
  responses: "`responses`",
  response: "A response",
  mediaType: "A media type",
  callback: "A callback",
  authScheme: "An auth scheme",
};

/** OpenAPI 3.1 allows descriptions next to a reference. They are more specific than those of the target. */
function withOwnWords(value: unknown, referring: unknown): unknown {
  if (!isData(value) || !isData(referring)) return value;
  const words = ["summary", "description"].filter((key) => typeof referring[key] === "string");
  return words.length === 0 ? value : { ...value, ...Object.fromEntries(words.map((key) => [key, referring[key]])) };
}

function counted(places: number): string {
  return places === 1 ? "one more place" : `${String(places)} more places`;
}

/** Decodes a percent-encoded fragment. An invalid encoding stays as it is. */
export function decodeFragment(fragment: string): string {
  try {
    return decodeURIComponent(fragment);
  } catch {
    return fragment;
  }
}
