import { mark } from "../../../sdk/nameScope.js";
import { words } from "../../../text/words.js";

/** Words that are only valid as names in backticks (Kotlin grammar, hard keywords). */
const hardKeywords = new Set(
  (
    "as break class continue do else false for fun if in interface is null object package return super this throw true " +
    "try typealias typeof val var when while"
  ).split(" "),
);

/** The types that printed code needs from the language, the platform, libraries and the runtime. */
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

/** Longer names give class files that file systems refuse: 255 bytes, with the names of nested classes. */
const longestName = 100;

/** Nearly every name matches this. The test for letters of all scripts takes longer. */
const latinIdentifier = /^[A-Za-z][A-Za-z0-9_]*$/;

/** Returns a name as source, in backticks if the grammar requires them. */
export function spelled(name: string): string {
  if (latinIdentifier.test(name)) return hardKeywords.has(name) ? `\`${name}\`` : name;
  return plainIdentifier.test(name) && !hardKeywords.has(name) && !/^_+$/.test(name) ? name : `\`${name}\``;
}

/** Returns the name of a type: the plan's, changed if printed code needs that name. */
export function typeIdentifier(name: string): string {
  const short = shortened(startsName(name) ? name : `_${name}`);
  return takenTypes.has(short) || /^Tuple\d+/.test(short) ? `${short}Shape` : short;
}

/** Kotlin's own names inside a nested class of one value. Other names are written with their package. */
const takenInside = new Set(["Any", "Boolean", "Deprecated", "Double", "Int", "List", "Long", "Map", "String"]);

/** Returns the name of a class with one value that is nested in an interface. */
export function nestedIdentifier(name: string): string {
  return takenInside.has(name) || /^Tuple\d+/.test(name) ? `${name}Shape` : name;
}

/**
 * Returns the name of a property, a parameter or a function: the plan's, changed if it is taken.
 *
 * @param ending added to a name that is taken
 */
export function memberIdentifier(name: string, taken: ReadonlySet<string>, ending: string): string {
  const short = shortened(startsName(name) ? name : `_${name}`);
  return taken.has(short) ? short + ending : short;
}

/** Properties whose getters every object has and cannot override. */
export const takenProperties: ReadonlySet<string> = new Set(["class"]);

/** Functions that every object has. They take precedence over extension functions. */
export const takenFunctions: ReadonlySet<string> = new Set(["equals", "hashCode", "toString"]);

/** Returns the name of a constant: the member's in PascalCase. */
export function constantIdentifier(member: string): string {
  const name = member.charAt(0).toUpperCase() + member.slice(1);
  return shortened(startsName(name) ? name : `_${name}`);
}

/** Returns the last part of a package's name, from the name of a contract. No two contracts have the same. */
export function packageSegment(contract: string): string {
  const name = contract.replace(/[^A-Za-z0-9]/g, "_").toLowerCase();
  const safe = /^[a-z_]/.test(name) ? name : `_${name}`;
  // No contract's name begins with one.
  return hardKeywords.has(safe) || safe === "wire" ? `_${safe}` : safe;
}

/** Returns the default package of an SDK. */
export function usualNamespace(sdk: string): string {
  return packageSegment(words(sdk).join("").toLowerCase() || "sdk");
}

function startsName(name: string): boolean {
  return /^[A-Za-z_]/.test(name) || /^[\p{L}\p{Nl}]/u.test(name);
}

function shortened(name: string): string {
  return name.length <= longestName ? name : `${name.slice(0, longestName)}_${mark(name)}`;
}
