import { mark } from "../../../sdk/nameScope.js";
import { remembered } from "../../../text/remembered.js";
import { pascalCase } from "../../../text/words.js";

/** Words that are only valid as names in backticks (The Swift Programming Language, Lexical Structure, keywords). */
const keywords = new Set(
  (
    "associatedtype class deinit enum extension fileprivate func import init inout internal let open operator private " +
    "precedencegroup protocol public rethrows static struct subscript typealias var break case catch continue default " +
    "defer do else fallthrough for guard if in repeat return throw switch where while Any as await catch false is nil " +
    "self Self super throw throws true try _"
  ).split(" "),
);

const plainIdentifier = /^[\p{L}\p{Nl}_][\p{L}\p{Nl}\p{Nd}_]*$/u;
const longestName = 200;

/** Returns a name as source, in backticks if the grammar requires them. */
export function spelled(name: string): string {
  return keywords.has(name) ? `\`${name}\`` : name;
}

/** Types that printed code needs, and words that are not valid as type names after a dot. */
const takenTypes = new Set([
  "Any",
  "Foundation",
  "Forms",
  "Operations",
  "Protocol",
  "Readings",
  "Self",
  "Swift",
  "Type",
  "_Concurrency",
]);

/** Returns the name of a type: the plan's, changed if it is taken. */
export function typeIdentifier(name: string): string {
  const short = legal(name);
  return takenTypes.has(short) || /^Tuple\d+/.test(short) ? `${short}Shape` : short;
}

/** Properties that would hide a member of every value. */
const takenMembers: ReadonlySet<string> = new Set(["hash", "hashValue", "inout", "self"]);

/** Returns the name of a property. */
export const memberIdentifier = remembered((name) => {
  const own = withCapitals(legal(name));
  return takenMembers.has(own) ? `${own}Value` : own;
});

/** Words that are not valid as labels, or that would hide a member of every function. */
const takenParameters: ReadonlySet<string> = new Set(["inout", "options", "self", "wire"]);

/** Returns the name of a parameter, and its label. @param apart the name that only this one has */
export function parameterIdentifier(name: string, apart = `${name}Value`): string {
  const own = withCapitals(legal(name));
  return takenParameters.has(own) ? withCapitals(legal(apart === name ? `${apart}Value` : apart)) : own;
}

/** Cases that the compiler takes for those of an optional, or that a printed type has itself. */
const takenCases: ReadonlySet<string> = new Set([
  ...["allCases", "hash", "hashValue", "none", "other", "rawValue", "self", "some", "value", "Protocol", "Type"],
]);

/** Returns the name of a case or a constant. */
export const caseIdentifier = remembered((name) => {
  const own = withCapitals(legal(name));
  return takenCases.has(own) ? `${own}Value` : own;
});

/** Returns the name of a function of a connection. */
export function functionIdentifier(name: string): string {
  const own = withCapitals(legal(name));
  return ["init", "self", "wire"].includes(own) ? `${own}Call` : own;
}

/** Words that Swift's guidelines write in capitals, except at the beginning of a name. */
const capitals = /(?<=[a-z0-9])(?:Api|Html|Http|Https|Id|Ip|Json|Uri|Url|Uuid|Xml)(?=s?(?:[A-Z0-9_]|$))/g;

function withCapitals(name: string): string {
  return name.replace(capitals, (word) => word.toUpperCase());
}

function legal(name: string): string {
  // Most names are plain and short.
  if (/^[A-Za-z][A-Za-z0-9]{0,99}$/.test(name)) return name;
  const begun = /^[\p{L}\p{Nl}_]/u.test(name) ? name : `_${name}`;
  const safe = plainIdentifier.test(begun) ? begun : begun.replace(/[^\p{L}\p{Nl}\p{Nd}_]/gu, "_");
  const named = /^_*$/.test(safe) ? `${safe}_${mark(name)}` : safe;
  return named.length <= longestName ? named : `${named.slice(0, longestName)}_${mark(named)}`;
}

/** Returns the namespace of a contract, without the SDK's prefix. */
export function contractNamespace(contract: string): string {
  const name = pascalCase(contract) || "API";
  const safe = legal(name);
  // A contract can have the name of the runtime, or of a module of the platform.
  return ["Wire", "Swift", "Foundation", "FoundationNetworking"].includes(safe) || keywords.has(safe)
    ? `${safe}Calls`
    : safe;
}
