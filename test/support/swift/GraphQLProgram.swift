import Foundation

/// The message of a failure without its call.
func told(_ failure: any Wire.CallFailure) -> String { failure.report.message }

func connected(
  _ url: String, _ subscriptions: Wire.Subscriptions = Wire.overEvents(),
  queriesBy: Wire.GraphQLSettings.QueriesBy = .post
) -> CountedConnection {
  CountedConnection(
    baseURL: url, bearer: { "t0ken" },
    graphql: .init(queriesBy: queriesBy, subscriptions: subscriptions),
    settings: .init(headers: { ["x-app": "quay"] }))
}

func httpAddress(_ url: Substring) -> String {
  url.hasPrefix("ws") ? "http" + url.dropFirst(2) : String(url)
}

/// The results of a subscription, as a line of JSON.
func heard(_ carrier: Substring, _ url: String, _ errors: Substring) async -> Wire.JSON {
  var gives: [Wire.JSON] = []
  let toldErrors = Wire.Guarded<[Wire.JSON]>([])
  var fails: Wire.JSON?
  let again = Wire.Reconnecting(wait: 0.001)
  let carried = carrier == "events" ? Wire.overEvents(again) : Wire.overWebSocket(reconnecting: again)
  if errors == "returned" {
    let again = ReturningWire.Reconnecting(wait: 0.001)
    let carried =
      carrier == "events"
      ? ReturningWire.overEvents(again) : ReturningWire.overWebSocket(reconnecting: again)
    let connection = ReturningCountedConnection(
      baseURL: url, bearer: { "t0ken" }, graphql: .init(subscriptions: carried))
    for await outcome in connection.count() {
      switch outcome {
      case .success(let answer): gives.append(answer.n.map { .number(.init(Int64($0))) } ?? .null)
      case .failure(let failure): gives.append(.text("!" + failure.report.message))
      }
    }
  } else {
    var options = Wire.CallOptions()
    if errors == "told" {
      options.onErrors = { failure in toldErrors.with { $0.append(.text(told(failure))) } }
    }
    do {
      for try await answer in connected(url, carried).count(options: options) {
        gives.append(answer.n.map { .number(.init(Int64($0))) } ?? .null)
      }
    } catch {
      fails = .text(told(error))
    }
  }
  var seen: Wire.Fields = ["gives": .list(gives)]
  let all = toldErrors.with { $0 }
  if !all.isEmpty { seen["told"] = .list(all) }
  seen["fails"] = fails
  return .record(seen)
}

func number(_ value: Int32?) -> String { value.map(String.init) ?? "nil" }

/// The failure of a call with an invalid response.
func failed(_ text: String, _ connection: CountedConnection) async -> String {
  do {
    _ = try await connection.now(text: text)
    return "fine"
  } catch {
    switch error {
    case .errors(let failure):
      let first = failure.errors.first
      let path = first?.path.joined(separator: ", ") ?? ""
      return "\(first?.message ?? "") [\(path)] \(number(failure.data?.n))"
    case .other(let failure):
      switch failure.mishap {
      case .malformed(let path): return "malformed \(path ?? "")"
      case .unexpected(let status): return "unexpected \(status)"
      default: return "\(failure.mishap)"
      }
    }
  }
}

func asked(_ url: String) async throws -> Wire.JSON {
  let counted = connected(url)
  var found: [String] = []
  found.append(number(try await counted.now(text: "x").n))
  found.append(number(try await counted.now(note: .null, text: "x").n))
  found.append(number(try await connected(url, queriesBy: .get).now(text: "a b").n))
  for text in ["errors", "odd", "page"] { found.append(await failed(text, counted)) }
  let path = FileManager.default.temporaryDirectory.appendingPathComponent(UUID().uuidString)
  try Data("photo".utf8).write(to: path)
  let file = Wire.Upload(file: path, name: "p.png", type: "image/png")
  let two = Wire.Upload(Data("two".utf8))
  found.append(try await counted.send(files: [file, two], first: file).send ?? "")
  found.append(try await counted.look(by: .number(7)).which ?? "")
  let nested = Counted.Which.those([.name("n"), .which(.string("x"))])
  found.append(try await counted.look(by: nested).which ?? "")
  found.append(try await counted.put(by: .which(.file(file))).put ?? "")
  try FileManager.default.removeItem(at: path)
  var isSilent = false
  do {
    for try await _ in connected(url, Wire.overWebSocket(accept: 5)).count(
      options: .init(idle: 0.1))
    {}
  } catch {
    if case .other(let failure) = error, case .timedOut = failure.mishap {
      isSilent = true
    }
  }
  found.append("\(isSilent)")
  return .text(found.joined(separator: "|").replacingOccurrences(of: "\"", with: "'"))
}

for line in try String(contentsOfFile: CommandLine.arguments[1], encoding: .utf8).split(
  separator: "\n")
{
  let parts = line.split(separator: " ")
  let url = httpAddress(parts[1])
  let seen =
    parts[0] == "asked" ? try await asked(url) : await heard(parts[0], url, parts[2])
  print(Wire.jsonText(seen))
}
