let address = CommandLine.arguments.dropFirst().first ?? "http://127.0.0.1:4020"
let trip = Trip(
  berths: BerthsConnection(
    auth: .init(harbourToken: { "any-token" }), baseURL: "\(address)/berths"),
  passages: PassagesConnection(baseURL: "\(address)/passages"))
if let vessel = try await trip.vessels().first {
  if let berth = try await trip.berth(longest: 8) {
    print(await trip.reserve(berth, vessel))
  } else {
    print("no berth is free")
  }
  print(try await trip.plan(vessel))
}
print(await trip.voyage("v-1"))
