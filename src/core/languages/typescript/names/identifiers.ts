import { pascalCase } from "../../../text/words.js";
import { ownTag } from "../../hostFiles.js";
import type { ContractPlan, PlannedType } from "../../../sdk/sdkPlan.js";

/** Words that are not valid names of functions or constants in a strict ES module. */
const reservedWords = new Set(
  (
    "arguments as async await boolean break case catch class const continue debugger default delete do else enum eval export extends false finally for " +
    "from function if implements import in instanceof interface let new null number of package private protected public return static string super switch " +
    "symbol this throw true try type typeof undefined unknown var void while with yield any never object args checks connection conversions formats options wire"
  ).split(" "),
);

/** Names of the platform, which readers would confuse, or which generated code needs itself. */
const platformTypes = new Set(
  (
    "Array ArrayBuffer AsyncGenerator AsyncIterable BigInt Blob Boolean Buffer CallOptions Connection Date Document Element Error Event EventTarget Exclude Extract FormData Function Headers " +
    "Infinity Intl Iterable JSON Location Map Math NaN Navigator Node NoArguments Notification Number Object Omit Option Partial Pick Process Promise Proxy Range Readonly " +
    "ReadonlyArray Record Reflect RegExp Request Required Response ReturnType SealedAs Selection Set String Supplier Symbol Text Uint8Array URL WeakMap WeakSet Window Worker"
  ).split(" "),
);

/** Returns a type identifier: the plan's name, changed if the platform has it. */
export function typeIdentifier(name: string): string {
  const safe = startsIdentifier(name) ? name : `_${name}`;
  return platformTypes.has(safe) ? `${safe}Shape` : safe;
}

function startsIdentifier(name: string): boolean {
  return /^[A-Za-z_$]/.test(name) || /^\p{ID_Start}/u.test(name);
}

/** Returns an identifier for a function or constant. */
export function valueIdentifier(name: string): string {
  const safe = startsIdentifier(name) ? name : `_${name}`;
  return reservedWords.has(safe) ? `${safe}Call` : safe;
}

export type TypeNames = ReadonlyMap<string, string>;

/**
 * Returns the identifier of every planned type by id. They are unique, also after names of the platform were changed.
 */
export function typeNames(plan: ContractPlan): TypeNames {
  const names = new Map<string, string>();
  const taken = new Set<string>();
  const moved: PlannedType[] = [];
  for (const type of plan.types.values()) {
    const identifier = typeIdentifier(type.name);
    if (identifier !== type.name) moved.push(type);
    else {
      names.set(type.id, identifier);
      taken.add(identifier.toLowerCase());
    }
  }
  for (const type of moved) {
    let identifier = typeIdentifier(type.name);
    for (let number = 2; taken.has(identifier.toLowerCase()); number++)
      identifier = `${typeIdentifier(type.name)}${String(number)}`;
    names.set(type.id, identifier);
    taken.add(identifier.toLowerCase());
  }
  return names;
}

/** Returns the names of a whole contract, from its name in the configuration. */
export function contractNames(contract: string) {
  const name = pascalCase(contract);
  return {
    connection: `${name}Connection`,
    options: `${name}ConnectionOptions`,
    connect: `connect${name}`,
    fakes: `${name}Fakes`,
    fake: `fake${name}`,
    grouped: `${name.charAt(0).toLowerCase()}${name.slice(1)}Calls`,
    cached: `cached${name}`,
    key: `${name.charAt(0).toLowerCase()}${name.slice(1)}Key`,
    fragments: `${name}Fragments`,
    queries: ownTag(contract),
  };
}
