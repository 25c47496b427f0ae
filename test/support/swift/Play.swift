import Foundation

#if canImport(FoundationNetworking)
  import FoundationNetworking
#endif

/// A value of any type, on its way from one step to the next.
struct Held: @unchecked Sendable {
  let value: Any?
}

/// The facts of a step besides its result.
final class Told: Sendable {
  private let all = Wire.Guarded<[Wire.JSON]>([])

  var json: Wire.JSON { .list(all.with { $0 }) }

  func add(_ value: Wire.JSON) {
    all.with { $0.append(value) }
  }
}

typealias Step = @Sendable (_ url: String, _ before: Held, _ told: Told) async throws -> Held

/// A sequence of items of any type.
protocol Listing {
  func all(_ into: Told) async throws
}

extension Wire.Items: Listing {
  func all(_ into: Told) async throws {
    for try await item in self { into.add(dump(of: item)) }
  }
}

/// The first items of a sequence.
struct Taken<Item: Sendable, Failure: Wire.CallFailure>: Listing {
  let items: Wire.Items<Item, Failure>
  let count: Int

  func all(_ into: Told) async throws {
    var left = count
    for try await item in items {
      into.add(dump(of: item))
      left -= 1
      if left == 0 { return }
    }
  }
}

/// Cancels a call: before it begins, or after this many milliseconds.
func cancelling(
  afterMs: UInt64?, _ call: @escaping @Sendable () async throws -> Held
) async throws -> Held {
  let task = _Concurrency.Task {
    while afterMs == nil, !_Concurrency.Task.isCancelled { await _Concurrency.Task.yield() }
    let held = try await call()
    if let listing = held.value as? any Listing { try await listing.all(Told()) }
    return held
  }
  try await _Concurrency.Task.sleep(nanoseconds: (afterMs ?? 0) * 1_000_000)
  task.cancel()
  return try await task.value
}

/// Runs steps in order. A server permits each one, handles its calls, and gets its result at the
/// end.
func play(_ control: String, _ steps: [Step]) async throws {
  var before = Held(value: nil)
  for (place, step) in steps.enumerated() {
    let url = try await asked("\(control)/\(place)", nil)
    let told = Told()
    let items = Told()
    var seen = Wire.Fields()
    do {
      let held = try await step(url, before, told)
      before = held
      let listing = held.value as? any Listing
      seen["isList"] = .truth(listing != nil)
      if let listing { try await listing.all(items) }
      seen["gives"] = listing == nil ? dump(of: held.value) : items.json
    } catch {
      seen["gives"] = items.json
      seen["fails"] = failed(error)
    }
    seen["told"] = told.json
    _ = try await asked("\(control)/\(place)", Wire.jsonBytes(.record(seen)))
  }
}

private func failed(_ error: any Error) -> Wire.JSON {
  guard let failure = error as? any Wire.CallFailure,
    let child = Mirror(reflecting: failure).children.first
  else {
    return ["class": .text(String(describing: type(of: error))), "message": .text("\(error)")]
  }
  var seen: Wire.Fields = ["class": .text(child.label ?? ""), "message": .text("\(failure)")]
  if let answer = failure.answer {
    seen["httpStatus"] = .number(Wire.Number(Int64(answer.status)))
    seen["text"] = .text(answer.text)
  }
  if let other = child.value as? Wire.OtherFailure {
    switch other.mishap {
    case .unexpected: seen["mishap"] = "unexpected"
    case .malformed(let path):
      seen["mishap"] = "malformed"
      seen["path"] = path.map { .text($0) } ?? .null
    case .unreachable: seen["mishap"] = "unreachable"
    case .timedOut: seen["mishap"] = "timed-out"
    case .cancelled: seen["mishap"] = "cancelled"
    case .thrown: seen["mishap"] = "thrown"
    }
  } else if let body = Mirror(reflecting: child.value).descendant("body") {
    let dumped = dump(of: body)
    seen["body"] = dumped
    seen["hasBody"] = .truth(dumped != .null)
  }
  return .record(seen)
}

private func asked(_ url: String, _ said: [UInt8]?) async throws -> String {
  var request = URLRequest(url: Foundation.URL(string: url)!)
  request.httpMethod = said == nil ? "GET" : "POST"
  let outgoing = Wire.Outgoing(
    call: "control", method: request.httpMethod ?? "", url: url, headers: [:],
    body: said.map { .bytes(Foundation.Data($0)) }, isStream: false, onProgress: nil)
  let response = try await Wire.Transport.shared.send(request, outgoing)
  return String(decoding: response.bytes ?? .init(), as: UTF8.self)
}
