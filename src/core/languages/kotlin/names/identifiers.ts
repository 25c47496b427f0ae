import { mark } from "../../../sdk/nameScope.js";
import { words } from "../../../text/words.js";

/** Words that name nothing without backticks (Kotlin grammar, hard keywords). */
const hardKeywords = new Set(
  (
    "as break class continue do else false for fun if in interface is null object package return super this throw true " +
    "try typealias typeof val var when while"
  ).split(" "),
);

/** Names of types that printed code needs from the language, the platform, libraries and the runtime. */
const takenTypes = new Set(
  (
    "Any Array Boolean Byte Char Comparable Deprecated Double Enum Exception Float Int Iterable JvmInline JvmName List Long Map MutableList MutableMap " +
    "Nothing Number Pair Set Short String Suppress Throwable Triple Unit Void " +
    "ByteString Flow Headers Instant JsonArray JsonElement JsonNull JsonObject JsonPrimitive " +
    "AnswerRule AnyForm BodyForm Body BooleanForm CallFailure CallOptions Check FieldCheck Connection ConnectionSettings Credential DoubleForm FailedAnswer FailureRule " +
    "FieldWay Form InstantForm Mismatch IntForm ItemKind LongForm Mishap Outcome OwnServer Paging PlainForm Reader RecordWriter Reading Report RestRequest " +
    "Scheme Sent TextForm Upload UploadForm Writer"
  ).split(" "),
);

const plainIdentifier = /^[\p{Lu}\p{Ll}\p{Lt}\p{Lm}\p{Lo}\p{Nl}_][\p{Lu}\p{Ll}\p{Lt}\p{Lm}\p{Lo}\p{Nl}\p{Nd}_]*$/u;

/** Longer names make class files that no disk takes: 255 bytes, with the names of what is nested in them. */
const longestName = 100;

/** What nearly every name is; the test for letters of all scripts takes longer. */
const latinIdentifier = /^[A-Za-z][A-Za-z0-9_]*$/;

/** A name as source spells it: in backticks where the grammar wants them. */
export function spelled(name: string): string {
  if (latinIdentifier.test(name)) return hardKeywords.has(name) ? `\`${name}\`` : name;
  return plainIdentifier.test(name) && !hardKeywords.has(name) && !/^_+$/.test(name) ? name : `\`${name}\``;
}

/** The name of a type: the plan's, moved out of the way of those that printed code needs. */
export function typeIdentifier(name: string): string {
  const short = shortened(startsName(name) ? name : `_${name}`);
  return takenTypes.has(short) || /^Tuple\d+/.test(short) ? `${short}Shape` : short;
}

/** Kotlin's own names that a class of one value, nested in an interface, is written with; others are named with their package. */
const takenInside = new Set(["Any", "Boolean", "Deprecated", "Double", "Int", "List", "Long", "Map", "String"]);

/** The name of a class that is nested in an interface and holds one value. */
export function nestedIdentifier(name: string): string {
  return takenInside.has(name) || /^Tuple\d+/.test(name) ? `${name}Shape` : name;
}

/** The name of a property, a parameter or a function: the plan's, moved out of the way of some. */
export function memberIdentifier(name: string, taken: ReadonlySet<string>, ending: string): string {
  const short = shortened(startsName(name) ? name : `_${name}`);
  return taken.has(short) ? short + ending : short;
}

/** Properties whose getters every object has, in a form that cannot be replaced. */
export const takenProperties: ReadonlySet<string> = new Set(["class"]);

/** Functions that every object has: they would go before one that is declared outside of it. */
export const takenFunctions: ReadonlySet<string> = new Set(["equals", "hashCode", "toString"]);

/** The name of a constant: a member's in PascalCase. */
export function constantIdentifier(member: string): string {
  const name = member.charAt(0).toUpperCase() + member.slice(1);
  return shortened(startsName(name) ? name : `_${name}`);
}

/** The last part of a package's name, from the name of a contract: no two contracts have the same. */
export function packageSegment(contract: string): string {
  const name = contract.replace(/[^A-Za-z0-9]/g, "_").toLowerCase();
  const safe = /^[a-z_]/.test(name) ? name : `_${name}`;
  // No contract's name begins with one.
  return hardKeywords.has(safe) || safe === "wire" ? `_${safe}` : safe;
}

/** The package of an SDK whose configuration names none. */
export function usualNamespace(sdk: string): string {
  return packageSegment(words(sdk).join("").toLowerCase() || "sdk");
}

function startsName(name: string): boolean {
  return /^[A-Za-z_]/.test(name) || /^[\p{L}\p{Nl}]/u.test(name);
}

function shortened(name: string): string {
  return name.length <= longestName ? name : `${name.slice(0, longestName)}_${mark(name)}`;
}
