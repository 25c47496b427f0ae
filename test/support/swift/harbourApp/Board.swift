import Foundation

typealias Place = Berths.Berth

/// The content of the board.
struct Board {
  var places: [Place] = []
  var chosen: Place?
  var tariffs: [Berths.Tariff] = []
}

@MainActor
final class BoardModel {
  private let harbour: BerthsConnection
  private(set) var board = Board()

  init(harbour: BerthsConnection) {
    self.harbour = harbour
  }

  func refresh(longest: Double? = nil) async throws {
    let page = try await harbour.listBerths(minLength: longest, pageSize: 20, status: [.free, .reserved])
    board = Board(places: page.items, tariffs: try await harbour.listTariffs())
    if let next = page.nextCursor { print("more after \(next)") }
  }

  func ids() async throws -> [String] {
    var found: [String] = []
    for try await berth in harbour.listBerthsItems(quay: "north") { found.append(berth.id) }
    return found
  }

  func choose(_ id: String) async {
    guard let found = try? await harbour.getBerth(berthID: id) else { return }
    board.chosen = found
    print("\(found.quay) \(found.length.metres)")
  }

  func note(_ place: Place, text: String?) async throws -> Place {
    let change = Berths.BerthChange(note: text.map { .value($0) } ?? .null, status: .closed)
    return try await harbour.changeBerth(berthID: place.id, body: change)
  }

  var lines: [String] {
    board.places.sorted { $0.id < $1.id }.enumerated().map { at, each in "\(at) \(each.line)" }
  }

  var free: Int { board.places.filter { $0.status == .free && $0.shorePower }.count }

  func prices() -> [String: [Berths.Money]] {
    Dictionary(grouping: board.tariffs, by: { $0.season?.rawValue ?? "" }).mapValues { tariffs in tariffs.map(\.nightly) }
  }
}

extension Berths.Berth {
  fileprivate var line: String {
    [id, note, occupant?.name, draught?.metres, createdAt].compactMap { $0 }.joined(separator: ", ")
  }
}

func colour(_ status: Berths.BerthStatus) -> String {
  switch status {
  case .free: "green"
  case .reserved, .occupied: "amber"
  case .closed: "red"
  default: "grey"
  }
}
