import { describe, expect, it } from "vitest";
import { swiftUses } from "../../src/workspace/languages/swift/source/swiftUses.js";
import { demoSdkSource } from "../support/swift/demoSdkSource.js";

const sdk = demoSdkSource();

/** The places where source uses `Berth.note`, whatever it does with the value. */
function found(text: string): number {
  const kinds = /^(?:reads|shows|computes|orders|passes|writes|tells|compares)$/;
  return swiftUses([{ document: "App.swift", text }], sdk).filter(
    ({ kind, place }) => kinds.test(kind) && text.slice(place.offset, place.offset + place.length) === "note",
  ).length;
}

/** Source that reads the note of berths. Every `.note` in it is the SDK's. */
const statements: readonly string[] = [
  "for (a, b) in zip(all, all) { print(a.note, b.note) }",
  "let x = zip(all, all).map { $0.note ?? $1.note }",
  "let x = zip(all, all.dropFirst()).filter { a, b in a.note != b.note }",
  "for (index, each) in zip(all.indices, all) { print(index, each.note) }",
  'let x = Dictionary(uniqueKeysWithValues: all.map { ($0.id, $0) })["x"]?.note',
  'let x = Dictionary(all.map { ($0.id, $0) }, uniquingKeysWith: { a, b in a.note == nil ? b : a })["x"]?.note',
  'let x = Dictionary(grouping: all, by: \\.quay)["x"]?.first?.note',
  "let x = Dictionary(grouping: all, by: \\.quay).sorted { $0.key < $1.key }.flatMap(\\.value).first?.note",
  'let x = Dictionary(grouping: all) { $0.quay }.mapValues { $0.max { $0.length < $1.length } }\nprint(x["a"]??.note)',
  "let x = all.reduce(into: [:]) { sums, each in sums[each.quay] = each.note }",
  'let x = all.reduce(into: [String: Berths.Berth]()) { $0[$1.id] = $1 }["a"]?.note',
  'let x = all.reduce("") { $0 + ($1.note ?? "") }',
  "let (a, b) = all.reduce(into: ([Berths.Berth](), [Berths.Berth]())) { r, x in r.0.append(x) }\nprint(a.first?.note, b.first?.note)",
  "let path = \\Berths.Berth.note\nprint(all[0][keyPath: path])",
  "switch (berth.status, berth.note) { case (_, nil): break; default: break }",
  'async let first = harbour.getBerth(berthID: "a")\nprint(try await first.note)',
  'let task = Task { try await harbour.getBerth(berthID: "a") }\nprint(try await task.value.note)',
  'try await withThrowingTaskGroup(of: Berths.Berth.self) { group in\n  group.addTask { try await harbour.getBerth(berthID: "a") }\n  for try await each in group { print(each.note) }\n}',
  "let x = await withTaskGroup(of: (Int, Berths.Berth).self) { group in await group.next() }\nprint(x?.1.note)",
  "if case let each? = all.first { print(each.note) }",
  "for case let note? in all.map(\\.note) { print(note) }",
  "all.prefix(3).enumerated().forEach { index, each in print(index, each.note) }",
  "let x = [all, all].joined().first?.note",
  "let (first, rest) = (all.first, all.dropFirst())\nprint(first?.note, rest.first?.note)",
  "let y = if all.isEmpty { berth } else { all[1] }\nprint(y.note)",
  "let stream = AsyncStream<Berths.Berth> { $0.finish() }\nfor await each in stream { print(each.note) }",
  "let subject = CurrentValueSubject<Berths.Berth, Never>(berth)\nprint(subject.value.note)",
  "var it = all.makeIterator()\nwhile let each = it.next() { print(each.note) }",
  "let x = all.map { each in (each.id, each) }\nx.forEach { id, each in print(id, each.note) }",
  'let x = byID["x", default: berth].note',
  "let x = byID.merging([:]) { old, new in old.note == nil ? new : old }",
  "let x = byID.max { $0.value.length < $1.value.length }?.value.note",
  "let x = byID.keys.sorted().compactMap { byID[$0]?.note }",
  "let r: Result<Berths.Berth, any Error> = .success(berth)\nprint(try r.get().note)\nif case .success(let each) = r { print(each.note) }",
  "let r = Result { berth }\nprint(try r.get().note)",
  "let x: [(Int, Berths.Berth)] = all.enumerated().map { ($0.offset, $0.element) }\nfor (_, b) in x { print(b.note) }",
  "let b = try XCTUnwrap(all.first)\nprint(b.note)",
  "for each in sequence(first: berth, next: { $0.note == nil ? $0 : nil }) { print(each.note) }",
];

/** Whole files. */
const files: readonly string[] = [
  // Functions as parameters, with attributes.
  "func load(_ done: @escaping @Sendable (Result<Berths.Berth, Error>) -> Void) {}\nfunc h() { load { if case .success(let b) = $0 { print(b.note) } } }",
  "func on(_ done: @MainActor (Berths.Berth) -> Void) {}\nfunc h() { on { print($0.note) } }",
  "func c(_ f: @convention(block) (Berths.Berth) -> Void) {}\nfunc h() { c { print($0.note) } }",
  // What is known about type parameters.
  "func title<T: Collection>(_ x: T) -> String? where T.Element == Berths.Berth { x.first?.note }",
  "func title<T>(_ x: T) -> String?\n  where T: Collection, T.Element == Berths.Berth\n{ x.first?.note }",
  "protocol HasBerth { var berth: Berths.Berth { get } }\nfunc show<T: HasBerth & Sendable>(_ x: T) { print(x.berth.note) }",
  "typealias Loaded<T> = Result<T, Error>\nfunc h(_ l: Loaded<Berths.Berth>) throws { print(try l.get().note) }",
  'final class Loader<Value> { var value: Value?\n init(fetch: @escaping () async throws -> Value) {} }\nfunc h(_ c: BerthsConnection) { print(Loader { try await c.getBerth(berthID: "a") }.value?.note) }',
  // Extensions of lists, of the SDK's types, and what `Element` and `Self` mean there.
  "extension Sequence { func sorted<V: Comparable>(by path: KeyPath<Element, V>) -> [Element] { [] } }\nfunc h(_ all: [Berths.Berth]) { print(all.sorted(by: \\.length).first?.note) }",
  "extension Collection { var second: Element? { dropFirst().first } }\nfunc h(_ all: [Berths.Berth]) { print(all.second?.note) }",
  "extension Array { func adding(_ x: Element) -> Self { self } }\nfunc h(_ all: [Berths.Berth], _ b: Berths.Berth) { print(all.adding(b).first?.note) }",
  "extension Berths.Berth { static let sample: Self = make()\n static func make() -> Self { fatalError() } }\nfunc h() { print(Berths.Berth.sample.note, Berths.Berth.make().note) }",
  'extension Berths.Berth { func with(_ edit: (inout Self) -> Void) -> Self { self } }\nfunc h(_ b: Berths.Berth) { print(b.with { $0.note = "x" }.note) }',
  'extension Berths.Berth: Comparable { public static func < (l: Self, r: Self) -> Bool { (l.note ?? "") < (r.note ?? "") } }',
  // Subscripts, overloads, superclasses.
  'final class Store { subscript(id: String) -> Berths.Berth? { nil } }\nfunc h(_ s: Store) { print(s["x"]?.note) }',
  'struct Box<T> { subscript(_ at: Int) -> T { fatalError() }\n subscript(named name: String) -> T? { nil } }\nfunc h(_ s: Box<Berths.Berth>) { print(s[0].note, s[named: "x"]?.note) }',
  "struct D { let b: Berths.Berth\n subscript<T>(_ p: KeyPath<Berths.Berth, T>) -> T { b[keyPath: p] } }\nfunc h(_ d: D) { print(d[\\.note]) }",
  'func show(_ a: Int) -> String { "" }\nfunc show(_ b: Berths.Berth) -> Berths.Berth { b }\nfunc h(_ b: Berths.Berth) { print(show(b).note) }',
  "struct P { func pick(id: String) -> Int { 0 }\n func pick(berth: Berths.Berth) -> Berths.Berth { berth } }\nfunc h(_ p: P, _ b: Berths.Berth) { print(p.pick(berth: b).note) }",
  "class Base { var now: Berths.Berth { fatalError() } }\nclass Sub: Base { func f() { print(super.now.note) } }",
  // SwiftUI.
  '@Observable final class M { var berths: [Berths.Berth] = [] }\nstruct R: View { @Environment(M.self) private var model\n var body: some View { Text(model.berths.first?.note ?? "") } }',
];

describe("members in Swift source, however their values get there", () => {
  it.each(statements)("%s", (code) => {
    const parameters =
      "_ all: [Berths.Berth], _ harbour: BerthsConnection, _ byID: [String: Berths.Berth], _ berth: Berths.Berth";
    const text = `func f(${parameters}) async throws {\n${code}\n}`;
    expect(found(text)).toBe(code.split(".note").length - 1);
  });

  it.each(files)("%s", (text) => {
    expect(found(text)).toBe(text.split(".note").length - 1);
  });
});
