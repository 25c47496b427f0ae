enum Reserved {
  case done(Berths.Reservation)
  case refused(String)
}

struct Desk {
  private let harbour: BerthsConnection

  init(auth: String) {
    harbour = BerthsConnection(auth: .init(harbourToken: { auth }), baseURL: "http://localhost:4020/berths")
  }

  func reserve(_ berth: String, for vessel: Berths.VesselSummary, days: (from: String, until: String)) async -> Reserved {
    let request = Berths.ReservationRequest(
      arrival: days.from, crew: 3, departure: days.until, vesselID: vessel.id)
    do {
      let made = try await harbour.reserveBerth(
        berthID: berth, idempotencyKey: "k-1", body: request, options: Wire.CallOptions())
      return .done(made)
    } catch {
      return .refused(why(error))
    }
  }

  private func why(_ failure: Berths.ReserveBerthFailure) -> String {
    switch failure {
    case .conflict(let declared): declared.body?.conflictsWith ?? "taken"
    case .notFound(let declared): declared.body?.title ?? "no such berth"
    case .unprocessableContent(let declared):
      declared.body?.errors?.map { "\($0.field) \($0.message)" }.joined() ?? "wrong"
    case .other(let other):
      if case .unreachable = other.mishap { "no network" } else { "later" }
    }
  }

  func list(from: String, until: String) async throws -> [String] {
    try await harbour.listReservations(from: from, until: until).items.map(summary)
  }

  func cancel(_ reservation: Berths.Reservation) async throws {
    try await harbour.cancelReservation(reason: "wind", reservationID: reservation.id)
  }

  func notices() async throws -> Int {
    try await harbour.currentNotices().count
  }
}

func summary(_ reservation: Berths.Reservation) -> String {
  let price = reservation.price.shown
  if reservation.state == .cancelled { return "cancelled" }
  return
    "\(titled(reservation.vessel)) \(reservation.arrival)-\(reservation.departure) \(price) \(reservation.crew ?? 0) \(reservation.remarks ?? "")"
}
