import Foundation

extension Wire {
  /// The transport of subscriptions: `overEvents()` or `overWebSocket()`.
  public struct Subscriptions: Sendable {
    let reconnecting: Reconnecting
    /// Begins a subscription. It has begun when this returns, and returns its results one by one.
    let begin: @Sendable (Subscribed) async throws(Trouble) -> any ResultSource
  }

  /// How a subscription reconnects after it was disconnected.
  public struct Reconnecting: Sendable {
    let tries: Int
    let wait: TimeInterval

    /// - Parameters:
    ///   - tries: the largest number of attempts without a result in between; 0 for none
    ///   - wait: seconds before the first attempt; each further pause is twice as long, at most
    ///     30 seconds
    public init(tries: Int = 5, wait: TimeInterval = 0.5) {
      self.tries = tries
      self.wait = wait
    }
  }

  /// Subscriptions over server-sent events, each a request of its own.
  public static func overEvents(_ reconnecting: Reconnecting = Reconnecting()) -> Subscriptions {
    Subscriptions(reconnecting: reconnecting) { subscribed throws(Trouble) in
      let exchanged = try await subscribed.ask(Asking(accept: "text/event-stream", isStream: true))
      return try await EventResults(exchanged.response, subscribed.options)
    }
  }

  /// One subscription that is about to begin.
  struct Subscribed: Sendable {
    let connection: GraphQLConnection
    let payload: Fields
    let options: CallOptions
    /// Sends the request of the subscription.
    let ask: @Sendable (Asking) async throws(Trouble) -> Exchanged
  }

  /// The source of the results of one subscription.
  protocol ResultSource: Sendable {
    /// The next result; nil when the subscription is complete.
    func next() async throws(Trouble) -> Heard?
  }

  /// The events of a subscription.
  enum Heard: Sendable {
    case result(GraphQLResult)
    /// Errors of the whole subscription, which end it.
    case errors([GraphQLError])
  }
}

extension Wire.GraphQLConnection {
  /// Performs a subscription: one value for each result, until it is complete or nobody reads any
  /// more. A result with errors ends it, unless the options of the call handle such results.
  func subscribe<Answer, Failure>(
    _ operation: Wire.Operation<Answer, Failure>, _ variables: Wire.Variables,
    _ options: Wire.CallOptions
  ) -> Wire.Items<Answer, Failure> {
    let subscribed = subscribed(operation, variables, options)
    return Wire.Items {
      let subscribing = Wire.Subscribing(operation, subscribed)
      return { () async throws(Failure) in try await subscribing.next() }
    }
  }

  func subscribed<Answer, Failure>(
    _ operation: Wire.Operation<Answer, Failure>, _ variables: Wire.Variables,
    _ options: Wire.CallOptions
  ) -> Wire.Subscribed {
    Wire.Subscribed(
      connection: self, payload: payload(operation, variables.json), options: options
    ) { asking throws(Wire.Trouble) in
      try await Wire.withLimit(options.timeout ?? wire.settings.timeout) {
        () async throws(Wire.Trouble) in
        try await request(operation, variables, options, asking)
      }
    }
  }
}

extension Wire {
  /// One reading of a subscription.
  actor Subscribing<Answer: Sendable, Failure: CallFailure> {
    private let operation: Operation<Answer, Failure>
    private let subscribed: Subscribed
    private var source: (any ResultSource)?
    /// The remaining attempts to reconnect; nil before the subscription has begun.
    private var left: Int?
    private var isOver = false

    init(_ operation: Operation<Answer, Failure>, _ subscribed: Subscribed) {
      self.operation = operation
      self.subscribed = subscribed
    }

    func next() async throws(Failure) -> Answer? {
      while let outcome = await nextOutcome() {
        do throws(Failure) {
          return try outcome.get()
        } catch {
          guard let onErrors = subscribed.options.onErrors, !isOver else {
            isOver = true
            source = nil
            throw error
          }
          onErrors(error)
        }
      }
      return nil
    }

    /// Handles the next result. Errors in a result do not end the subscription (GraphQL
    /// specification, section 6.2.3.2).
    func nextOutcome() async -> Swift.Result<Answer, Failure>? {
      if isOver { return nil }
      let outcome = await settled()
      if case .failure(let failure)? = outcome {
        subscribed.connection.wire.settings.onFailure?(failure)
      }
      return outcome
    }

    private func settled() async -> Swift.Result<Answer, Failure>? {
      let heard: Heard?
      do throws(Trouble) {
        heard = try await hear()
      } catch {
        end()
        return .failure(.other(operation.call, error))
      }
      switch heard {
      case nil:
        end()
        return nil
      case .errors(let errors):
        end()
        return .failure(Wire.errors(of: operation, errors, nil))
      case .result(let result):
        do throws(Failure) {
          return .success(try data(of: operation, result, 200))
        } catch {
          return .failure(error)
        }
      }
    }

    private func end() {
      isOver = true
      source = nil
    }

    /// The next event. A subscription that is disconnected after it had begun is reconnected. The
    /// failure of the first attempt is thrown to the app.
    private func hear() async throws(Trouble) -> Heard? {
      let reconnecting = subscribed.connection.settings.subscriptions.reconnecting
      while true {
        do throws(Trouble) {
          if source == nil {
            source = try await subscribed.connection.settings.subscriptions.begin(subscribed)
            left = left ?? reconnecting.tries
          }
          let heard = try await source?.next()
          if heard != nil { left = reconnecting.tries }
          return heard ?? nil
        } catch {
          source = nil
          let still = left ?? 0
          guard case .unreachable = error.mishap, still > 0 else { throw error }
          let wait = reconnecting.wait * pow(2, Double(reconnecting.tries - still))
          try? await _Concurrency.Task.sleep(nanoseconds: UInt64(min(30, wait) * 1e9))
          left = still - 1
        }
      }
    }
  }
}

/// The results of a subscription over server-sent events.
private actor EventResults: Wire.ResultSource {
  private let body: Wire.StreamBody
  private let headers: Wire.Headers
  private let idle: TimeInterval?
  private var cutter = Wire.EventCutter(Wire.StreamState(), withEmpty: true)
  private var ready: ArraySlice<Wire.ServerEvent> = []
  private var refused: [Wire.GraphQLError]?

  init(_ response: Wire.Response, _ options: Wire.CallOptions) async throws(Wire.Trouble) {
    headers = response.headers
    idle = options.idle
    let type = response.headers["content-type"].map(Wire.mediaType)
    body = response.pieces
    if (200..<300).contains(response.status), type == "text/event-stream" { return }
    let received = Wire.Received(
      status: response.status, headers: response.headers, bytes: try await body.rest())
    guard let errors = Wire.result(of: Wire.parsed(received.text))?.errors else {
      let told = Wire.excerpt(response.headers["content-type"], received.text)
      throw Wire.Trouble(
        message: "the server responded with \(response.status) without a stream: \(told)",
        mishap: .unexpected(status: response.status), answer: received.failed)
    }
    refused = errors
  }

  func next() async throws(Wire.Trouble) -> Wire.Heard? {
    if let refused { return .errors(refused) }
    while true {
      while let event = ready.popFirst() {
        if event.event == "complete" { return nil }
        guard event.event == "next" else { continue }
        if let result = Wire.result(of: Wire.parsed(event.data)) { return .result(result) }
        throw Wire.Trouble(
          message: "an event is not a GraphQL result", mishap: .malformed(path: nil),
          answer: Wire.FailedAnswer(status: 200, headers: headers, text: event.data))
      }
      let body = body
      let bytes = try await Wire.withLimit(idle) { () async throws(Wire.Trouble) in
        try await body.next()
      }
      guard let bytes else { return nil }
      ready += cutter.taken(bytes)
    }
  }
}
