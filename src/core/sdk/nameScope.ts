import { remembered } from "../text/remembered.js";
import { camelCase, pascalCase } from "../text/words.js";

const spellings: Readonly<Record<string, string>> = {
  "+": "plus",
  "-": "minus",
  "@": "at",
  "#": "hash",
  "*": "star",
  $: "dollar",
  "%": "percent",
  "<": "below",
  ">": "above",
  "=": "equal",
  ".": "dot",
  "/": "slash",
  _: "underscore",
  " ": "space",
  ":": "colon",
};

/**
 * Returns a name in PascalCase from any text in a contract. A text without letters or digits is spelled out, so that
 * `+1` and `-1` get different names. A character without a spelling becomes its code point.
 */
export function typeNameFrom(text: string): string {
  // Most names are letters and digits. Only their first letter may change, because words begin with capitals.
  if (/^[A-Za-z][A-Za-z0-9]*$/.test(text)) return text.charAt(0).toUpperCase() + text.slice(1);
  const direct = pascalCase(text.replace(/^([+-])(?=\d)/, (sign) => ` ${spellings[sign] ?? ""} `));
  if (direct !== "") return direct;
  const spelledOut = Array.from(text)
    .map((character) => spellings[character] ?? `u${(character.codePointAt(0) ?? 0).toString(16)}`)
    .join(" ");
  return pascalCase(spelledOut) || "Empty";
}

/** Returns the camelCase name of a member from any text in a contract. */
export const memberNameFrom = remembered((text) => {
  // A first word of several letters that is not an abbreviation only loses its capital.
  if (/^[A-Za-z][a-z][A-Za-z0-9]*$/.test(text)) return text.charAt(0).toLowerCase() + text.slice(1);
  return camelCase(typeNameFrom(text)) || "empty";
});

/**
 * Hands out names that are unique in any case. A name that is taken is made unique with the thing's own key, never with
 * a number, so that changes elsewhere do not affect it.
 */
export class NameScope {
  /** Names that differ from the wanted ones, in the order in which they were claimed. */
  readonly clashes: NameClash[] = [];
  private readonly taken = new Set<string>();

  constructor(reserved: Iterable<string> = []) {
    for (const name of reserved) this.taken.add(name.toLowerCase());
  }

  isTaken(name: string): boolean {
    return this.taken.has(name.toLowerCase());
  }

  /** Claims all names as they are if each is free and wanted once, otherwise none. Returns whether it did. */
  claimAll(names: readonly string[]): boolean {
    for (let at = 0; at < names.length; at++) {
      const before = this.taken.size;
      this.taken.add((names[at] ?? "").toLowerCase());
      if (this.taken.size > before) continue;
      for (const name of names.slice(0, at)) this.taken.delete(name.toLowerCase());
      return false;
    }
    return true;
  }

  /**
   * Claims a name.
   *
   * @param key the name to use if nothing else has it
   * @param first the name that it would have if others did not want it too
   */
  claim(wanted: string, key = wanted, first = wanted): string {
    let name = wanted;
    let folded = name.toLowerCase();
    for (let salt = ""; this.taken.has(folded); salt += "+") {
      name = `${wanted}_${mark(key + salt)}`;
      folded = name.toLowerCase();
    }
    this.taken.add(folded);
    if (name !== first) this.clashes.push({ wanted: first, name });
    return name;
  }
}

/** A name that was wanted by several things, and the name that was given instead. */
export interface NameClash {
  readonly wanted: string;
  readonly name: string;
}

/** The wanted names of several things that are named together. */
export interface WantedNames<T> {
  readonly wanted: (thing: T) => string;
  /** The name that only this thing has, if others want the same. */
  readonly apart: (thing: T) => string;
  readonly key: (thing: T) => string;
}

/**
 * Claims names for several things together. A thing that wants a name alone gets it. Rivals each get the name that only
 * they have.
 *
 * @returns the name of each thing
 */
export function claimApart<T>(
  scope: NameScope,
  things: Iterable<T>,
  { wanted, apart, key }: WantedNames<T>,
): Map<T, string> {
  const all = Array.from(things);
  const wantedNames = all.map(wanted);
  const names = new Map<T, string>();
  // Usually every name is wanted once.
  if (scope.claimAll(wantedNames)) {
    all.forEach((thing, at) => names.set(thing, wantedNames[at] ?? ""));
    return names;
  }
  const claims = all.map((thing, at) => {
    const name = wantedNames[at] ?? "";
    return { thing, name, folded: name.toLowerCase() };
  });
  const counts = new Map<string, number>();
  for (const { folded } of claims) counts.set(folded, (counts.get(folded) ?? 0) + 1);
  const rivals = new Map<string, T[]>();
  for (const { thing, name, folded } of claims) {
    if (counts.get(folded) === 1 && !scope.isTaken(name)) names.set(thing, scope.claim(name));
    else rivals.set(folded, [...(rivals.get(folded) ?? []), thing]);
  }
  for (const group of rivals.values())
    for (const rival of group) names.set(rival, scope.claim(apart(rival), key(rival)));
  return names;
}

/** Returns four characters that depend only on the text (FNV-1a). */
export function mark(text: string): string {
  let hash = 0x811c9dc5;
  for (const character of text) hash = Math.imul(hash ^ (character.codePointAt(0) ?? 0), 0x01000193);
  return (hash >>> 0).toString(36).padStart(4, "0").slice(-4);
}

/**
 * Returns a name in PascalCase in which all characters except letters and digits are spelled out: `berth-size` is
 * BerthMinusSize.
 */
export function spelledTypeName(text: string): string {
  const spelledOut = Array.from(text)
    .map((character) => (/[\p{L}\p{Nd}\p{M}]/u.test(character) ? character : ` ${spellings[character] ?? ""} `))
    .join("");
  return pascalCase(spelledOut) || typeNameFrom(text);
}

/** Returns the names that an SDK gives to a whole contract. No part of the contract may have them. */
export function contractOwnNames(contract: string): string[] {
  const name = pascalCase(contract);
  return [
    `${name}Connection`,
    `${name}ConnectionOptions`,
    `Connect${name}`,
    `${name}Fakes`,
    `${name}Fragments`,
    `${name}Queries`,
  ];
}
