import { pascalCase } from "../../../text/words.js";
import { ownTag } from "../../hostFiles.js";
import type { ContractPlan, PlannedType } from "../../../sdk/sdkPlan.js";

/** Words that cannot name a function or a constant in a strict ES module. */
const reservedWords = new Set(
  (
    "arguments as async await boolean break case catch class const continue debugger default delete do else enum eval export extends false finally for " +
    "from function if implements import in instanceof interface let new null number of package private protected public return static string super switch " +
    "symbol this throw true try type typeof undefined unknown var void while with yield any never object args checks connection conversions formats options wire"
  ).split(" "),
);

/** Names a reader takes for the platform's, or that generated code itself needs from it. */
const platformTypes = new Set(
  (
    "Array ArrayBuffer AsyncGenerator AsyncIterable BigInt Blob Boolean Buffer CallOptions Connection Date Document Element Error Event EventTarget Exclude Extract FormData Function Headers " +
    "Infinity Intl Iterable JSON Location Map Math NaN Navigator Node NoArguments Notification Number Object Omit Option Partial Pick Process Promise Proxy Range Readonly " +
    "ReadonlyArray Record Reflect RegExp Request Required Response ReturnType SealedAs Selection Set String Supplier Symbol Text Uint8Array URL WeakMap WeakSet Window Worker"
  ).split(" "),
);

/** An identifier for a type: the plan's name, moved out of the way of the platform's own. */
export function typeIdentifier(name: string): string {
  const safe = startsIdentifier(name) ? name : `_${name}`;
  return platformTypes.has(safe) ? `${safe}Shape` : safe;
}

function startsIdentifier(name: string): boolean {
  return /^[A-Za-z_$]/.test(name) || /^\p{ID_Start}/u.test(name);
}

/** An identifier for a function or constant. */
export function valueIdentifier(name: string): string {
  const safe = startsIdentifier(name) ? name : `_${name}`;
  return reservedWords.has(safe) ? `${safe}Call` : safe;
}

export type TypeNames = ReadonlyMap<string, string>;

/** The identifier of every planned type by id; unique also after platform names were moved out of the way. */
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

/** Names of what a contract as a whole gets, from its name in the configuration. */
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
