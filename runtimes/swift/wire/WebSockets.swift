import Foundation

#if canImport(FoundationNetworking)
  import FoundationNetworking
#endif

extension Wire {
  /// Subscriptions over WebSocket by the protocol `graphql-transport-ws`, each on a socket of its
  /// own.
  ///
  /// - Parameters:
  ///   - accept: seconds until the server must accept a socket
  ///   - reconnecting: how a subscription reconnects after it was disconnected
  ///   - url: the address for subscriptions. Default: the connection's address with ws: in place
  ///     of http:
  ///   - opening: returns the payload that is sent once when a socket opens, before any
  ///     subscription. It usually contains credentials. Default: `{ authorization }` with the
  ///     connection's header of that name, or nothing if there is none
  public static func overWebSocket(
    accept: TimeInterval = 10,
    reconnecting: Reconnecting = Reconnecting(),
    url: (@Sendable () async throws -> String)? = nil,
    opening: (@Sendable () async throws -> JSON?)? = nil
  ) -> Subscriptions {
    Subscriptions(reconnecting: reconnecting) { subscribed throws(Trouble) in
      let wire = subscribed.connection.wire
      let address = try await owned {
        if let url { try await url() } else { try await wire.address() }
      }
      let initial =
        if let opening {
          try await owned { try await opening() }
        } else {
          try await subscribed.authorization()
        }
      let socket = try Socket(wire.transport, address, idle: subscribed.options.idle)
      try await withLimit(accept) { () async throws(Trouble) in try await socket.open(initial) }
      try await socket.tell("subscribe", .record(subscribed.payload), hasID: true)
      return socket
    }
  }
}

extension Wire.Subscribed {
  /// The authorization that the connection sends with requests.
  fileprivate func authorization() async throws(Wire.Trouble) -> Wire.JSON? {
    let wire = connection.wire
    var credentials = Wire.Credentials(headers: try await wire.startHeaders(options), query: [])
    _ = try await wire.authorize(Wire.graphqlAuth, &credentials)
    return credentials.headers["authorization"].map { ["authorization": .text($0)] }
  }
}

/// Close codes after which another attempt is useless (4400 to 4499, except too many requests).
private func isFinal(_ code: Int) -> Bool {
  (4400...4499).contains(code) && code != 4408 && code != 4429
}

/// A socket with one subscription.
private final class Socket: Wire.ResultSource {
  private let task: URLSessionWebSocketTask
  /// The address in failures.
  private let shown: String
  private let idle: TimeInterval?
  private let isComplete = Wire.Guarded(false)

  init(
    _ transport: Wire.Transport, _ address: String, idle: TimeInterval?
  ) throws(Wire.Trouble) {
    let isHTTP = address.lowercased().hasPrefix("http")
    let url = isHTTP ? "ws" + address.dropFirst(4) : address
    shown = Wire.shownAddress(url)
    self.idle = idle
    guard let platformURL = Wire.platformURL(url), platformURL.host != nil else {
      throw Wire.Trouble(message: "no socket can be opened at \(shown)")
    }
    var request = URLRequest(url: platformURL)
    request.setValue("graphql-transport-ws", forHTTPHeaderField: "Sec-WebSocket-Protocol")
    #if canImport(FoundationNetworking)
      // This platform leaves it out.
      request.setValue("Upgrade", forHTTPHeaderField: "Connection")
    #endif
    task = transport.socket(request)
    task.resume()
  }

  deinit {
    let task = task
    if isComplete.with({ $0 }) {
      task.cancel(with: .normalClosure, reason: nil)
    } else {
      _Concurrency.Task {
        try? await task.send(.string(Wire.jsonText(["id": "1", "type": "complete"])))
        task.cancel(with: .normalClosure, reason: nil)
      }
    }
  }

  /// Waits until the server accepts the socket.
  func open(_ initial: Wire.JSON?) async throws(Wire.Trouble) {
    try await tell("connection_init", initial)
    while true {
      let message = try await message()
      switch message.type {
      case "connection_ack": return
      case "ping": try await tell("pong", nil)
      case "pong": break
      default: throw foreign(message.text)
      }
    }
  }

  func next() async throws(Wire.Trouble) -> Wire.Heard? {
    while true {
      let message = try await Wire.withLimit(idle) { () async throws(Wire.Trouble) in
        try await self.message()
      }
      switch message.type {
      case "next":
        guard let result = Wire.result(of: message.payload) else { throw foreign(message.text) }
        return .result(result)
      case "complete":
        isComplete.with { $0 = true }
        return nil
      case "error":
        isComplete.with { $0 = true }
        return .errors(Wire.errors(in: message.payload?.list ?? []))
      case "ping": try await tell("pong", nil)
      case "pong": break
      default: throw foreign(message.text)
      }
    }
  }

  func tell(
    _ type: String, _ payload: Wire.JSON?, hasID: Bool = false
  ) async throws(Wire.Trouble) {
    var fields = Wire.Fields()
    if hasID { fields["id"] = "1" }
    fields["type"] = .text(type)
    fields["payload"] = payload
    do {
      try await task.send(.string(Wire.jsonText(.record(fields))))
    } catch {
      throw trouble(error)
    }
  }

  private func message() async throws(Wire.Trouble) -> (
    type: String?, payload: Wire.JSON?, text: String
  ) {
    let task = task
    let message: URLSessionWebSocketTask.Message
    do {
      message = try await withTaskCancellationHandler {
        try await task.receive()
      } onCancel: {
        task.cancel(with: .goingAway, reason: nil)
      }
    } catch {
      throw trouble(error)
    }
    let text =
      switch message {
      case .string(let text): text
      case .data(let data): String(decoding: data, as: UTF8.self)
      @unknown default: ""
      }
    let json = Wire.parsed(text)
    return (json?["type"]?.text, json?["payload"], text)
  }

  private func trouble(_ error: any Swift.Error) -> Wire.Trouble {
    if _Concurrency.Task.isCancelled {
      return Wire.Trouble(message: "the socket at \(shown) was cancelled", mishap: .cancelled)
    }
    let code = task.closeCode.rawValue
    guard code != 0 else {
      let cause = (error as? URLError)?.code
      return Wire.Trouble(
        message: "the socket at \(shown) was disconnected", mishap: .unreachable(cause: cause))
    }
    let reason = task.closeReason.map { String(decoding: $0, as: UTF8.self) } ?? ""
    let told = reason.isEmpty ? "" : ": \(reason)"
    #if canImport(FoundationNetworking)
      // This platform knows only the registered codes, and reports 1003 for all others.
      let isFinal = code == 1003
      let words = isFinal ? "an application's code" : String(code)
    #else
      let isFinal = isFinal(code)
      let words = String(code)
    #endif
    let message = "the server closed the socket at \(shown) (\(words)\(told))"
    guard isFinal else { return Wire.Trouble(message: message) }
    return Wire.Trouble(
      message: message, mishap: .unexpected(status: code),
      answer: Wire.FailedAnswer(status: code, headers: [:], text: reason))
  }

  private func foreign(_ text: String) -> Wire.Trouble {
    Wire.Trouble(
      message: "a message does not follow the protocol", mishap: .malformed(path: nil),
      answer: Wire.FailedAnswer(status: 101, headers: [:], text: text))
  }
}
