import { expect, it } from "vitest";
import { kotlinRuntime } from "../../support/kotlin/kotlinRuntime.js";

/** Classes of Java 8 that Android 21 lacks, with the API level that added them. */
const later: readonly (readonly [RegExp, number])[] = [
  [/java\.util\.stream|\.stream\(\)/, 24],
  [/java\.util\.function/, 24],
  [/java\.util\.(?:Optional|StringJoiner|SplittableRandom|Spliterator)/, 24],
  [/java\.util\.concurrent\.(?:CompletableFuture|CompletionStage|StampedLock)/, 24],
  [/java\.util\.concurrent\.atomic\.(?:LongAdder|LongAccumulator|DoubleAdder|DoubleAccumulator)/, 24],
  [/\.(?:computeIfAbsent|computeIfPresent|getOrDefault|putIfAbsent|merge|replaceAll|removeIf)\(/, 24],
  [/Math\.(?:floorMod|floorDiv|toIntExact|addExact|multiplyExact|subtractExact|negateExact)/, 24],
  [/(?:Integer|Long)\.(?:parseUnsigned|toUnsigned|compareUnsigned|divideUnsigned)/, 26],
  [/java\.util\.Base64/, 26],
  [/java\.nio\.file/, 26],
  [/java\.time/, 26],
  [/ThreadLocal\.withInitial/, 26],
  [/java\.lang\.invoke/, 26],
  [/String\.join\(/, 26],
  [/ProcessHandle|java\.lang\.ref\.Cleaner/, 33],
  [/\.(?:readAllBytes|readNBytes|transferTo)\(/, 33],
  [/\.(?:isBlank|strip|stripLeading|stripTrailing|lines)\(\)\.(?:toList|collect)/, 34],
  [/\.(?:removeFirst|removeLast|getFirst|getLast|addFirst|addLast|reversed)\(\)/, 35],
];

/** This needs core library desugaring, which the SDK's README mentions. */
const withDesugaring: ReadonlySet<string> = new Set(["Instants.kt"]);

it("the runtime uses only APIs of Android 21", () => {
  const found = [...kotlinRuntime].flatMap(([file, source]) =>
    later.flatMap(([pattern, level]) => {
      const what = pattern.exec(source)?.[0];
      const isAllowed = withDesugaring.has(file) && what?.startsWith("java.time") === true;
      return what === undefined || isAllowed ? [] : [`${file}: ${what} came with API level ${String(level)}`];
    }),
  );
  expect(found).toEqual([]);
  expect(kotlinRuntime.size).toBeGreaterThan(20);
});

it("the runtime uses no reflection and no compiler plug-in", () => {
  for (const [file, source] of kotlinRuntime)
    expect(source, file).not.toMatch(/kotlin\.reflect|::class\.|javaClass|@Serializable/);
});
