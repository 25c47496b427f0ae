extension Double {
  var metres: String { "\(self) m" }
}

extension Berths.Money {
  var shown: String { "\(amount) \(currency)" }
}

func titled(_ vessel: Berths.VesselSummary) -> String { "\(vessel.name) (\(vessel.id))" }

extension Berths.TideTable {
  var highest: Berths.Tide? { tides.max { $0.level < $1.level } }
}

func line(_ tide: Berths.Tide) -> String {
  let (at, kind) = (tide.at, tide.kind)
  return "\(at) \(kind.rawValue)"
}

func turns(_ table: Berths.TideTable) -> [String] {
  let (day, tides) = (table.day, table.tides)
  return tides.map { "\(day) \($0.at) \($0.kind) \($0.level)" }
}

/// A type with a note of its own, which is not the harbour's.
struct Slip {
  var note: String
  var draught: Int

  var told: String { note + String(draught) }
}
