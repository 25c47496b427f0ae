import Foundation

extension Wire {
  /// Does something that may call functions of the app's own.
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
      throw Trouble(message: "a function of the app's own threw", mishap: .thrown(error))
    }
  }

  /// Does something within a time limit.
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
      // A pause ends at once when the whole is cancelled.
      if case .some(nil) = first, _Concurrency.Task.isCancelled { first = await group.next() }
      group.cancelAll()
      return first ?? nil
    }
    guard let result else {
      let message = "no answer within \(Int64((limit * 1000).rounded())) ms"
      throw Trouble(message: message, mishap: .timedOut)
    }
    return try result.get()
  }

  /// An answer, and the request that it answers.
  struct Exchanged: Sendable {
    let outgoing: Outgoing
    let response: Response
  }
}

extension Wire.Connection {
  /// Headers of the connection and the call, the call's being stronger.
  ///
  /// - Parameter isNamed: whether the app has named the server; another gets none of the
  ///   connection's that may be a credential
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

  /// One exchange through all layers.
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

  /// Sends a request with the first alternative of credentials that is supplied; once more when the
  /// server rejects one that can be renewed.
  ///
  /// - Parameter attempt: sends the request once, and tells which credentials it used
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
      throw Trouble(message: "the header `\(name)` has a value that cannot stand in a header")
    }
    headers[name] = value
  }

  /// Whether a text can be the value of a header (RFC 9110, section 5.5).
  static func isHeaderValue(_ value: String) -> Bool {
    value.utf8.allSatisfy { (0x20..<0x7F).contains($0) || $0 == 0x09 }
  }
}
