import Foundation

extension Wire {
  /// Runs code that may call functions of the app.
  static func owned<Value: Sendable>(
    _ work: @Sendable () async throws -> Value
  ) async throws(Trouble) -> Value {
    do {
      return try await work()
    } catch let trouble as Trouble {
      throw trouble
    } catch is CancellationError {
      throw Trouble(message: "the call was cancelled", mishap: .cancelled)
    } catch {
      throw Trouble(message: "a function of the app threw an error", mishap: .thrown(error))
    }
  }

  /// Runs a function within a time limit.
  static func withLimit<Value: Sendable>(
    _ limit: TimeInterval?, _ work: @escaping @Sendable () async throws(Trouble) -> Value
  ) async throws(Trouble) -> Value {
    guard let limit, limit > 0, limit < 1e9 else { return try await work() }
    let result = await withTaskGroup(of: Swift.Result<Value, Trouble>?.self) { group in
      group.addTask {
        do throws(Trouble) {
          return .success(try await work())
        } catch {
          return .failure(error)
        }
      }
      group.addTask {
        try? await _Concurrency.Task.sleep(nanoseconds: UInt64(limit * 1e9))
        return nil
      }
      var first = await group.next()
      // A pause ends at once when the task is cancelled.
      if case .some(nil) = first, _Concurrency.Task.isCancelled { first = await group.next() }
      group.cancelAll()
      return first ?? nil
    }
    guard let result else {
      let message = "no response within \(Int64((limit * 1000).rounded())) ms"
      throw Trouble(message: message, mishap: .timedOut)
    }
    return try result.get()
  }

  /// A response, and its request.
  struct Exchanged: Sendable {
    let outgoing: Outgoing
    let response: Response
  }
}

extension Wire.Connection {
  /// The headers of the connection and of the call. The call's headers override.
  ///
  /// - Parameter isNamed: whether the app has chosen the server. Another server gets no header of
  ///   the connection that may be a credential
  func startHeaders(
    _ options: Wire.CallOptions, isNamed: Bool = true
  ) async throws(Wire.Trouble) -> Wire.Headers {
    var headers = Wire.Headers()
    if let supply = settings.headers {
      for (name, value) in try await Wire.owned({ try await supply() })
      where isNamed || Wire.isHarmless(name) {
        try Wire.set(name, value, in: &headers)
      }
    }
    for (name, value) in options.headers { try Wire.set(name, value, in: &headers) }
    return headers
  }

  /// One request through all layers.
  func exchange(_ outgoing: Wire.Outgoing) async throws(Wire.Trouble) -> Wire.Response {
    if let fault = Wire.addressFault(outgoing.url) {
      throw Wire.Trouble(message: "the base URL of \(Wire.shownAddress(outgoing.url)) \(fault)")
    }
    var perform: @Sendable (Wire.Outgoing) async throws -> Wire.Response = { outgoing in
      try await self.fetchFollowing(outgoing)
    }
    for layer in settings.around.reversed() {
      let next = perform
      perform = { outgoing in try await layer(outgoing, next) }
    }
    let outermost = perform
    return try await Wire.owned { try await outermost(outgoing) }
  }

  /// Sends a request with the first alternative of credentials that the app supplies. If the server
  /// rejects a credential that can be renewed, the request is sent once more.
  ///
  /// - Parameter attempt: sends the request once and reports which credentials it used
  func authorized(
    _ options: Wire.CallOptions,
    _ attempt:
      @Sendable () async throws(Wire.Trouble) -> (exchanged: Wire.Exchanged, used: [Wire.Used])
  ) async throws(Wire.Trouble) -> Wire.Exchanged {
    var (exchanged, used) = try await attempt()
    if exchanged.response.status == 401 {
      var isRenewed = false
      for each in used where try await each.renew() { isRenewed = true }
      if isRenewed { (exchanged, used) = try await attempt() }
    }
    options.onAnswer?(exchanged.response.status, exchanged.response.headers)
    return exchanged
  }
}

extension Wire {
  /// Sets a header of a request.
  static func set(_ name: String, _ value: String, in headers: inout Headers) throws(Trouble) {
    guard isHeaderValue(value) else {
      throw Trouble(message: "the value of the header `\(name)` is not valid")
    }
    headers[name] = value
  }

  /// Whether a text is valid as the value of a header (RFC 9110, section 5.5).
  static func isHeaderValue(_ value: String) -> Bool {
    value.utf8.allSatisfy { (0x20..<0x7F).contains($0) || $0 == 0x09 }
  }
}
