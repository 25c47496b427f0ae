import Foundation

#if canImport(FoundationNetworking)
  import FoundationNetworking
#endif

struct HandPage: Codable {
  var items: [HandBerth]
}

struct HandBerth: Codable {
  var id: String
  var quay: String
  var length: Double
  var places: Int64
  var status: String
  var shorePower: Bool?
  var note: String?
  var tags: [String]
  var size: HandSize?
}

struct HandSize: Codable {
  var width: Double
  var depth: Double
}

struct HandRequest: Codable {
  var vesselId: String
  var arrival: String
  var departure: String
}

struct HandReservation: Codable {
  var id: String
  var berthId: String
  var state: String
  var arrival: String
  var departure: String
}

/// The code of a careful developer.
func byHand(_ address: String, berthID: String, _ body: HandRequest) async throws -> HandReservation {
  let path = berthID.addingPercentEncoding(withAllowedCharacters: .alphanumerics) ?? ""
  guard let url = URL(string: "\(address)/berths/\(path)/reservations") else {
    throw URLError(.badURL)
  }
  var request = URLRequest(url: url)
  request.httpMethod = "POST"
  request.setValue("application/json", forHTTPHeaderField: "Accept")
  request.setValue("application/json", forHTTPHeaderField: "Content-Type")
  request.httpBody = try JSONEncoder().encode(body)
  let (data, response) = try await URLSession.shared.data(for: request)
  guard (response as? HTTPURLResponse)?.statusCode == 201 else { throw URLError(.badServerResponse) }
  return try JSONDecoder().decode(HandReservation.self, from: data)
}

/// Twenty callers at once, as in an app, with 10,000 calls in all.
func together(_ call: @escaping @Sendable () async throws -> String) async throws {
  try await withThrowingTaskGroup(of: Void.self) { group in
    for _ in 0..<20 {
      group.addTask {
        for _ in 0..<500 {
          let id = try await call()
          precondition(id == "r-1")
        }
      }
    }
    try await group.waitForAll()
  }
}

func secondsOfCPU() -> Double {
  var used = timespec()
  clock_gettime(CLOCK_PROCESS_CPUTIME_ID, &used)
  return Double(used.tv_sec) + Double(used.tv_nsec) / 1e9
}

/// Runs both in turn, and prints the medians and their ratio.
func compare(
  _ what: String, aim: Double, rounds: Int, own: () async throws -> Void, hand: () async throws -> Void
) async throws {
  try await own()
  try await hand()
  var found: [[Double]] = [[], []]
  for round in 0..<rounds {
    for which in round % 2 == 0 ? [0, 1] : [1, 0] {
      let before = secondsOfCPU()
      if which == 0 { try await own() } else { try await hand() }
      found[which].append(secondsOfCPU() - before)
    }
  }
  let medians = found.map { $0.sorted()[$0.count / 2] }
  let ratio = medians[0] / medians[1]
  print(String(format: "%@: SDK %.3f s, by hand %.3f s", what, medians[0], medians[1]))
  print(String(format: "%.2f times (aim: at most %.2f)%@", ratio, aim, ratio > aim ? "  MISSED" : ""))
}

let given = CommandLine.arguments
let rounds = Int(given[3]) ?? 7
let page = try Data(contentsOf: URL(fileURLWithPath: given[1]))
let count = try JSONDecoder().decode(HandPage.self, from: page).items.count
try await compare(
  "reading \((page.count + 500_000) / 1_000_000) MB", aim: 1, rounds: rounds,
  own: {
    let items = try Quays.Forms.readPage(try Wire.parseJSON(page)).items
    precondition(items.count == count)
  },
  hand: {
    let items = try JSONDecoder().decode(HandPage.self, from: page).items
    precondition(items.count == count)
  })

let address = given[2]
let quays = QuaysConnection(baseURL: address)
try await compare(
  "10,000 calls, CPU time", aim: 1.25, rounds: rounds,
  own: {
    try await together {
      let body = Quays.Request(arrival: "2026-05-01", departure: "2026-05-02", vesselID: "v-1")
      return try await quays.reserve(berthID: "N-07", body: body).id
    }
  },
  hand: {
    try await together {
      let body = HandRequest(vesselId: "v-1", arrival: "2026-05-01", departure: "2026-05-02")
      return try await byHand(address, berthID: "N-07", body).id
    }
  })
