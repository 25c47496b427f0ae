import Foundation

let wrong = Wire.Guarded<[String]>([])

func check(_ what: String, _ holds: Bool, _ found: Any? = nil) {
  if !holds { wrong.with { $0.append(found.map { "\(what): \($0)" } ?? what) } }
}

func same<Value: Equatable>(_ what: String, _ expected: Value, _ found: Value) {
  check(what, expected == found, "\(found), not \(expected)")
}

func connected(
  _ url: String, _ settings: Wire.ConnectionSettings = .init(), token: Wire.Credential? = nil
) -> HarbourConnection {
  HarbourConnection(auth: .init(token: token), baseURL: url, settings: settings)
}

/// The failure that an action throws; nil if it throws none.
func failure(_ work: () async throws -> Void) async -> (any Error)? {
  do {
    try await work()
    return nil
  } catch {
    return error
  }
}

/// The failure of a call besides its declared ones.
func mishap(_ error: (any Error)?) -> Wire.Mishap? {
  guard let error, let child = Mirror(reflecting: error).children.first else { return nil }
  return (child.value as? Wire.OtherFailure)?.mishap
}

func texts(_ numbers: String, _ texts: String) throws {
  for line in try String(contentsOfFile: numbers, encoding: .utf8).split(separator: "\n") {
    let parts = line.split(separator: " ")
    let value = Double(bitPattern: UInt64(bitPattern: Int64(parts[0])!))
    same("the number \(parts[0])", String(parts[1]), Wire.numberText(value))
  }
  for line in try String(contentsOfFile: texts, encoding: .utf8).split(separator: "\n") {
    let parts = line.split(separator: " ", omittingEmptySubsequences: false).map {
      String(decoding: Data(base64Encoded: String($0))!, as: UTF8.self)
    }
    // A string here cannot contain half of a character.
    let expected = parts[1].replacingOccurrences(of: "\\ud800", with: "\u{FFFD}")
    let found = (try? Wire.parseJSON(parts[0].utf8)).map(Wire.jsonText) ?? "none"
    check("the JSON \(parts[0])", Wire.isSame(expected, found), found)
  }
}

func cancelled(_ url: String, _ harbour: HarbourConnection) async throws {
  let call = Task { await failure { _ = try await harbour.never() } }
  try await Task.sleep(nanoseconds: 200_000_000)
  call.cancel()
  if case .cancelled? = mishap(await call.value) {} else { check("cancelling", false) }
  let stream = Task { await failure { for try await _ in harbour.idle() {} } }
  try await Task.sleep(nanoseconds: 200_000_000)
  stream.cancel()
  _ = await stream.value
  try await Task.sleep(nanoseconds: 300_000_000)
  same("requests that are still open", "0", try await connected(url).open())
}

func besideStreams(_ harbour: HarbourConnection) async throws {
  let streams = (0..<6).map { _ in Task { await failure { for try await _ in harbour.idle() {} } } }
  try await Task.sleep(nanoseconds: 300_000_000)
  same("a call beside six streams", "fine", try await harbour.quick(options: .init(timeout: 5)))
  for stream in streams { stream.cancel() }
  for stream in streams { _ = await stream.value }
}

func limits(_ harbour: HarbourConnection) async {
  let late = await failure { _ = try await harbour.never(options: .init(timeout: 0.1)) }
  if case .timedOut? = mishap(late) {} else { check("a time limit", false, late) }
  let silent = await failure { for try await _ in harbour.idle(options: .init(idle: 0.2)) {} }
  if case .timedOut? = mishap(silent) {} else { check("a limit of silence", false, silent) }
  let nowhere = await failure { _ = try await connected("http://127.0.0.1:1").quick() }
  if case .unreachable(cause: .cannotConnectToHost?)? = mishap(nowhere) {
  } else {
    check("no server", false, nowhere)
  }
  let broken = await failure { _ = try await harbour.broken() }
  check("an answer that breaks off", "\(broken!)".contains("was cut off"), broken)
}

func retries(_ url: String) async throws {
  let tried = connected(url, .init(around: [Wire.retrying(pause: 0.001)]))
  same("a third try", "fine", try await tried.flaky(times: 2))
  do {
    _ = try await tried.flaky(times: 3)
    check("no fourth try", false)
  } catch {
    switch error {
    case .serviceUnavailable: break
    case .other: check("no fourth try", false, error)
    }
  }
}

func renewals(_ url: String) async throws {
  let asked = Wire.Guarded(0)
  let harbour = connected(
    url,
    token: Wire.renewable { rejected in
      asked.with { $0 += 1 }
      try await Task.sleep(nanoseconds: 20_000_000)
      return rejected == nil ? "old" : "new"
    })
  let answers = try await withThrowingTaskGroup(of: String.self) { group in
    for _ in 0..<8 { group.addTask { try await harbour.secret() } }
    return try await group.reduce(into: []) { $0.append($1) }
  }
  same("eight answers", Array(repeating: "fine", count: 8), answers)
  same("how often a token was got", 2, asked.with { $0 })
}

func dumped(_ value: Any) -> String {
  var text = ""
  dump(value, to: &text)
  return "\(value) \(String(reflecting: value)) \(text)"
}

func unseen(_ url: String) async {
  let told = Wire.Guarded<[String]>([])
  let token = "t0ken-nobody-may-see"
  let layer: Wire.Layer = { request, next in
    let response = try await next(request)
    told.with { $0.append(dumped(request) + dumped(response)) }
    return response
  }
  let settings = Wire.ConnectionSettings(
    around: [layer], headers: { ["x-other": token] },
    onFailure: { failure in told.with { $0.append(dumped(failure)) } })
  let harbour = connected(url, settings, token: { token })
  told.with { $0.append(dumped(harbour) + dumped(settings)) }
  if let error = await failure({ _ = try await harbour.secret() }) {
    told.with { $0.append(dumped(error)) }
  }
  let broken = connected(url, token: { token + "\n" })
  if let error = await failure({ _ = try await broken.secret() }) {
    told.with { $0.append(dumped(error) + error.localizedDescription) }
  }
  let all = told.with { $0 }
  same("how much is told", 5, all.count)
  for text in all { check("a token in what is told", !text.contains(token), text) }
}

func residentMegabytes() -> Int {
  let status = (try? String(contentsOfFile: "/proc/self/status", encoding: .utf8)) ?? ""
  let line = status.split(separator: "\n").first { $0.hasPrefix("VmHWM") } ?? ""
  return (Int(line.filter(\.isNumber)) ?? 0) / 1024
}

func downloads(_ harbour: HarbourConnection) async throws {
  let folder = FileManager.default.temporaryDirectory
  let file = folder.appendingPathComponent(UUID().uuidString)
  try Data("before".utf8).write(to: file)
  defer { try? FileManager.default.removeItem(at: file) }
  let gone = await failure {
    _ = try await harbour.chart(broken: true, options: .init(saveTo: file))
  }
  check("a download that breaks off", "\(gone!)".contains("was cut off"), gone)
  same("the file that was there", "before", try String(contentsOf: file, encoding: .utf8))
  let before = residentMegabytes()
  let chart = try await harbour.chart(options: .init(saveTo: file))
  check(
    "the memory that a download takes", residentMegabytes() - before < 60,
    residentMegabytes() - before)
  same("bytes of a download", 100_000_000, chart.count)
  same("the first and the last of them", [7, 9], [chart[0], chart[99_999_999]])
  let attributes = try FileManager.default.attributesOfItem(atPath: file.path)
  same("bytes of the file", 100_000_000, (attributes[.size] as? NSNumber)?.intValue ?? 0)
  let missing = folder.appendingPathComponent("none/\(UUID().uuidString)")
  let unsaved = await failure { _ = try await harbour.chart(options: .init(saveTo: missing)) }
  check("a file that cannot be written", "\(unsaved!)".contains("cannot be saved"), unsaved)
  let refused = await failure { _ = try await harbour.problem(options: .init(saveTo: file)) }
  check("a failure is not saved", "\(refused!)".contains("fog"), refused)
  let others = try FileManager.default.contentsOfDirectory(atPath: folder.path)
  let layer: Wire.Layer = { _, _ in .init(status: 200, body: Data("layer".utf8)) }
  _ = try await connected("http://127.0.0.1:1", .init(around: [layer])).chart(
    options: .init(saveTo: file))
  same("what a layer answers", "layer", try String(contentsOf: file, encoding: .utf8))
  same("parts that are left", 1, others.filter { $0.hasPrefix(file.lastPathComponent) }.count)
}

func uploads(_ harbour: HarbourConnection) async throws {
  let before = residentMegabytes()
  let size = 100_000_000
  let file = FileManager.default.temporaryDirectory.appendingPathComponent(UUID().uuidString)
  try Data().write(to: file)
  let handle = try FileHandle(forWritingTo: file)
  for _ in 0..<100 { try handle.write(contentsOf: Data(count: size / 100)) }
  try handle.close()
  let told = Wire.Guarded<[Wire.UploadProgress]>([])
  let answer = try await harbour.upload(
    body: .init(file: file), options: .init(onProgress: { each in told.with { $0.append(each) } }))
  same("a file that is never loaded whole", "\(size)", answer)
  check("the memory it takes", residentMegabytes() - before < 60, residentMegabytes() - before)
  let progress = told.with { $0 }
  check("the app is told", progress.count > 100, progress.count)
  same("its end", .init(sent: Int64(size), total: Int64(size)), progress.last)
  same("bytes", "1000", try await harbour.upload(body: .init(Data(count: 1000))))
  try FileManager.default.removeItem(at: file)
  let gone = await failure { _ = try await harbour.upload(body: .init(file: file)) }
  check("a file that is gone", gone != nil)
}

func streams(_ harbour: HarbourConnection) async throws {
  var items: [String] = []
  for try await item in harbour.counting() {
    items.append(item)
    if items.count == 3 { break }
  }
  same("some items of a stream", ["0", "1", "2"], items)
  struct Own: Error {}
  let thrown = await failure { for try await _ in harbour.counting() { throw Own() } }
  check("an error of the app's own", thrown is Own, thrown)
}

func details(_ harbour: HarbourConnection) async {
  do {
    _ = try await harbour.problem()
    check("a declared failure", false)
  } catch {
    same("problem details", "fog", error.problem?.detail)
    if case .conflict(let failure) = error { same("a failure's body", "fog", failure.body?.detail) }
  }
}

let given = CommandLine.arguments
try texts(given[2], given[3])
let harbour = connected(given[1])
same("an answer", "fine", try await harbour.quick())
try await cancelled(given[1], harbour)
try await besideStreams(harbour)
await limits(harbour)
try await retries(given[1])
try await renewals(given[1])
await unseen(given[1])
try await uploads(harbour)
try await downloads(harbour)
try await streams(harbour)
await details(harbour)
let all = wrong.with { $0 }
print("\(all.count) wrong")
for each in all.prefix(40) { print(each) }
