import { describe, expect, it } from "vitest";
import { kotlinUses } from "../../src/workspace/languages/kotlin/source/kotlinUses.js";
import { demoSdkSource } from "../support/kotlin/demoSdkSource.js";

const sdk = demoSdkSource();
const head = "package app\nimport org.ostrel.berths.*\n";

/** The places where source uses `Berth.note`, whatever it does with the value. */
function found(text: string): number {
  const kinds = /^(?:reads|shows|computes|orders|passes|writes|tells|compares)$/;
  return kotlinUses([{ document: "App.kt", text }], sdk).filter(
    ({ kind, place }) => kinds.test(kind) && text.slice(place.offset, place.offset + place.length) === "note",
  ).length;
}

/** Source that reads the note of berths. Every `note` after a dot or `::` is the SDK's. */
const statements: readonly string[] = [
  "val x = all.zip(all) { a, b -> a.note ?: b.note }",
  "for ((a, b) in all.zip(all)) { println(a.note + b.note) }",
  'val x = all.fold("") { acc, b -> acc + b.note }',
  "val x = all.fold(berth) { best, b -> if (best.note == null) b else best }.note",
  "val xs = all.map { b -> async { harbour.getBerth(b.id) } }.awaitAll()\nprintln(xs.first().note)",
  "val steps = all.iterator()\nwhile (steps.hasNext()) { println(steps.next().note) }",
  "val x = all.sortedWith(compareBy<Berth> { it.note }.thenByDescending { it.note }).first().note",
  "val x = generateSequence(berth) { if (it.note == null) null else it }.first().note",
  "val x = all.toTypedArray()[0].note",
  "val t = Triple(berth, 1, all)\nprintln(t.first.note + t.third.first().note)\nval (b, _, xs) = t\nprintln(b.note + xs[0].note)",
  'val known = HashMap<String, Berth>()\nprintln(known["x"]?.note)',
  'val x = all.groupBy { it.quay }.mapValues { (_, v) -> v.maxByOrNull { it.length } }["a"]?.note',
  "val x = byId.map { (k, v) -> v.note }",
];

/** Whole files. */
const files: readonly string[] = [
  'fun show(a: Int): String = ""\nfun show(b: Berth): Berth = b\nfun h(b: Berth) { println(show(b).note) }',
  'class P {\n fun pick(id: String): Int = 0\n fun pick(berth: Berth): Berth = berth\n fun pick(berth: Berth, at: Int): String = ""\n}\nfun h(p: P, b: Berth) { println(p.pick(b).note); println(p.pick(berth = b).note) }',
  "open class Base {\n open val now: Berth get() = TODO()\n open fun later(): Berth = TODO()\n}\nclass Sub : Base() { fun f() { println(super.now.note); println(super.later().note) } }",
  "interface HasBerth { val berth: Berth }\nfun <T : HasBerth> one(x: T) { println(x.berth.note) }\nfun <T> two(x: T) where T : HasBerth, T : Comparable<T> { println(x.berth.note) }",
  "fun <T : List<Berth>> show(x: T) { println(x.first().note) }",
  "typealias Loaded<T> = Result<T>\nfun h(l: Loaded<Berth>) { println(l.getOrThrow().note) }",
  'class Loader<V>(private val fetch: suspend () -> V) { var value: V? = null }\nfun h(c: BerthsConnection) { println(Loader { c.getBerth("a") }.value?.note) }',
];

describe("members in Kotlin source, however their values get there", () => {
  const written = (code: string): number => code.split(/(?:\.|::)note\b/).length - 1;

  it.each(statements)("%s", (code) => {
    const parameters = "all: List<Berth>, harbour: BerthsConnection, byId: Map<String, Berth>, berth: Berth";
    expect(found(`${head}suspend fun f(${parameters}) = coroutineScope {\n${code}\n}`)).toBe(written(code));
  });

  it.each(files)("%s", (text) => {
    expect(found(head + text)).toBe(written(text));
  });
});
