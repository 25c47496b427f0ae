import Foundation

/// The usual pause of clients if the server gives none, in seconds.
private let usualRetry: TimeInterval = 3

/// The text that ends a stream of JSON events, if the app gives no other.
private let usualEnd = "[DONE]"

extension Wire {
  /// The items of a response, in order of arrival. Each iteration performs the call; leaving the
  /// loop ends the call.
  public struct Items<Item: Sendable, Failure: CallFailure>: AsyncSequence, Sendable {
    public typealias Element = Item

    /// Begins an iteration: returns the function for the next item.
    let start: @Sendable () -> @Sendable () async throws(Failure) -> Item?

    public func makeAsyncIterator() -> Iterator {
      Iterator(ask: start())
    }

    public struct Iterator: AsyncIteratorProtocol, Sendable {
      fileprivate let ask: @Sendable () async throws(Failure) -> Item?

      /// The next item; nil at the end.
      public mutating func next() async throws(Failure) -> Item? {
        try await ask()
      }
    }
  }

  /// How the items of a body are separated.
  enum ItemKind: Sendable {
    case lines, sequence, events, eventTexts, eventRecords
  }

  /// How a response is read item by item.
  struct ItemsForm<Item>: Sendable {
    let kind: ItemKind
    let read: Reader<Item>

    func item(_ event: ServerEvent) throws(Unreadable) -> Item {
      let json: JSON
      switch kind {
      case .eventTexts: json = .text(event.data)
      case .eventRecords:
        var fields = Fields()
        fields["event"] = .text(event.event)
        fields["data"] = .text(event.data)
        if let id = event.id { fields["id"] = .text(id) }
        json = .record(fields)
      default:
        do throws(NoJSON) {
          json = try parseJSON(event.data.utf8)
        } catch {
          throw .noJSON(error.message)
        }
      }
      do throws(Mismatch) {
        return try read(json)
      } catch {
        throw .mismatch(error)
      }
    }
  }

  /// A body of items: one for each line, record separator or event.
  static func itemsBody(_ items: [JSON]?, _ kind: ItemKind, type: String) -> Body? {
    guard let items else { return nil }
    let (before, after) =
      switch kind {
      case .lines: ("", "\n")
      case .sequence: ("\u{1E}", "\n")
      default: ("data: ", "\n\n")
      }
    return textBody(items.map { before + jsonText($0) + after }.joined(), type: type)
  }
}

extension Wire {
  static func unreadableItem(_ answer: FailedAnswer, _ why: Unreadable) -> Trouble {
    let (told, path): (String, String?) =
      switch why {
      case .mismatch(let mismatch): (mismatch.message, mismatch.path)
      case .noJSON(let message): (message, nil)
      }
    return Trouble(
      message: "an item of the stream cannot be read: \(told)", mishap: .malformed(path: path),
      answer: answer)
  }
}

extension Wire.AnswerRule {
  /// A response that arrives item by item.
  static func items(
    _ status: String, _ kind: Wire.ItemKind, _ read: @escaping Wire.Reader<Answer>
  ) -> Wire.AnswerRule<Answer> {
    Wire.AnswerRule(status: status, items: Wire.ItemsForm(kind: kind, read: read)) {
      _ throws(Wire.Unreadable) in
      throw Wire.Unreadable.mismatch(Wire.Mismatch("a stream"))
    }
  }

  /// A response that arrives item by item, in a call with other responses that arrive as a whole.
  static func items<Item>(
    _ status: String, _ kind: Wire.ItemKind, _ read: @escaping Wire.Reader<Item>,
    _ make: @escaping @Sendable (Item) -> Answer
  ) -> Wire.AnswerRule<Answer> {
    items(status, kind) { json throws(Wire.Mismatch) in make(try read(json)) }
  }
}

extension Wire.Connection {
  /// Performs a call that responds item by item. A failure is thrown where the items are read.
  func receive<Item, Failure>(
    _ request: Wire.RestRequest, _ options: Wire.CallOptions,
    _ reading: Wire.Reading<Item, Failure>
  ) -> Wire.Items<Item, Failure> {
    Wire.Items {
      let receiving = Receiving(self, request, options, reading)
      return { () async throws(Failure) in try await receiving.next() }
    }
  }
}

/// One reading of a stream, from the request to the end.
private actor Receiving<Item: Sendable, Failure: Wire.CallFailure> {
  /// Why a reading ends early.
  private enum Ended: Swift.Error {
    case trouble(Wire.Trouble)
    case failure(Failure)
  }

  /// A response that is being read.
  private struct Answer {
    let body: Wire.StreamBody
    let kind: Wire.ItemKind
    var events: Wire.EventCutter
    var pieces: Wire.PieceCutter
  }

  private let connection: Wire.Connection
  private let request: Wire.RestRequest
  private let options: Wire.CallOptions
  private let reading: Wire.Reading<Item, Failure>
  private var state = Wire.StreamState()
  private var ready: ArraySlice<Wire.ServerEvent> = []
  private var answer: Answer?
  /// The head of the response that the ready events belong to.
  private var head: (status: Int, headers: Wire.Headers, form: Wire.ItemsForm<Item>)?
  private var isAgain = false
  private var isOver = false

  init(
    _ connection: Wire.Connection, _ request: Wire.RestRequest, _ options: Wire.CallOptions,
    _ reading: Wire.Reading<Item, Failure>
  ) {
    self.connection = connection
    self.request = request
    self.options = options
    self.reading = reading
  }

  func next() async throws(Failure) -> Item? {
    while !isOver {
      do throws(Ended) {
        if let item = try await step() { return item }
      } catch {
        answer = nil
        if case .trouble(let trouble) = error, case .unreachable = trouble.mishap, canReconnect {
          continue
        }
        isOver = true
        let failure: Failure
        switch error {
        case .trouble(let trouble): failure = .other(request.call, trouble)
        case .failure(let declared): failure = declared
        }
        connection.settings.onFailure?(failure)
        throw failure
      }
    }
    return nil
  }

  /// Whether a stream can be continued. A stream that the server has ended has no last id.
  private var canReconnect: Bool {
    options.reconnects && request.method == "GET" && !state.lastID.isEmpty
  }

  /// Takes the next step: returns an item, or nil if there was none.
  private func step() async throws(Ended) -> Item? {
    if let piece = ready.popFirst() { return try item(piece) }
    guard let answer else { return try await begin() }
    let idle = options.idle
    let bytes: Foundation.Data?
    do throws(Wire.Trouble) {
      bytes = try await Wire.withLimit(idle) { () async throws(Wire.Trouble) in
        try await answer.body.next()
      }
    } catch {
      throw .trouble(error)
    }
    take(bytes)
    return nil
  }

  private func take(_ bytes: Foundation.Data?) {
    guard var answer else { return }
    switch answer.kind {
    case .lines, .sequence:
      let texts = bytes.map { answer.pieces.taken($0) } ?? answer.pieces.ended()
      ready += texts.map { Wire.ServerEvent(event: "", data: $0, id: nil) }
    default:
      if let bytes { ready += answer.events.taken(bytes) }
      state = answer.events.state
    }
    self.answer = answer
    if bytes == nil {
      self.answer = nil
      isAgain = true
    }
  }

  private func begin() async throws(Ended) -> Item? {
    if isAgain {
      guard canReconnect else {
        isOver = true
        return nil
      }
      let pause = state.retry ?? usualRetry
      try? await _Concurrency.Task.sleep(nanoseconds: UInt64(pause * 1e9))
    }
    isAgain = true
    var options = options
    if !state.lastID.isEmpty { options.headers["Last-Event-ID"] = state.lastID }
    let exchanged = try await exchanged(options)
    let response = exchanged.response
    let body = response.pieces
    // The server has ended the stream (HTML, section 9.2.2).
    if response.status == 204 {
      state.lastID = ""
      return nil
    }
    if let form = reading.answer(for: response.status)?.items {
      let separator: UInt8 = form.kind == .lines ? 0x0A : 0x1E
      head = (response.status, response.headers, form)
      answer = Answer(
        body: body, kind: form.kind, events: Wire.EventCutter(state),
        pieces: Wire.PieceCutter(separator))
      return nil
    }
    let bytes: Foundation.Data
    do throws(Wire.Trouble) {
      bytes = try await body.rest()
    } catch {
      throw .trouble(error)
    }
    return try whole(
      Wire.Response(status: response.status, headers: response.headers, body: bytes))
  }

  private func exchanged(
    _ options: Wire.CallOptions
  ) async throws(Ended) -> Wire.Exchanged {
    let (connection, request) = (connection, request)
    do throws(Wire.Trouble) {
      return try await Wire.withLimit(options.timeout ?? connection.settings.timeout) {
        () async throws(Wire.Trouble) in
        try await connection.begin(request, options, isStream: true)
      }
    } catch {
      throw .trouble(error)
    }
  }

  private func whole(_ response: Wire.Response) throws(Ended) -> Item {
    do throws(Failure) {
      return try connection.read(response, as: reading, request.call)
    } catch {
      throw .failure(error)
    }
  }

  private func item(_ event: Wire.ServerEvent) throws(Ended) -> Item? {
    guard let (status, headers, form) = head else { return nil }
    let isEvents = form.kind != .lines && form.kind != .sequence
    let hasEnd = form.kind == .events || connection.settings.streamEnd != nil
    if isEvents, hasEnd, event.data == connection.settings.streamEnd ?? usualEnd {
      state.lastID = ""
      answer = nil
      ready = []
      isOver = true
      return nil
    }
    let item: Item
    do throws(Wire.Unreadable) {
      item = try form.item(event)
    } catch {
      let answer = Wire.FailedAnswer(status: status, headers: headers, text: event.data)
      throw .trouble(Wire.unreadableItem(answer, error))
    }
    if isEvents { options.onEvent?(event.event, event.id) }
    return item
  }
}
