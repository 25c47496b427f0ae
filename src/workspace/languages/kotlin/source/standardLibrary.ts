import { builtIn, type GivenType, type KnownCall, type Library } from "../../source/library.js";
import type { Type } from "../../source/knownProgram.js";

const containers = new Set(
  (
    "List MutableList Set MutableSet Collection MutableCollection Iterable Sequence Array ArrayList LinkedHashSet HashSet Flow StateFlow " +
    "SharedFlow MutableStateFlow MutableSharedFlow Channel PersistentList ImmutableList Iterator ListIterator MutableIterator"
  ).split(" "),
);
const maps = new Set("Map MutableMap HashMap LinkedHashMap".split(" "));
const holders = new Set(
  "State MutableState Lazy Result Deferred Optional LiveData MutableLiveData StateFlow MutableStateFlow AtomicReference".split(
    " ",
  ),
);

/** Returns the type of a container's items; undefined if the type is not a container. */
export function itemOf(type: Type | undefined): Type | undefined {
  if (!type) return undefined;
  if (containers.has(type.name)) return type.arguments[0];
  return maps.has(type.name) ? builtIn("Entry", ...type.arguments) : undefined;
}

/** Returns whether a type of the standard library contains values: a list, map, flow and so on. */
export function isContainer(type: Type | undefined): boolean {
  return type !== undefined && (containers.has(type.name) || maps.has(type.name));
}

/** Returns the type of a property that `by` delegates to an object of this type. */
export function delegated(type: Type | undefined): Type | undefined {
  return type && (holders.has(type.name) || type.name === "Lazy") ? type.arguments[0] : undefined;
}

/** Types of the language, whose members are not an SDK's. */
const plain = new Set(
  "String Int Long Double Float Boolean Char Byte Short Unit Nothing Instant Duration LocalDate Any Number Regex".split(
    " ",
  ),
);

/** Returns whether a type of the standard library is a single value: a string, a number and so on. */
export function isPlain(type: Type | undefined): boolean {
  return type !== undefined && plain.has(type.name);
}

/** Returns the type of a property of the language's own types; undefined if it is unknown. */
export function knownProperty(type: Type, name: string): Type | undefined {
  const [first, second] = type.arguments;
  switch (name) {
    case "value":
      return holders.has(type.name)
        ? first
        : type.name === "Entry" || type.name === "IndexedValue"
          ? (second ?? first)
          : undefined;
    case "key":
      return type.name === "Entry" ? first : undefined;
    case "first":
    case "second":
      return type.name === "Pair" || type.name === "Triple" ? (name === "first" ? first : second) : undefined;
    case "third":
      return type.name === "Triple" ? type.arguments[2] : undefined;
    case "values":
      return maps.has(type.name) ? builtIn("Collection", second) : undefined;
    case "keys":
      return maps.has(type.name) ? builtIn("Set", first) : undefined;
    case "entries":
      return maps.has(type.name) ? builtIn("Set", builtIn("Entry", first, second)) : undefined;
    case "size":
    case "lastIndex":
    case "length":
      return builtIn("Int");
    case "indices":
      return builtIn("List", builtIn("Int"));
    default:
      return undefined;
  }
}

/**
 * Returns the type of a component in a destructuring declaration.
 *
 * @param at the position, from 0
 */
export function knownComponent(type: Type, at: number): Type | undefined {
  if (["Pair", "Triple", "Entry"].includes(type.name)) return type.arguments[at];
  if (type.name === "IndexedValue") return at === 0 ? builtIn("Int") : type.arguments[0];
  return itemOf(type);
}

/** Functions that sort values by the result of their lambda. */
const ordering = new Set("sortedBy sortedByDescending maxBy minBy maxByOrNull minByOrNull".split(" "));
const same = new Set(
  (
    "filter filterNot filterNotNull filterIndexed filterIsInstance sortedBy sortedByDescending sorted sortedDescending sortedWith take takeLast drop dropLast takeWhile dropWhile " +
    "distinct distinctBy distinctUntilChanged distinctUntilChangedBy reversed shuffled onEach onEachIndexed toList toMutableList asSequence asReversed orEmpty plus minus " +
    "flowOn catch onStart onCompletion buffer conflate debounce sample retry stateIn shareIn asStateFlow asSharedFlow asFlow asIterable asList ifEmpty subList slice sortedArray"
  ).split(" "),
);
const one = new Set(
  "first last single random elementAt get maxBy minBy max min reduce removeAt removeFirst removeLast getValue awaitFirst receive".split(
    " ",
  ),
);
const oneOrNone = new Set(
  "firstOrNull lastOrNull singleOrNull find findLast getOrNull elementAtOrNull maxByOrNull minByOrNull randomOrNull maxOrNull minOrNull getOrElse maxWithOrNull minWithOrNull".split(
    " ",
  ),
);
const plainResults: ReadonlyMap<string, string> = new Map([
  ["any", "Boolean"],
  ["all", "Boolean"],
  ["none", "Boolean"],
  ["contains", "Boolean"],
  ["isEmpty", "Boolean"],
  ["isNotEmpty", "Boolean"],
  ["isNullOrEmpty", "Boolean"],
  ["count", "Int"],
  ["indexOfFirst", "Int"],
  ["indexOfLast", "Int"],
  ["indexOf", "Int"],
  ["sumOf", "Number"],
  ["joinToString", "String"],
  ["toString", "String"],
  ["trim", "String"],
  ["uppercase", "String"],
  ["lowercase", "String"],
  ["forEach", "Unit"],
  ["forEachIndexed", "Unit"],
  ["collect", "Unit"],
  ["collectLatest", "Unit"],
  ["add", "Boolean"],
  ["emit", "Unit"],
  ["isBlank", "Boolean"],
  ["isNotBlank", "Boolean"],
]);

/**
 * Returns what a method does; undefined if it is unknown.
 *
 * @param type the type of the receiver
 */
export function calledOn(type: Type | undefined, name: string, args: readonly GivenType[] = []): KnownCall | undefined {
  const scoped = scopeFunction(type, name);
  if (scoped) return scoped;
  if (!type) return undefined;
  const held = heldFunction(type, name);
  if (held) return held;
  const always = plainResults.get(name);
  if (plain.has(type.name)) return { result: () => (always === undefined ? type : builtIn(always)) };
  const item = itemOf(type);
  if (!isContainer(type)) return always === undefined ? undefined : { result: () => builtIn(always) };
  const isIndexed = name.endsWith("Indexed");
  const given = isIndexed ? [builtIn("Int"), item] : [item];
  if (maps.has(type.name)) {
    const ofMap = mapFunction(type, name);
    if (ofMap) return ofMap;
  }
  const orders = ordering.has(name);
  if (same.has(name))
    return { given, orders, result: () => (maps.has(type.name) && name === "toList" ? builtIn("List", item) : type) };
  if (one.has(name)) return { given, orders, result: () => item };
  if (oneOrNone.has(name)) return { given, orders, result: () => item && { ...item, isNullable: true } };
  if (always !== undefined) return { given, result: () => builtIn(always) };
  return containerFunction(type, name, { given, first: args[0]?.type, hasTransform: args.length > 1 });
}

/** What a function does that makes something else from a container. */
function containerFunction(
  type: Type,
  name: string,
  {
    given,
    first,
    hasTransform,
  }: {
    readonly given: readonly (Type | undefined)[];
    readonly first: Type | undefined;
    readonly hasTransform: boolean;
  },
): KnownCall {
  const item = itemOf(type);
  const outer = type.name.includes("Flow") ? "Flow" : type.name === "Sequence" ? "Sequence" : "List";
  switch (name) {
    case "map":
    case "mapNotNull":
    case "mapIndexed":
    case "mapIndexedNotNull":
    case "mapLatest":
    case "transform":
      return { given, result: (made) => builtIn(outer, made && { ...made, isNullable: false }) };
    case "flatMap":
    case "flatMapLatest":
    case "flatMapMerge":
    case "flatMapConcat":
      return { given, result: (made) => builtIn(outer, itemOf(made)) };
    case "flatten":
      return { result: () => builtIn(outer, itemOf(item)) };
    case "chunked":
    case "windowed":
      return { given: [builtIn("List", item)], result: () => builtIn(outer, builtIn("List", item)) };
    case "groupBy":
      return { given, result: (made) => builtIn("Map", made, builtIn("List", item)) };
    case "associateBy":
      return { given, result: (made) => builtIn("Map", made, item) };
    case "associateWith":
      return { given, result: (made) => builtIn("Map", item, made) };
    case "associate":
      return { given, result: (made) => builtIn("Map", ...(made?.arguments ?? [])) };
    case "partition":
      return { given, result: () => builtIn("Pair", type, type) };
    case "withIndex":
      return { result: () => builtIn(outer, builtIn("IndexedValue", item)) };
    case "zip":
      return {
        given: [item, itemOf(first)],
        result: (made) => builtIn(outer, hasTransform ? made : builtIn("Pair", item, itemOf(first))),
      };
    case "zipWithNext":
      return { given: [item, item], result: (made) => builtIn(outer, made ?? builtIn("Pair", item, item)) };
    case "fold":
    case "runningFold":
      return { given: [first, item], result: (made) => made ?? first };
    case "collectAsState":
    case "collectAsStateWithLifecycle":
    case "observeAsState":
      return { result: () => builtIn("State", item) };
    case "update":
    case "getAndUpdate":
      return { given: [item], result: () => item };
    case "maxOf":
    case "minOf":
    case "maxOfOrNull":
    case "minOfOrNull":
    case "firstNotNullOf":
    case "firstNotNullOfOrNull":
      return { given, result: (made) => made };
    default:
      // A function on a container usually acts on its items.
      return converted(item, name) ?? { given, result: () => undefined };
  }
}

/** What a function does that only changes the kind of container. */
function converted(item: Type | undefined, name: string): KnownCall | undefined {
  switch (name) {
    case "toTypedArray":
      return { result: () => builtIn("Array", item) };
    case "awaitAll":
      return { result: () => builtIn("List", item?.arguments[0]) };
    case "iterator":
    case "listIterator":
      return { result: () => builtIn("Iterator", item) };
    case "next":
      return { result: () => item };
    case "toSet":
    case "toMutableSet":
      return { result: () => builtIn("Set", item) };
    default:
      return undefined;
  }
}

function mapFunction(type: Type, name: string): KnownCall | undefined {
  const [key, value] = type.arguments;
  const entry = [builtIn("Entry", key, value)];
  switch (name) {
    case "get":
    case "remove":
      return { result: () => value && { ...value, isNullable: true } };
    case "getValue":
    case "getOrDefault":
    case "getOrElse":
    case "getOrPut":
      return { result: () => value };
    case "mapValues":
      return { given: entry, result: (made) => builtIn("Map", key, made) };
    case "mapKeys":
      return { given: entry, result: (made) => builtIn("Map", made, value) };
    case "filterValues":
      return { given: [value], result: () => type };
    case "filterKeys":
      return { given: [key], result: () => type };
    case "toList":
      return { result: () => builtIn("List", builtIn("Pair", key, value)) };
    default:
      return undefined;
  }
}

function notNull(type: Type | undefined): Type | undefined {
  return type && { ...type, isNullable: false };
}

/** Functions of types with one value. */
function heldFunction(type: Type, name: string): KnownCall | undefined {
  if (type.name === "Comparator" && name.startsWith("thenBy"))
    return { given: type.arguments, orders: true, result: () => type };
  if (!holders.has(type.name)) return undefined;
  const [value] = type.arguments;
  switch (name) {
    case "await":
    case "getOrThrow":
    case "get":
    case "getCompleted":
      return { result: () => value };
    case "getOrNull":
    case "getOrElse":
    case "getOrDefault":
      return { result: () => value && { ...value, isNullable: true } };
    case "onSuccess":
    case "observe":
      return { given: [value], result: () => type };
    case "onFailure":
      return { given: [builtIn("Throwable")], result: () => type };
    case "map":
    case "mapCatching":
      return type.name === "Result" ? { given: [value], result: (made) => builtIn("Result", made) } : undefined;
    case "fold":
      return { given: [value], result: (made) => made };
    default:
      return undefined;
  }
}

/** Functions that every value has. */
function scopeFunction(type: Type | undefined, name: string): KnownCall | undefined {
  const whole = type && { ...type, isNullable: false };
  switch (name) {
    case "let":
      return { given: [whole], result: (made) => made };
    case "also":
    case "takeIf":
    case "takeUnless":
      return { given: [whole], result: () => type };
    case "use":
    case "runCatching":
      return { given: [whole], inside: whole, result: (made) => (name === "use" ? made : builtIn("Result", made)) };
    case "apply":
      return { inside: whole, result: () => type };
    case "run":
      return { inside: whole, result: (made) => made };
    case "hashCode":
      return { result: () => builtIn("Int") };
    case "equals":
      return { result: () => builtIn("Boolean") };
    default:
      return undefined;
  }
}

const made = new Set(
  (
    "run runBlocking coroutineScope supervisorScope withContext withTimeout withTimeoutOrNull remember rememberSaveable synchronized measureTimedValue derivedStateOf repeatOnLifecycle " +
    "runTest requireNotNull checkNotNull"
  ).split(" "),
);

/** Returns what a top-level function does; undefined if it is unknown. */
export function calledAlone(
  name: string,
  given: readonly GivenType[],
  typeArguments: readonly (Type | undefined)[],
): KnownCall | undefined {
  const firstArgument = given[0]?.type;
  const [typeArgument] = typeArguments;
  if (made.has(name)) return { result: (last) => (name === "derivedStateOf" ? builtIn("State", last) : last) };
  switch (name) {
    case "with":
      return { inside: firstArgument, result: (last) => last };
    case "async":
      return { result: (last) => builtIn("Deferred", last) };
    case "lazy":
      return { result: (last) => builtIn("Lazy", last) };
    case "runCatching":
      return { result: (last) => builtIn("Result", last) };
    case "listOf":
    case "mutableListOf":
    case "arrayListOf":
    case "listOfNotNull":
    case "arrayOf":
    case "mutableStateListOf":
    case "emptyList":
      return { holds: true, result: () => builtIn("List", typeArgument ?? firstArgument) };
    case "setOf":
    case "mutableSetOf":
    case "emptySet":
      return { result: () => builtIn("Set", typeArgument ?? firstArgument) };
    case "sequenceOf":
      return { result: () => builtIn("Sequence", typeArgument ?? firstArgument) };
    case "flowOf":
      return { result: () => builtIn("Flow", typeArgument ?? firstArgument) };
    case "mapOf":
    case "mutableMapOf":
      return { result: () => builtIn("Map", ...(firstArgument?.name === "Pair" ? firstArgument.arguments : [])) };
    case "mutableStateOf":
      return { result: () => builtIn("State", typeArgument ?? firstArgument) };
    case "MutableStateFlow":
      return { result: () => builtIn("MutableStateFlow", typeArgument ?? firstArgument) };
    case "MutableSharedFlow":
    case "Channel":
      return { result: () => builtIn("Flow", typeArgument) };
    case "flow":
    case "channelFlow":
    case "sequence":
    case "buildList":
      return { result: () => builtIn(name === "buildList" ? "List" : "Flow", typeArgument) };
    case "generateSequence":
      return { given: [firstArgument], result: (made) => builtIn("Sequence", notNull(firstArgument ?? made)) };
    case "compareBy":
    case "compareByDescending":
      return { given: [typeArgument], orders: true, result: () => builtIn("Comparator", typeArgument) };
    case "Pair":
    case "Triple":
      return { holds: true, result: () => builtIn(name, ...given.map(({ type }) => type)) };
    case "println":
    case "print":
      return { shows: true, result: () => builtIn("Unit") };
    case "launch":
    case "require":
    case "check":
    case "repeat":
      return { result: () => builtIn("Unit") };
    case "error":
    case "TODO":
      return { result: () => builtIn("Nothing") };
    default:
      // `HashMap<String, Berth>()`
      return typeArguments.length > 0 && (containers.has(name) || maps.has(name))
        ? { result: () => builtIn(name, ...typeArguments) }
        : undefined;
  }
}

export const kotlinLibrary: Library = {
  generalContainers: new Set(["Iterable", "Collection"]),
  isContainer,
  isPlain,
  delegated,
  calledOn,
  calledAlone,
};
