import Foundation

/// Types that an app may have next to an SDK in its target.
struct Task { let title: String }
struct Data { let rows: [Task] }
enum Result { case won, lost }
enum Error { case own }
struct URL {}
struct Date {}
protocol View {}

/// A component with a fragment, tested alone.
func line(_ voyage: Passages.VoyageLinePart) -> String {
  "\(voyage.id) \(voyage.status.rawValue) \(voyage.vessel.name)"
}

var fakes = BerthsConnection.Fakes()
fakes.getBerth = { request in
  .sample(id: request.url.split(separator: "/").last.map(String.init) ?? "", note: "from a test")
}
fakes.listTariffs = { _ in [.sample(), .sample()] }
fakes.currentNotices = { _ in "No wind." }
fakes.cancelReservation = { _ in }
fakes.reserveBerth = { _ in
  throw Berths.ReserveBerthFails.conflict(.sample(conflictsWith: "R-1"))
}
fakes.tideTable = { _ in throw Wire.FakeFailure.unreachable }
let seen = Wire.Guarded<[String]>([])
let look = Wire.eachRequest { request in
  seen.with { $0.append(request.call) }
  return request
}
let berths = BerthsConnection.fake(
  fakes, auth: .init(harbourToken: { "secret" }), settings: .init(around: [look]))
let harbour = berths.connection
let berth = try await harbour.getBerth(berthID: "N-12")
print("\(berth.id) \(berth.note ?? "") \(berth.draught as Double?)")
print(try await harbour.listTariffs().count)
print(try await harbour.currentNotices())
try await harbour.cancelReservation(reservationID: "r1")
do {
  _ = try await harbour.reserveBerth(
    berthID: "N-07", body: .sample(vesselID: "v9"), options: .init(headers: ["x-try": "1"]))
} catch {
  switch error {
  case .conflict(let failure): print(failure.body?.conflictsWith ?? "")
  default: print(error)
  }
}
do {
  _ = try await harbour.tideTable(day: "2026-05-01")
} catch {
  print(error)
}
do {
  _ = try await harbour.getVessel(vesselID: "v-1")
} catch {
  print(error)
}
if let reserved = berths.requests.first(where: { $0.call == "reserveBerth" }) {
  let tried = reserved.headers["x-try"] ?? ""
  let token = reserved.headers["authorization"] ?? ""
  print("\(reserved.method) \(reserved.url) \(tried) \(token)")
  print(String(decoding: reserved.body ?? .init(), as: UTF8.self))
}
print("\(berths.requests.count) \(seen.with { $0.count })")

var voyages = PassagesConnection.Fakes()
voyages.windNow = { _ in .sample(weather: .sample(windSpeed: 7.5)) }
voyages.voyageDetails = { _ in throw Passages.VoyageDetailsFails.errors(["No such voyage."]) }
voyages.liveArrivals = { _ in
  ["v1", "v2"].map { .sample(arrivals: .sample(id: $0)) }
}
voyages.fleet = { _ in
  .init(vessels: [
    .sailBoat(.sample(name: "Tern")), .newer(.sample(name: "Kite", typename: "Kite")),
  ])
}
let passages = PassagesConnection.fake(voyages).connection
print(try await passages.windNow().weather?.windSpeed ?? 0)
var arrivals: [String] = []
for try await arrival in passages.liveArrivals() { arrivals.append(arrival.arrivals.id) }
print(arrivals)
for vessel in try await passages.fleet().vessels {
  switch vessel {
  case .sailBoat(let boat): print("\(boat.name) sails")
  case .newer(let other): print("\(other.name) is a \(other.typename)")
  default: print("another")
  }
}
do {
  _ = try await passages.voyageDetails(id: "1")
} catch {
  switch error {
  case .errors(let failure): print(failure.errors.map(\.message))
  case .other: print(error)
  }
}
print(line(.sample(id: "v7", vessel: .sample(name: "Tern"))))
