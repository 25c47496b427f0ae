/// The content of the list of races.
struct Row: Identifiable {
  let id: String
  let title: String
  let colour: String
}

final class RaceModel: Sendable {
  private let fleet: FleetConnection

  init(fleet: FleetConnection) {
    self.fleet = fleet
  }

  func rows(named: String?) async throws -> [Row] {
    let filter = Fleet.RaceFilter(
      class: .value(.keelboat),
      limits: .value(.init(crew: 3, shortest: .value(2.5))),
      named: named.map { .value($0) } ?? .absent,
      state: .value([.planned, .running])
    )
    let races = try await fleet.raceList(filter: .value(filter), first: .value(20)).races
    return races.map { race in Row(id: race.id, title: race.title, colour: colour(race.state)) }
  }

  func race(_ id: String) async throws -> Fleet.OneRaceAnswer.Race? {
    try await fleet.oneRace(by: .id(id)).race
  }

  func named(_ name: String) async throws -> Fleet.OneRaceAnswer.Race? {
    try await fleet.oneRace(by: Fleet.By.name(name)).race
  }

  func seconds() async throws -> Double {
    try await fleet.fixedRace().race?.results.reduce(0) { $0 + $1.seconds } ?? 0
  }

  func places() async throws -> [(String, Int32)] {
    guard let results = try await fleet.fixedRace().race?.results else { return [] }
    return results.compactMap { result in
      guard let place = result.place else { return nil }
      return (result.craft.name, place)
    }
  }

  func laser() async throws -> [String: Double] {
    var found: [String: Double] = [:]
    for race in try await fleet.laser().races { found[race.title] = race.results.first?.seconds ?? 0 }
    return found
  }

  func finished(_ race: String) async throws {
    for try await each in fleet.finished(raceID: .value(race)) {
      print("\(each.finished.craft.name): \(each.finished.seconds) s")
    }
  }
}

func colour(_ state: Fleet.RaceState) -> String {
  switch state {
  case .planned: return "grey"
  case .running: return "green"
  case .finished, .abandoned: return "red"
  default: return "white"
  }
}

func told(_ race: Fleet.OneRaceAnswer.Race) -> String {
  let longest = race.legs?.map(\.length).max() ?? 0
  let winner = race.winner?.name ?? "nobody yet"
  return
    "\(race.title) from \(race.start), \(race.distance) m, longest leg \(longest) m, won by \(winner), \(race.notes?.count ?? 0) notes"
}

func headings(_ race: Fleet.OneRaceAnswer.Race) -> [Int32] {
  (race.legs ?? []).compactMap { $0.heading }
}

func isLong(_ race: Fleet.OneRaceAnswer.Race) -> Bool { race.distance > 10_000 }

func notices(_ fleet: FleetConnection) async throws -> [String] {
  try await fleet.notices().notices.map { notice in
    switch notice {
    case .entry(let entry): entry.accepted ? "accepted, \(entry.fee ?? 0)" : "refused"
    case .race(let race): "\(race.title) is \(colour(race.state))"
    case .newer(let newer): "something new: \(newer.typename)"
    }
  }
}
