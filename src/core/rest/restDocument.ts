import { below, pointerPlace, pointerTokens, type PointerPlace } from "../problem/place.js";
import { problem, type Problem } from "../problem/problem.js";
import { nearest } from "../text/nearest.js";
import { isData, member, textMember, type Data } from "../text/parseData.js";
import { Fault } from "./fault.js";

/** A value of the document together with where it stands. */
export interface Located<T = unknown> {
  readonly value: T;
  readonly place: PointerPlace;
}

/** One parsed OpenAPI document and the problems found while reading it. */
export class RestDocument {
  readonly problems: Problem[] = [];

  constructor(
    readonly name: string,
    readonly root: Data,
  ) {}

  get place(): PointerPlace {
    return pointerPlace(this.name, "");
  }

  at(pointer: string): PointerPlace {
    return pointerPlace(this.name, pointer);
  }

  /** Follows a local reference (RFC 6901 in a URI fragment). Throws a Fault when it leads nowhere or elsewhere. */
  target(reference: string, from: PointerPlace): Located {
    if (!reference.startsWith("#")) {
      throw new Fault(
        "unsupported",
        problem("contract.unsupported", `The reference \`${reference}\` leads to another document.`, {
          level: "warning",
          place: from,
          hint: "References between files are not read yet; bundle the contract into one file.",
        }),
      );
    }
    const pointer = decodeFragment(reference.slice(1));
    if (pointer !== "" && !pointer.startsWith("/")) {
      throw this.unsupported(`The reference \`${reference}\` names an anchor, which is not read yet.`, from);
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
    return { value, place: this.at(pointer) };
  }

  /** Follows `$ref` members, also chains of them, until something else stands there. */
  deref(located: Located): Located {
    let current = located;
    const seen = new Set<string>();
    for (;;) {
      const reference = isData(current.value) ? textMember(current.value, "$ref") : undefined;
      if (reference === undefined) return current;
      if (seen.has(reference))
        throw this.fault("contract.cycle", `The reference \`${reference}\` leads back to itself.`, current.place);
      seen.add(reference);
      current = this.target(reference, below(current.place, "$ref"));
    }
  }

  /** Like `deref`, and the result has to be an object. */
  object(located: Located, what: string): Located<Data> {
    const found = this.deref(located);
    if (isData(found.value)) return { value: found.value, place: found.place };
    throw this.fault("contract.invalid", `${what} has to be an object, and is ${kindOf(found.value)}.`, found.place);
  }

  fault(
    code: "contract.invalid" | "contract.cycle" | "contract.reference",
    message: string,
    place: PointerPlace,
    hint?: string,
  ): Fault {
    return new Fault(
      "fault",
      problem(code, message, { level: "warning", place, ...(hint === undefined ? {} : { hint }) }),
    );
  }

  unsupported(message: string, place: PointerPlace): Fault {
    return new Fault("unsupported", problem("contract.unsupported", message, { level: "warning", place }));
  }

  note(code: "contract.conflict" | "contract.invalid", message: string, place: PointerPlace): void {
    this.problems.push(problem(code, message, { level: "warning", place }));
  }

  private dangling(reference: string, pointer: string, from: PointerPlace): Fault {
    const tokens = pointerTokens(pointer);
    const wanted = tokens.pop() ?? "";
    let parent: unknown = this.root;
    for (const token of tokens) parent = isData(parent) ? member(parent, token) : undefined;
    const near = isData(parent) ? nearest(wanted, Object.keys(parent))[0] : undefined;
    const hint = near === undefined ? undefined : `The nearest name there is \`${near}\`.`;
    return this.fault("contract.reference", `The reference \`${reference}\` leads nowhere.`, from, hint);
  }
}

function decodeFragment(fragment: string): string {
  try {
    return decodeURIComponent(fragment);
  } catch {
    return fragment;
  }
}

/** What a value is, in words for a message. */
export function kindOf(value: unknown): string {
  if (value === null) return "null";
  if (value === undefined) return "missing";
  if (Array.isArray(value)) return "a list";
  if (typeof value === "object") return "an object";
  if (typeof value === "string") return `the text ${JSON.stringify(value.slice(0, 40))}`;
  return `the ${typeof value} ${JSON.stringify(value)}`;
}
