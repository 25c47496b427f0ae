/// A component with a fragment.
func hull(_ part: Fleet.HullPart) -> String {
  "\(part.sailNumber) \(part.class.rawValue) \(part.colour ?? "plain")"
}

func person(_ part: Fleet.NamedPart) -> String {
  "\(part.name) (\(part.id)), born \(part.born ?? "?")"
}

struct Crews {
  let fleet: FleetConnection

  func craft(_ id: String) async throws -> String {
    guard let craft = try await fleet.oneCraft(id: id).craft else { return "none" }
    switch craft {
    case .cruiser(let cruiser):
      let length = cruiser.length.map { "\($0) m" } ?? "unknown"
      return "\(cruiser.name), \(length), \(cruiser.cabins * 2) berths, \(cruiser.owner?.club?.name ?? "")"
    case .dinghy(let dinghy):
      return "\(dinghy.name), \(hull(dinghy.asHullPart)), \(dinghy.owner?.name ?? "")"
    case .newer(let other):
      return other.name
    }
  }

  func crews() async throws -> [String] {
    try await fleet.crafts(lengths: .value([4.2, 5.0]), limit: 5).crafts.map(line)
  }

  func marks() async throws -> Int32 {
    try await fleet.crafts(limit: 1).crafts.reduce(0) { sum, craft in
      sum + (craft.marks ?? []).joined().reduce(0, +)
    }
  }

  func find(_ text: String) async throws -> [String] {
    try await fleet.find(text: text).find.compactMap(found)
  }

  func clubs() async throws -> Int {
    try await fleet.findMore().find.filter { if case .club = $0 { true } else { false } }.count
  }

  func length(_ id: String) async throws -> Double {
    guard case .cruiser(let craft)? = try await fleet.anEntity(id: id).entity else { return 0 }
    return craft.length ?? 0
  }

  func nickname(_ id: String) async throws -> String? {
    if case .some(.person(let person)) = try await fleet.anEntity(id: id).entity { return person.nickname?.uppercased() }
    return nil
  }

  func who(_ name: String) async throws -> String {
    let found = try await fleet.who(by: .value(Fleet.Loose(name: .value(name)))).person
    return found.map { person($0.asNamedPart) } ?? ""
  }

  func club(_ name: String) async throws -> String {
    guard let club = try await fleet.theClub(first: 3, name: .value(name)).club else { return "" }
    return "\(club.name): \(club.all.count) of \(club.members.map(\.name)), \(club.some.map { $0.id })"
  }

  func cells() async throws -> [Int32] {
    (try await fleet.grid().grid ?? []).flatMap { row in row.compactMap { $0 } }
  }

  func enter(race: String, craft: Fleet.OneCraftAnswer.Craft.Dinghy, crew: [String], remarks: String?) async throws -> Bool {
    var entry = Fleet.EntryInput(
      class: .laser,
      craftID: craft.id,
      crewIDs: crew,
      handicap: .value(1.02),
      raceID: race
    )
    if let remarks { entry.remarks = .value(remarks) }
    let answer = try await fleet.enter(entry: entry).enter
    if let fee = answer.fee { print(fee + 1) }
    return answer.accepted && answer.race.id == race
  }

  func withdraw(_ entry: String) async throws -> Bool {
    try await fleet.withdraw(entryID: entry, reason: .value("no wind")).withdraw
  }

  func rename(_ craft: String, to name: String) async throws -> String? {
    try await fleet.rename(craftID: craft, name: name).rename?.name.uppercased()
  }
}

private func line(_ craft: Fleet.CraftsAnswer.Crafts) -> String {
  craft.name + craft.crew.map { "\($0.id) \($0.name)" }.joined()
}

private func found(_ each: Fleet.FindAnswer.Find) -> String? {
  switch each {
  case .dinghy(let dinghy): "\(dinghy.name) \(dinghy.sailNumber + 1)"
  case .person(let person): person.nickname ?? person.name
  case let .club(club): club.burgee
  default: nil
  }
}
