import { camelCase, pascalCase } from "../text/words.js";

const spelled: Readonly<Record<string, string>> = {
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
};

/**
 * A name in PascalCase made from anything a contract may hold. A name without letters or digits is spelled out, so
 * that `+1` and `-1` stay apart; what cannot be spelled becomes its code points.
 */
export function typeNameFrom(text: string): string {
  const known = typeNamesMade.get(text);
  if (known !== undefined) return known;
  const name = makeTypeName(text);
  if (typeNamesMade.size >= mostNamesKept) typeNamesMade.clear();
  typeNamesMade.set(text, name);
  return name;
}

// Contracts repeat the same field names thousands of times.
const typeNamesMade = new Map<string, string>();
const memberNamesMade = new Map<string, string>();
const mostNamesKept = 20_000;

function makeTypeName(text: string): string {
  const direct = pascalCase(text.replace(/^([+-])(?=\d)/, (sign) => ` ${spelled[sign] ?? ""} `));
  if (direct !== "") return direct;
  const spelledOut = Array.from(text)
    .map((character) => spelled[character] ?? `u${(character.codePointAt(0) ?? 0).toString(16)}`)
    .join(" ");
  return pascalCase(spelledOut) || "Empty";
}

export function memberNameFrom(text: string): string {
  const known = memberNamesMade.get(text);
  if (known !== undefined) return known;
  const name = camelCase(typeNameFrom(text)) || "empty";
  if (memberNamesMade.size >= mostNamesKept) memberNamesMade.clear();
  memberNamesMade.set(text, name);
  return name;
}

/** Hands out names that are unique whatever the case; a second claim of a name is numbered from 2. */
export class NameScope {
  private readonly taken = new Set<string>();

  constructor(reserved: Iterable<string> = []) {
    for (const name of reserved) this.taken.add(name.toLowerCase());
  }

  claim(wanted: string): string {
    let name = wanted;
    for (let number = 2; this.taken.has(name.toLowerCase()); number++)
      name = `${wanted}${/\d$/.test(wanted) ? "_" : ""}${String(number)}`;
    this.taken.add(name.toLowerCase());
    return name;
  }
}

/** Names that an SDK gives to a contract as a whole; nothing the contract holds may take them. */
export function contractOwnNames(contract: string): string[] {
  const name = pascalCase(contract);
  return [`${name}Connection`, `${name}ConnectionOptions`, `Connect${name}`];
}
