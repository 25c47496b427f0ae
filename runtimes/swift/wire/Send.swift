import Foundation

extension Wire {
  /// One REST call, as generated code describes it.
  struct RestRequest: Sendable {
    /// "contract.call", for failures.
    var call: String
    var method: String
    /// The path, with its parameters filled in.
    var path: String
    /// The address of this call, if it has a server of its own.
    var server: String?
    /// Encoded pairs for the URL. Empty ones are left out.
    var query: [String] = []
    var headers: [(name: String, value: String?)] = []
    var body: Body?
    var accept: String?
    /// Alternatives, each a list of schemes that are needed together.
    var auth: [[String]] = []
  }

  /// The body of a response before it is converted.
  struct Received: Sendable {
    let status: Int
    let headers: Headers
    let bytes: Foundation.Data

    /// The text as the Encoding standard decodes UTF-8: without a byte order mark.
    var text: String {
      let text = String(decoding: bytes, as: UTF8.self)
      return text.unicodeScalars.first == "\u{FEFF}"
        ? String(text.unicodeScalars.dropFirst()) : text
    }

    var failed: FailedAnswer {
      FailedAnswer(status: status, headers: headers, text: text)
    }
  }

  /// Why a body cannot be read.
  enum Unreadable: Swift.Error {
    case noJSON(String)
    case mismatch(Mismatch)
  }

  /// How a body is read.
  struct BodyForm<Value>: Sendable {
    let read: @Sendable (Received) throws(Unreadable) -> Value?
    /// Whether the body is JSON, whose text may describe the error.
    var isJSON = false

    /// A body that is ignored.
    static var none: BodyForm { BodyForm(read: { _ in nil }) }

    static func text(_ reader: @escaping Reader<Value>) -> BodyForm {
      BodyForm(read: { received throws(Unreadable) in
        try Wire.readable { () throws(Mismatch) in try reader(.text(received.text)) }
      })
    }

    static func json(_ reader: @escaping Reader<Value>) -> BodyForm {
      BodyForm(
        read: { received throws(Unreadable) in
          let json: JSON
          do throws(NoJSON) {
            json = try parseJSON(received.bytes)
          } catch {
            throw Unreadable.noJSON(error.message)
          }
          return try Wire.readable { () throws(Mismatch) in try reader(json) }
        }, isJSON: true)
    }
  }

  private static func readable<Value>(
    _ read: () throws(Mismatch) -> Value
  ) throws(Unreadable) -> Value {
    do throws(Mismatch) {
      return try read()
    } catch {
      throw Unreadable.mismatch(error)
    }
  }

  /// How a declared success is read; `status` is "200", "2XX" or "default".
  struct AnswerRule<Answer>: Sendable {
    let status: String
    /// How it is read if it arrives item by item.
    var items: ItemsForm<Answer>?
    /// Creates the response from a body, nil if there is none.
    let read: @Sendable (Received?) throws(Unreadable) -> Answer

    /// A response with a body.
    static func answer(_ status: String, _ form: BodyForm<Answer>) -> AnswerRule {
      answer(status, form) { $0 }
    }

    /// A response with one of several types.
    static func answer<Value>(
      _ status: String, _ form: BodyForm<Value>, _ make: @escaping @Sendable (Value) -> Answer
    ) -> AnswerRule {
      AnswerRule(status: status) { received throws(Unreadable) in
        if let received, let value = try form.read(received) { return make(value) }
        throw Unreadable.mismatch(Mismatch("something"))
      }
    }

    /// A response whose body may be missing.
    static func answerOrNil<Value>(
      _ status: String, _ form: BodyForm<Value?>
    ) -> AnswerRule where Answer == Value? {
      AnswerRule(status: status) { received throws(Unreadable) in
        guard let received else { return nil }
        return try form.read(received) ?? nil
      }
    }

    /// A response without a body.
    static func nothing(_ status: String, _ answer: Answer) -> AnswerRule where Answer: Sendable {
      AnswerRule(status: status) { _ in answer }
    }
  }

  /// How a declared failure is read, and the failure that is created from it.
  struct FailureRule<Failure: CallFailure>: Sendable {
    let status: String
    let isJSON: Bool
    let make: @Sendable (String, Received, Bool) throws(Unreadable) -> Failure

    /// A failure whose body may be null, which is like none.
    static func failureOrNil<Body: Sendable>(
      _ status: String, _ form: BodyForm<Body?>,
      _ make: @escaping @Sendable (Declared<Body>) -> Failure
    ) -> FailureRule {
      let read = form.read
      let plain = BodyForm<Body>(
        read: { received throws(Unreadable) in try read(received) ?? nil }, isJSON: form.isJSON)
      return failure(status, plain, make)
    }

    /// A failure with or without a body.
    static func failure<Body: Sendable>(
      _ status: String, _ form: BodyForm<Body>,
      _ make: @escaping @Sendable (Declared<Body>) -> Failure
    ) -> FailureRule {
      FailureRule(status: status, isJSON: form.isJSON) {
        (call, received, isEmpty) throws(Unreadable) in
        var body: Body?
        var told = ""
        do throws(Unreadable) {
          if !isEmpty { body = try form.read(received) }
          if form.isJSON { told = words(of: parsed(received.text)) }
        } catch .noJSON {
          told = ": " + excerpt(received.headers["content-type"], received.text)
        }
        let report = Report(
          call: call, message: "the server responded with \(received.status)\(told)",
          answer: received.failed)
        return make(Declared(body: body, report: report))
      }
    }
  }

  /// How the response of a call is read.
  struct Reading<Answer, Failure: CallFailure>: Sendable {
    let answers: [AnswerRule<Answer>]
    let failures: [FailureRule<Failure>]
  }
}

extension Wire.BodyForm<Foundation.Data> {
  static var bytes: Wire.BodyForm<Foundation.Data> { .init(read: { $0.bytes }) }
}

extension Wire.Connection {
  /// Performs one REST call. Returns the declared response, or throws a failure.
  func send<Answer: Sendable, Failure: Wire.CallFailure>(
    _ request: Wire.RestRequest, _ options: Wire.CallOptions,
    _ reading: Wire.Reading<Answer, Failure>
  ) async throws(Failure) -> Answer {
    do throws(Failure) {
      let exchanged = try await begun(request, options, failure: Failure.self)
      return try read(exchanged.response, as: reading, request.call)
    } catch {
      settings.onFailure?(error)
      throw error
    }
  }

  private func begun<Failure: Wire.CallFailure>(
    _ request: Wire.RestRequest, _ options: Wire.CallOptions, failure: Failure.Type
  ) async throws(Failure) -> Wire.Exchanged {
    do throws(Wire.Trouble) {
      return try await Wire.withLimit(options.timeout ?? settings.timeout) {
        () async throws(Wire.Trouble) in
        try await self.begin(request, options, isStream: false)
      }
    } catch {
      throw .other(request.call, error)
    }
  }

  /// Sends a request with its credentials. Returns the response before its body is read.
  func begin(
    _ request: Wire.RestRequest, _ options: Wire.CallOptions, isStream: Bool
  ) async throws(Wire.Trouble) -> Wire.Exchanged {
    try await authorized(options) { () async throws(Wire.Trouble) in
      try await self.sendOnce(request, options, isStream: isStream)
    }
  }

  private func sendOnce(
    _ request: Wire.RestRequest, _ options: Wire.CallOptions, isStream: Bool
  ) async throws(Wire.Trouble) -> (exchanged: Wire.Exchanged, used: [Wire.Used]) {
    try Wire.refuseUnsendable(request)
    let base = try await Wire.owned { try await self.address() }
    let server = request.server.map { ownServer($0, base) } ?? Wire.OwnServer(base, isNamed: true)
    var headers = try await startHeaders(options, isNamed: server.isNamed)
    for case (let name, let value?) in request.headers {
      guard Wire.isHeaderValue(value) else {
        throw Wire.Trouble(message: "an argument is not valid in a header")
      }
      headers[name] = value
    }
    if headers["accept"] == nil { headers["accept"] = request.accept }
    if let body = request.body { headers["content-type"] = body.type }
    var credentials = Wire.Credentials(
      headers: headers, query: request.query.filter { !$0.isEmpty })
    let used = server.isNamed ? try await authorize(request.auth, &credentials) : []
    var url = Wire.withoutEndSlashes(server.url) + request.path
    if !credentials.query.isEmpty {
      // Some contracts write a fixed query into the path.
      url += (request.path.contains("?") ? "&" : "?") + credentials.query.joined(separator: "&")
    }
    let outgoing = Wire.Outgoing(
      call: request.call, method: request.method, url: options.address?(url) ?? url,
      headers: credentials.headers, body: request.body?.content, isStream: isStream,
      onProgress: options.onProgress, saveTo: options.saveTo)
    let response = try await exchange(outgoing)
    if let file = options.saveTo, !response.isSaved, let bytes = response.bytes {
      // A layer or a fake has responded.
      try Wire.save(bytes, to: file, of: response.status)
    }
    return (Wire.Exchanged(outgoing: outgoing, response: response), used)
  }

  /// The response of a call. Throws the failure of every other status.
  func read<Answer, Failure: Wire.CallFailure>(
    _ response: Wire.Response, as reading: Wire.Reading<Answer, Failure>, _ call: String
  ) throws(Failure) -> Answer {
    let received = Wire.Received(
      status: response.status, headers: response.headers, bytes: response.bytes ?? .init())
    // A 204 has no body, whatever the contract declares (RFC 9110, section 15.3.5).
    let isEmpty = response.status == 204
    let failure: Failure
    do throws(Wire.Unreadable) {
      if let rule = reading.answer(for: response.status) {
        return try rule.read(isEmpty ? nil : received)
      }
      let rule = Wire.declared(reading.failures, response.status, { $0.status })
      failure =
        try rule?.make(call, received, isEmpty) ?? .other(call, Wire.undeclared(received))
    } catch {
      failure = .other(call, Wire.unreadable(received, error))
    }
    throw failure
  }
}

extension Wire.Reading {
  /// The rule of a declared success. An undeclared success is read like the only declared one.
  func answer(for status: Int) -> Wire.AnswerRule<Answer>? {
    guard (200..<300).contains(status) else { return nil }
    if let rule = Wire.declared(answers, status, { $0.status }) { return rule }
    return answers.count == 1 ? answers[0] : nil
  }
}

extension Wire {
  /// The rule for a status: its own, that of its range, or the default.
  static func declared<Rule>(_ rules: [Rule], _ status: Int, _ key: (Rule) -> String) -> Rule? {
    for wanted in [String(status), "\(status / 100)XX", "default"] {
      if let rule = rules.first(where: { key($0) == wanted }) { return rule }
    }
    return nil
  }

  static func undeclared(_ received: Received) -> Trouble {
    let text = received.text
    var told = words(of: parsed(text))
    if told.isEmpty { told = ": " + excerpt(received.headers["content-type"], text) }
    let status = received.status
    return Trouble(
      message: "the server responded with \(status), which the contract does not declare\(told)",
      mishap: .unexpected(status: status), answer: received.failed)
  }

  static func unreadable(_ received: Received, _ why: Unreadable) -> Trouble {
    let told: String
    let path: String?
    switch why {
    case .mismatch(let mismatch):
      told = ": " + mismatch.message
      path = mismatch.path
    case .noJSON:
      told = " as JSON: " + excerpt(received.headers["content-type"], received.text)
      path = nil
    }
    return Trouble(
      message: "the response (\(received.status)) cannot be read\(told)",
      mishap: .malformed(path: path), answer: received.failed)
  }

  static func withoutEndSlashes(_ url: String) -> String {
    var url = url[...]
    while url.last == "/" { url.removeLast() }
    return String(url)
  }

  static func refuseUnsendable(_ request: RestRequest) throws(Trouble) {
    // Platforms resolve such segments, encoded or not (WHATWG URL, section 4.4), and would request
    // another path.
    let path = request.path.prefix { $0 != "?" }
    let isLeading = path.split(separator: "/").contains { segment in
      [".", "%2e", "..", "%2e%2e", ".%2e", "%2e."].contains(segment.lowercased())
    }
    if isLeading {
      throw Trouble(message: "an argument `.` or `..` would change the path")
    }
    let parts = request.path.split(
      separator: Character(unsendable), omittingEmptySubsequences: false)
    if parts.count > 1 {
      throw Trouble(message: "the argument `\(parts[1])` is empty or contains half a character")
    }
  }
}
