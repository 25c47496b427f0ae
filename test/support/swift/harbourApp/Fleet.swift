struct Shown: Sendable {
  var vessels: [Berths.Vessel] = []
  var error: String?
}

actor FleetModel {
  private let harbour: BerthsConnection
  private(set) var state = Shown()

  init(_ harbour: BerthsConnection) {
    self.harbour = harbour
  }

  func load(kind: String?) async {
    do {
      let answer = try await harbour.listVessels(kind: kind.map(Berths.ListVesselsKind.init(rawValue:)))
      state = Shown(vessels: answer.items)
    } catch {
      state.error = error.report.message
    }
  }

  nonisolated func all() -> Wire.Items<Berths.Vessel, Berths.ListVesselsFailure> {
    harbour.listVesselsItems()
  }

  func register(_ name: String) async throws -> Berths.Vessel {
    try await harbour.registerVessel(
      body: .sail(Berths.SailVessel(id: "v-91", length: 8.2, mastHeight: 11, name: name)))
  }
}

func told(_ vessel: Berths.Vessel) -> String {
  switch vessel {
  case .motor(let motor): "\(motor.name): \(motor.power ?? 0) kW, \(motor.fuel.rawValue)"
  case .sail(let sail): "\(sail.name): \(sail.mastHeight) m"
  case .rowing(let boat): boat.name
  case .other: "something new"
  }
}

func longest(_ vessels: [Berths.Vessel]) -> Double {
  let lengths = vessels.compactMap { vessel -> Double? in
    guard case .sail(let sail) = vessel else { return nil }
    return sail.length
  }
  return lengths.max() ?? 0
}
