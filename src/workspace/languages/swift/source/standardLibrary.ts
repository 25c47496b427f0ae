import type { Type } from "../../source/knownProgram.js";
import { builtIn, type GivenType, type KnownCall, type Library } from "../../source/library.js";

const lists = new Set(
  (
    "Array ArraySlice ContiguousArray Set Sequence Collection RandomAccessCollection BidirectionalCollection MutableCollection LazySequence Range ClosedRange " +
    "AsyncSequence AsyncStream AsyncThrowingStream TaskGroup ThrowingTaskGroup DiscardingTaskGroup Items Outcomes IndexingIterator AnyIterator AnySequence AnyCollection " +
    "Publisher AnyPublisher Binding State Published CurrentValueSubject PassthroughSubject"
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
const oneOrNone = new Set("first last min max randomElement firstIndex popLast removeValue next".split(" "));
/** Functions whose closure receives two items. */
const comparing = new Set(
  "sorted sort min max removeDuplicates elementsEqual starts lexicographicallyPrecedes".split(" "),
);
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
function calledOn(type: Type | undefined, name: string, given: readonly GivenType[]): KnownCall | undefined {
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
  const items = comparing.has(name) ? [item, item] : [item];
  if (same.has(name)) {
    const isList = type.name !== "Dictionary" || name !== "sorted";
    // Two dictionaries are merged by their values.
    const values = [type.arguments[1], type.arguments[1]];
    return {
      given: name === "merging" && type.name === "Dictionary" ? values : items,
      keeps: true,
      result: () => (isList ? type : builtIn("Array", item)),
    };
  }
  if (name === "joined" && item?.name === "Array") return { result: () => item };
  if (oneOrNone.has(name) && name !== "firstIndex")
    return { given: items, keeps: true, result: () => item && { ...item, isNullable: true } };
  if (always !== undefined) return { given: items, result: () => builtIn(always) };
  const [first] = given;
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
    case "makeIterator":
    case "makeAsyncIterator":
      return { result: () => builtIn("IndexingIterator", item) };
    case "reduce":
      return {
        given: [first?.type, item],
        result: (made) => (first?.name === "into" ? first.type : (made ?? first?.type)),
      };
    case "remove":
    case "removeFirst":
    case "removeLast":
      return { result: () => item };
    case "mapValues":
    case "compactMapValues":
      return { given: [type.arguments[1]], result: (made) => builtIn("Dictionary", type.arguments[0], made) };
    default:
      // A function on a container usually acts on its items.
      return { given: items, result: () => undefined };
  }
}

/** What a top-level function does; undefined if it is unknown. */
function calledAlone(
  name: string,
  given: readonly GivenType[],
  typeArguments: readonly (Type | undefined)[],
): KnownCall | undefined {
  const first = given[0]?.type;
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
      if (typeArguments.length > 0) return { result: () => builtIn("Dictionary", ...typeArguments) };
      const item = itemOf(first);
      if (given[0]?.name === "grouping")
        return { given: [item], result: (made) => builtIn("Dictionary", made, builtIn("Array", item)) };
      const [key, value] = item?.name === "Tuple" ? item.arguments : [];
      return { given: [value, value], result: () => builtIn("Dictionary", key, value) };
    }
    case "Array":
    case "Set":
    case "AnySequence":
    case "AnyCollection":
    case "ContiguousArray": {
      const isRepeated = given[0]?.name === "repeating";
      const item = typeArguments[0] ?? (isRepeated ? first : itemOf(first));
      return { result: () => builtIn(name === "Set" ? "Set" : "Array", item) };
    }
    case "repeatElement":
      return { result: () => builtIn("Array", first) };
    case "min":
    case "max":
    case "abs":
    case "Optional":
      return { result: () => first };
    case "XCTUnwrap":
      return { result: () => first && { ...first, isNullable: false } };
    case "zip":
      return { result: () => builtIn("Array", builtIn("Tuple", itemOf(first), itemOf(given[1]?.type))) };
    case "sequence":
      return { given: [first], result: () => builtIn("Sequence", first && { ...first, isNullable: false }) };
    case "withTaskGroup":
    case "withThrowingTaskGroup":
    case "withDiscardingTaskGroup":
    case "withThrowingDiscardingTaskGroup":
      return {
        given: [builtIn("TaskGroup", given.find(({ name: label }) => label === "of")?.type)],
        result: (made) => made,
      };
    case "AsyncStream":
    case "AsyncThrowingStream":
      return { result: () => builtIn(name, typeArguments[0] ?? first) };
    case "Result":
      return { result: (made) => builtIn("Result", ...(typeArguments.length > 0 ? typeArguments : [made])) };
    case "Task":
      return { result: (made) => builtIn("Task", made) };
    case "precondition":
    case "assert":
      return { result: () => builtIn("Void") };
    case "fatalError":
    case "preconditionFailure":
      return { result: () => builtIn("Never") };
    default:
      // `CurrentValueSubject<Berth?, Never>(nil)`
      return typeArguments.length === 0 ? undefined : { result: () => builtIn(name, ...typeArguments) };
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
