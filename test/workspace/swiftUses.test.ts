import { describe, expect, it } from "vitest";
import { swiftUses } from "../../src/workspace/languages/swift/source/swiftUses.js";
import { demoSdkSource } from "../support/swift/demoSdkSource.js";

const sdk = demoSdkSource();

/** What source uses, as "kind coordinate" with the text at the place, sorted; without what is left out. */
function used(...given: readonly string[]): string[] {
  const texts = given.map((text, at) => ({ document: `App${String(at)}.swift`, text }));
  return swiftUses(texts, sdk)
    .filter(({ kind }) => kind !== "omits")
    .map(({ kind, coordinate, place, unwraps }) => {
      const source = texts.find(({ document }) => document === place.document)?.text ?? "";
      const at = source.slice(place.offset, place.offset + place.length);
      return `${kind} ${coordinate} @${at}${unwraps === true ? " unwrapped" : ""}`;
    })
    .sort();
}

/** Whether a value is only shown does not depend on where it is read. */
const asRead = (use: string): string => use.replace(/^(?:shows|computes) /, "reads ");
const ofReads = (uses: readonly string[]): string[] =>
  uses
    .map(asRead)
    .filter((use) => /^(?:reads|reaches|orders) /.test(use))
    .sort();

describe("uses in Swift source", () => {
  it("calls, their arguments, and members of their responses", () => {
    expect(
      used(`func show(_ harbour: BerthsConnection) async throws {
  let berth = try await harbour.getBerth(berthID: "N-07")
  print("\\(berth.quay) \\(berth) \\(berth.note?.count ?? 0)")
}`),
    ).toEqual([
      "calls connection @BerthsConnection",
      "calls getBerth @getBerth",
      "reads Berth.note @note unwrapped",
      "shows Berth.quay @quay",
      "writes getBerth(berthID) @berthID",
    ]);
  });

  it("comments and strings with names, typealiases, and types of the app", () => {
    expect(
      used(`/* Berth.note /* nested berth.quay */ berth.length */
// harbour.listTariffs()
typealias Place = Berths.Berth
func title(_ place: Place) -> String { "berth.note" + place.id + #"\\(place.quay)"# + #"\\#(place.length)"# }
struct Berth { var note: Int }
func own(_ berth: Berth) -> Int { berth.note }
func one(_ c: BerthsConnection) async throws -> Berths.BerthStatus { try await c.getBerth(berthID: "N-07").status }`),
    ).toEqual([
      "calls connection @BerthsConnection",
      "calls getBerth @getBerth",
      "names Berth @Berth",
      "names BerthStatus @BerthStatus",
      "passes Berth.status @status",
      "passes BerthStatus @status",
      "reads Berth.id @id",
      "shows Berth.length @length",
      "writes getBerth(berthID) @berthID",
    ]);
  });

  it("collections, closures, loops, key paths, optionals, extensions and generic helpers", () => {
    expect(
      ofReads(
        used(`@MainActor final class Board: ObservableObject {
  private let harbour: BerthsConnection
  @Published private(set) var last: Berths.Berth?
  init(harbour: BerthsConnection) { self.harbour = harbour }
  func refresh() async throws {
    let all = try await harbour.listBerths().items
    last = all.first { $0.shorePower }
    if let last { print(last.note ?? "") }
    guard let first = all.first else { return }
    print(first.quay)
    all.filter { each in each.length > 3 }.map(\\.id).forEach { print($0.uppercased()) }
    let byID = Dictionary(grouping: all, by: { $0.id })
    for (key, value) in byID { print(key, value.count) }
    for (at, one) in all.enumerated() { print("\\(at) \\(one.occupant?.name ?? "")") }
    for try await berth in harbour.listBerthsItems(pageSize: 3) where berth.shorePower { print(berth.draught as Any) }
    let sorted = all.sorted { $0.id < $1.id }
  }
  var shown: String? { last?.title ?? pick([last!])?.createdAt }
  private func pick<T>(_ from: [T]) -> T? { from.last }
}
extension Berths.Berth {
  var title: String { "\\(id) on \\(quay)" }
}`),
      ),
    ).toEqual([
      "orders Berth.id @id",
      "orders Berth.id @id",
      "reads Berth.createdAt @createdAt",
      "reads Berth.draught @draught",
      "reads Berth.id @id",
      "reads Berth.id @id",
      "reads Berth.id @id",
      "reads Berth.length @length",
      "reads Berth.note @note",
      "reads Berth.occupant @occupant unwrapped",
      "reads Berth.quay @quay",
      "reads Berth.quay @quay",
      "reads Berth.shorePower @shorePower",
      "reads Berth.shorePower @shorePower",
      "reads BerthPage.items @items",
      "reads VesselSummary.name @name",
    ]);
  });

  it("views with lists, extensions of any list, and conditions without closures", () => {
    expect(
      ofReads(
        used(`struct BerthList: View {
  let berths: [Berths.Berth]
  var body: some View {
    List(berths, id: \\.id) { berth in
      NavigationLink { Detail(berth) } label: { Text(berth.quay) }
      if let note = berth.note, !note.isEmpty { Text(note) }
    }
    .task { await load() }
  }
}
extension Sequence where Element == Berths.Berth {
  var free: [Berths.Berth] { filter { $0.shorePower } }
}
func longest(_ all: [Berths.Berth]) -> Double? {
  for berth in all where all.contains(where: { $0.length > berth.length }) { print(berth.draught as Any) }
  return all.free.max { $0.length < $1.length }?.length
}`),
      ),
    ).toEqual([
      "orders Berth.length @length",
      "orders Berth.length @length",
      "orders Berth.length @length",
      "orders Berth.length @length",
      "reads Berth.draught @draught",
      "reads Berth.id @id",
      "reads Berth.length @length",
      "reads Berth.note @note unwrapped",
      "reads Berth.quay @quay",
      "reads Berth.shorePower @shorePower",
    ]);
  });

  it("enums and unions in switch, with and without default", () => {
    expect(
      used(`func colour(_ status: Berths.BerthStatus) -> Int {
  switch status {
  case .free: 1
  case .reserved, .occupied: return 2
  default: 3
  }
}
func isFree(_ berth: Berths.Berth) -> Bool { berth.status == .free }
func kind(_ vessel: Berths.Vessel) -> String {
  switch vessel {
  case .motor(let motor): "\\(motor.fuel)"
  case let .sail(sail): return "\\(sail.mastHeight)"
  case .rowing: return "oars"
  case .other(tag: let tag, json: _): return tag ?? ""
  }
}
func some(_ vessel: Berths.Vessel) -> String {
  if case .sail(let sail) = vessel, sail.mastHeight > 3 { return sail.name }
  guard case let Berths.Vessel.motor(motor) = vessel else { return "other" }
  return motor.name
}`).filter((use) => !use.startsWith("names")),
    ).toEqual([
      "compares Berth.status @status",
      "compares BerthStatus @status",
      "computes SailVessel.mastHeight @mastHeight",
      "matches BerthStatus.free @free",
      "matches BerthStatus.free @free",
      "matches BerthStatus.occupied @occupied",
      "matches BerthStatus.reserved @reserved",
      ...["motor", "motor", "rowing", "sail", "sail"].map(
        (name) => `matches ${name === "rowing" ? "Rowing" : name === "sail" ? "Sail" : "Motor"}Vessel @${name}`,
      ),
      "matches Vessel @motor",
      "matches Vessel @motor",
      "matches Vessel @other",
      "matches Vessel @rowing",
      "matches Vessel @sail",
      "matches Vessel @sail",
      "matches Vessel! @switch",
      "reads MotorVessel.name @name",
      "reads SailVessel.name @name",
      "shows MotorVessel.fuel @fuel",
      "shows MotorVesselFuel @fuel",
      "shows SailVessel.mastHeight @mastHeight",
      "tells Vessel.motor @motor",
      "tells Vessel.motor @motor",
      "tells Vessel.other @other",
      "tells Vessel.rowing @rowing",
      "tells Vessel.sail @sail",
      "tells Vessel.sail @sail",
    ]);
  });

  it("caught failures, whose type comes from what is thrown", () => {
    expect(
      used(`func tried(_ harbour: BerthsConnection) async {
  do {
    try await harbour.removeBerth(berthID: "N-07")
  } catch .conflict(let declared) {
    print(declared.body?.conflictsWith ?? "")
  } catch {
    switch error {
    case .conflict: break
    case .notFound(let declared): print(declared.body?.title ?? "")
    case .other(let other): print(other.mishap)
    }
  }
}
func named(_ error: any Error) -> String? {
  if let failure = error as? Berths.RemoveBerthFailure { failure.report.message } else { nil }
}`).filter((use) => /Failure|Problem/.test(use)),
    ).toEqual([
      "matches RemoveBerthFailure @conflict",
      "matches RemoveBerthFailure @conflict",
      "matches RemoveBerthFailure @notFound",
      "matches RemoveBerthFailure @other",
      "matches RemoveBerthFailure! @switch",
      "reads ConflictProblem.conflictsWith @conflictsWith",
      "reads Problem.title @title",
      "reads RemoveBerthFailure.report @report",
      "tells RemoveBerthFailure @RemoveBerthFailure",
      "tells RemoveBerthFailure.conflict @conflict",
      "tells RemoveBerthFailure.conflict @conflict",
      "tells RemoveBerthFailure.notFound @notFound",
      "tells RemoveBerthFailure.other @other",
    ]);
  });

  it("objects that are built, with and without a name", () => {
    expect(
      used(`func reserve(_ harbour: BerthsConnection, vessel: String) async throws {
  let body = Berths.ReservationRequest(arrival: "2026-05-01", crew: 3, departure: "2026-05-03", vesselID: vessel)
  _ = try await harbour.reserveBerth(berthID: "N-07", body: body)
  _ = try await harbour.listBerths(status: [.free])
  _ = try await harbour.registerVessel(body: .rowing(.init(id: "1", name: "x")))
}`).filter((use) => !use.startsWith("calls")),
    ).toEqual([
      "builds ReservationRequest{} @ReservationRequest",
      "builds RowingVessel{} @init",
      "names ReservationRequest @ReservationRequest",
      "writes BerthStatus.free @free",
      "writes ReservationRequest.arrival @arrival",
      "writes ReservationRequest.crew @crew",
      "writes ReservationRequest.departure @departure",
      "writes ReservationRequest.vesselId @vesselID",
      "writes RowingVessel @rowing",
      "writes RowingVessel.id @id",
      "writes RowingVessel.name @name",
      "writes Vessel @rowing",
      "writes Vessel.rowing @rowing",
      "writes listBerths(status) @status",
      "writes registerVessel(body) @body",
      "writes reserveBerth(berthID) @berthID",
      "writes reserveBerth(body) @body",
    ]);
  });

  it.each([
    [`print("\\(berth.length * 2) m")`, "computes"],
    [`print(berth.length - 2)`, "computes"],
    [`if berth.length > 12 { print() }`, "computes"],
    [`print("\\(berth.length * 2.5) m")`, "reads"],
    [`let twice: Double = berth.length * 2`, "reads"],
    [`if berth.length == 12.0 { print() }`, "compares"],
    [`let length = berth.length; print("\\(length)")`, "shows"],
    [`let length = berth.length; print(length + 1)`, "computes"],
    [`var length = berth.length; print("\\(length)")`, "reads"],
    [`print(berths.map(\\.length).max() ?? 0)`, "computes"],
    [`print(berths.map { $0.length })`, "shows"],
    [`print(Int(berth.length) * 2)`, "reads"],
  ])("uses of a number: %s", (body, kind) => {
    const found = used(`func some(_ berth: Berths.Berth, _ berths: [Berths.Berth]) {\n${body}\n}`);
    expect(found.filter((use) => use.includes("Berth.length"))).toEqual([`${kind} Berth.length @length`]);
  });

  it.each([
    [`if let note = berth.note { print(note) }`, true],
    [`guard let note = berth.note else { return }`, true],
    [`while case let note? = berth.note { print(note) }`, true],
    [`if case .some(let note) = berth.note { print(note) }`, true],
    [`let note = berth.note; if let note { print(note) }`, true],
    [`print(berth.note!)`, true],
    [`print(berth.note?.count ?? 0)`, true],
    [`print(berth.note.map { $0.count } ?? 0)`, true],
    [`print(berth.note ?? "")`, false],
    [`if berth.note == nil { print() }`, false],
    [`print(berth.note as Any)`, false],
  ])("nil is already handled: %s", (body, isUnwrapped) => {
    const found = used(`func some(_ berth: Berths.Berth) {\n${body}\n}`).filter((use) => use.includes("Berth.note"));
    expect(found.map((use) => use.endsWith(" unwrapped"))).toEqual([isUnwrapped]);
  });

  it("state in other files, actors, nested types and statements outside of functions", () => {
    expect(
      used(
        `let model = Model(harbour: BerthsConnection())
try await model.load()
if let berth = await model.state.berth {
  print(berth.note ?? "")
}
func shown(_ state: Model.State) -> String { state.berth?.quay ?? state.all.first?.id ?? "" }`,
        `actor Model {
  struct State { var berth: Berths.Berth?; var all: [Berths.Berth] = [] }
  private(set) var state = State()
  let harbour: BerthsConnection
  init(harbour: BerthsConnection) { self.harbour = harbour }
  func load() async throws { state.all = try await harbour.listBerths().items }
}
extension Model {
  private func first() -> State? { state.all.isEmpty ? nil : state }
  func longest() -> Double? { first()?.all.map(\\.length).max() }
}`,
      )
        .map(asRead)
        .filter((use) => use.startsWith("reads") || use.startsWith("reaches") || use.startsWith("calls list")),
    ).toEqual([
      "calls listBerths @listBerths",
      "reads Berth.id @id",
      "reads Berth.length @length",
      "reads Berth.note @note",
      "reads Berth.quay @quay",
    ]);
  });

  it("the parts of an SDK with a prefix, and credentials", () => {
    const prefixed = demoSdkSource({ prefix: "Harbour" });
    const text = `let c = HarbourBerthsConnection(auth: .init(harbourToken: { "t" }))
func one() async throws -> String { try await c.getBerth(berthID: "N-07").quay }`;
    const found = swiftUses([{ document: "App.swift", text }], prefixed);
    const told = found.filter(({ kind }) => kind !== "omits").map(({ kind, coordinate }) => `${kind} ${coordinate}`);
    expect(told.sort()).toEqual([
      "calls connection",
      "calls getBerth",
      "reads Berth.quay",
      "writes BerthsConnection.auth",
      "writes BerthsConnection.harbourToken",
      "writes getBerth(berthID)",
    ]);
  });

  it("unknown values may be any object with such a member", () => {
    expect(
      used(`import Magic
func draw() {
  print(magic().draught)
  print("text".count)
  switch magic() { case .sail(let boat): break; case .other: break }
  magic(.occupied)
  magic(.init(amount: "1", currency: "EUR"))
}`),
    ).toEqual([
      "reaches Berth.* @draught",
      "reaches BerthChange.* @draught",
      "reaches BerthStatus.* @occupied",
      "reaches BerthToSend.* @draught",
      "reaches ListVesselsKind.* @sail",
      "reaches Money.* @init",
      "reaches Vessel.* @sail",
    ]);
  });

  it("views with a preview, bindings, and returned outcomes", () => {
    const returned = demoSdkSource({ failures: "return" });
    const text = `import SwiftUI
struct BerthForm: View {
  @State private var berths: [Berths.Berth]
  private let title = "Berths"
  var first: String? { berths.first?.quay }
  var body: some View {
    ForEach($berths) { $berth in Text(berth.id) }
    Text(title).task { await load() }
  }
}
func load(_ harbour: BerthsConnection) async {
  switch await harbour.getBerth(berthID: "N-07") {
  case .success(let berth): print(berth.length)
  case .failure(.notFound(let declared)): print(declared.body?.title ?? "")
  case .failure(let failure): print(failure.report)
  }
}
#Preview {
  BerthForm(berths: [])
}
`;
    const found = swiftUses([{ document: "App.swift", text }], returned);
    const told = found.map(({ kind, coordinate }) => asRead(`${kind} ${coordinate}`));
    expect(told.filter((use) => /^(?:reads|reaches|tells) /.test(use)).sort()).toEqual([
      "reads Berth.id",
      "reads Berth.length",
      "reads Berth.quay",
      "reads GetBerthFailure.report",
      "reads Problem.title",
      "tells GetBerthFailure.notFound",
    ]);
  });

  it("patterns, long strings and code for some platforms only", () => {
    expect(
      ofReads(
        used(`#if canImport(UIKit)
import UIKit
#endif
func found(_ berth: Berths.Berth) -> Int {
  let pattern = /["{(]\\/[/}]/
  let other = #/ "{ /#
  let half = berth.length / 2 / 3
  let text = """
    { " \\(berth.quay) "" \\" }
    """
  return [text.count / 2, Int(half)].count
}
func next(_ berth: Berths.Berth) -> String { berth.id }`),
      ),
    ).toEqual(["reads Berth.id @id", "reads Berth.length @length", "reads Berth.quay @quay"]);
  });

  it("incomplete source is read as far as possible", () => {
    const whole = `func show(_ harbour: BerthsConnection) async throws {
  let berth = try await harbour.getBerth(berthID: "N-07")
  switch berth.status { case .free: print("\\(berth.note.map { "<\\($0)>" } ?? "") \\([berth].map { $0.quay })"); default: break }
}`;
    for (let length = 0; length < whole.length; length += 3) expect(() => used(whole.slice(0, length))).not.toThrow();
    expect(used(whole.slice(0, whole.indexOf("  switch")))).toContain("calls getBerth @getBerth");
  });

  it("source that is nested too deeply: Rhema cannot tell what it uses", () => {
    const deep = `func deep() -> Int { ${"(".repeat(20_000)}1${")".repeat(20_000)} }\n`;
    expect(used(deep)).toEqual(expect.arrayContaining(["reaches Berth.* @func", "reaches Reservation.* @func"]));
  });
});
