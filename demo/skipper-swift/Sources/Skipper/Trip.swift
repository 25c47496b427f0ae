/// Finds a berth, reserves it, and plans the voyage there.
struct Trip {
  let berths: BerthsConnection
  let passages: PassagesConnection

  func vessels() async throws(Berths.ListVesselsFailure) -> [Berths.Vessel] {
    var found: [Berths.Vessel] = []
    for try await vessel in berths.listVesselsItems() {
      found.append(vessel)
      if found.count == 3 { break }
    }
    return found
  }

  func berth(longest: Double) async throws(Berths.ListBerthsFailure) -> Berths.Berth? {
    try await berths.listBerths(minLength: longest, status: [.free]).items.first
  }

  func reserve(_ berth: Berths.Berth, _ vessel: Berths.Vessel) async -> String {
    do {
      let reservation = try await berths.reserveBerth(
        berthID: berth.id,
        body: .init(arrival: "2026-07-01", departure: "2026-07-03", vesselID: id(of: vessel)))
      let price = reservation.price
      return "reserved \(reservation.berthID) for \(price.amount) \(price.currency)"
    } catch {
      switch error {
      case .conflict(let failure): return "taken by \(failure.body?.conflictsWith ?? "another")"
      case .other(let failure): return "no response: \(failure.mishap)"
      default: return error.description
      }
    }
  }

  func plan(_ vessel: Berths.Vessel) async throws(Passages.PlanTripFailure) -> String {
    let plan = Passages.VoyagePlan(
      departsAt: "2026-07-01T08:30:00Z", from: "Ostrel", to: "Lom", vesselID: id(of: vessel))
    return card(try await passages.planTrip(plan: plan).planVoyage.asVoyageCardPart)
  }

  func voyage(_ id: String) async -> String {
    do {
      guard let voyage = try await passages.myVoyage(id: id).voyage else { return "no such voyage" }
      return "\(card(voyage.asVoyageCardPart)); \(voyage.berth ?? "no berth yet")"
    } catch {
      return error.description
    }
  }
}

/// A part of the screen. It knows the fragment, but not the queries that spread it.
func card(_ voyage: Passages.VoyageCardPart) -> String {
  let vessel = voyage.vessel
  return "\(vessel.name) (\(vessel.length) m) from \(voyage.from.name): \(voyage.status.rawValue)"
}

func id(of vessel: Berths.Vessel) -> String {
  switch vessel {
  case .motor(let boat): boat.id
  case .sail(let boat): boat.id
  case .rowing(let boat): boat.id
  case .other: "unknown"
  }
}
