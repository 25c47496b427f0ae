import type { Type } from "../../source/knownProgram.js";
import { builtIn, type KnownCall, type Library } from "../../source/library.js";

const lists = new Set(
  (
    "Array ArraySlice ContiguousArray Set Sequence Collection RandomAccessCollection BidirectionalCollection MutableCollection LazySequence Range ClosedRange " +
    "AsyncSequence AsyncStream AsyncThrowingStream Items Outcomes IndexingIterator Publisher AnyPublisher Binding State Published CurrentValueSubject"
  ).split(" "),
);
const holders = new Set("Binding State Published CurrentValueSubject Result Task AnyPublisher Bindable".split(" "));

function lastName({ name }: Type): string {
  return name.slice(name.lastIndexOf(".") + 1);
}

/** Returns the type of a container's items; undefined if the type is not a container. */
export function itemOf(type: Type | undefined): Type | undefined {
  if (!type) return undefined;
  if (type.name === "Dictionary") return { ...builtIn("Tuple", ...type.arguments), labels: ["key", "value"] };
  if (type.name === "String") return builtIn("Character");
  return lists.has(lastName(type)) ? type.arguments[0] : undefined;
}

function isContainer(type: Type | undefined): boolean {
  return type !== undefined && (type.name === "Dictionary" || lists.has(lastName(type)));
}

const plain = new Set(
  (
    "String Substring Character Int Int8 Int16 Int32 Int64 UInt UInt8 UInt16 UInt32 UInt64 Double Float CGFloat Decimal Bool Void Never Date Data URL UUID Any Error Tuple Duration " +
    "TimeInterval Locale Calendar DateFormatter Text"
  ).split(" "),
);

function isPlain(type: Type | undefined): boolean {
  return type !== undefined && plain.has(type.name);
}

/** Returns the type of a property of the language's own types; undefined if it is unknown. */
export function knownProperty(type: Type, name: string): Type | undefined {
  const [first, second] = type.arguments;
  if (type.name === "Tuple") {
    const at = /^\d+$/.test(name) ? Number(name) : (type.labels?.indexOf(name) ?? -1);
    return type.arguments[at];
  }
  switch (name) {
    case "count":
      return builtIn("Int");
    case "isEmpty":
      return builtIn("Bool");
    case "first":
    case "last": {
      const item = itemOf(type);
      return item && { ...item, isNullable: true };
    }
    case "keys":
      return builtIn("Array", first);
    case "values":
      return builtIn("Array", second ?? first);
    case "indices":
      return builtIn("Array", builtIn("Int"));
    case "lazy":
      return type;
    case "description":
    case "debugDescription":
    case "capitalized":
    case "localizedDescription":
      return builtIn("String");
    case "wrappedValue":
    case "value":
      return holders.has(lastName(type)) ? first : undefined;
    default:
      return undefined;
  }
}

const same = new Set(
  (
    "filter sorted reversed prefix suffix dropFirst dropLast shuffled drop removingDuplicates sort append insert union intersection subtracting symmetricDifference " +
    "merging receive throttle debounce removeDuplicates eraseToAnyPublisher"
  ).split(" "),
);
const oneOrNone = new Set("first last min max randomElement firstIndex popLast removeValue".split(" "));
const plainResults: ReadonlyMap<string, string> = new Map([
  ["contains", "Bool"],
  ["allSatisfy", "Bool"],
  ["hasPrefix", "Bool"],
  ["hasSuffix", "Bool"],
  ["isSubset", "Bool"],
  ["joined", "String"],
  ["uppercased", "String"],
  ["lowercased", "String"],
  ["trimmingCharacters", "String"],
  ["padding", "String"],
  ["replacingOccurrences", "String"],
  ["formatted", "String"],
  ["forEach", "Void"],
  ["lastIndex", "Int"],
  ["firstIndex", "Int"],
  ["distance", "Int"],
]);

/** What a method does; undefined if it is unknown. */
function calledOn(type: Type | undefined, name: string): KnownCall | undefined {
  if (!type) return undefined;
  const always = plainResults.get(name);
  if (holders.has(type.name) && name === "get") return { result: () => type.arguments[0] };
  if (type.name === "Result" && name === "map")
    return { given: [type.arguments[0]], result: (made) => builtIn("Result", made, type.arguments[1]) };
  // An optional is mapped as an optional.
  if (type.isNullable && (name === "map" || name === "flatMap"))
    return { given: [{ ...type, isNullable: false }], result: (made) => made && { ...made, isNullable: true } };
  if (type.name === "String" && name === "split") return { result: () => builtIn("Array", builtIn("String")) };
  if (plain.has(type.name)) return { result: () => (always === undefined ? type : builtIn(always)) };
  const item = itemOf(type);
  if (!isContainer(type)) return always === undefined ? undefined : { result: () => builtIn(always) };
  const given = [item, item];
  if (same.has(name)) {
    const isList = type.name !== "Dictionary" || name !== "sorted";
    return { given, keeps: true, result: () => (isList ? type : builtIn("Array", item)) };
  }
  if (name === "joined" && item?.name === "Array") return { result: () => item };
  if (oneOrNone.has(name) && name !== "firstIndex")
    return { given, keeps: true, result: () => item && { ...item, isNullable: true } };
  if (always !== undefined) return { given, result: () => builtIn(always) };
  switch (name) {
    case "map":
      return { given: [item], holds: true, result: (made) => builtIn("Array", made) };
    case "compactMap":
      return { given: [item], holds: true, result: (made) => builtIn("Array", made && { ...made, isNullable: false }) };
    case "flatMap":
      return { given: [item], result: (made) => builtIn("Array", itemOf(made)) };
    case "enumerated":
      return {
        result: () => builtIn("Array", { ...builtIn("Tuple", builtIn("Int"), item), labels: ["offset", "element"] }),
      };
    case "reduce":
      return { given: [undefined, item], result: (made) => made };
    case "remove":
    case "removeFirst":
    case "removeLast":
      return { result: () => item };
    case "mapValues":
    case "compactMapValues":
      return { given: [type.arguments[1]], result: (made) => builtIn("Dictionary", type.arguments[0], made) };
    default:
      // A function on a container usually acts on its items.
      return { given, result: () => undefined };
  }
}

/** What a top-level function does; undefined if it is unknown. */
function calledAlone(name: string, first: Type | undefined, typeArgument: Type | undefined): KnownCall | undefined {
  switch (name) {
    case "print":
    case "debugPrint":
      return { shows: true, result: () => builtIn("Void") };
    case "String":
      return { result: () => builtIn("String") };
    case "Int":
    case "Int64":
    case "Double":
    case "Float":
    case "Bool":
      return { result: () => builtIn(name) };
    case "Dictionary": {
      const item = itemOf(first);
      return {
        given: [item, item],
        result: (made) => builtIn("Dictionary", made, builtIn("Array", item)),
      };
    }
    case "Array":
    case "Set":
    case "AnySequence":
      return { result: () => builtIn(name === "Set" ? "Set" : "Array", typeArgument ?? itemOf(first)) };
    case "min":
    case "max":
    case "abs":
      return { result: () => first };
    case "zip":
      return { result: () => undefined };
    case "withTaskGroup":
    case "withThrowingTaskGroup":
      return { result: (made) => made };
    case "Task":
      return { result: (made) => builtIn("Task", made) };
    case "precondition":
    case "assert":
      return { result: () => builtIn("Void") };
    case "fatalError":
    case "preconditionFailure":
      return { result: () => builtIn("Never") };
    default:
      return undefined;
  }
}

export const swiftLibrary: Library = {
  generalContainers: new Set(["Sequence", "Collection", "BidirectionalCollection", "RandomAccessCollection"]),
  isContainer,
  isPlain,
  delegated: () => undefined,
  calledOn,
  calledAlone,
};
