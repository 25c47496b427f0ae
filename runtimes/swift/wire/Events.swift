import Foundation

extension Wire {
  /// One event of a `text/event-stream`.
  struct ServerEvent: Sendable {
    let event: String
    let data: String
    let id: String?
  }

  /// The state of a stream of events.
  struct StreamState: Sendable {
    /// The id of the last event that had one; "" before that.
    var lastID = ""
    /// Seconds that the server requires between reconnections.
    var retry: TimeInterval?
  }

  /// The events of a `text/event-stream`, parsed by the standard (HTML, section 9.2.6). An event
  /// without a blank line after it is dropped when the stream ends.
  struct EventCutter: Sendable {
    var state: StreamState
    /// Whether events that have a name and no data, which the standard drops, are returned too.
    var withEmpty = false
    private var line: [UInt8] = []
    private var isFirstLine = true
    private var isAfterReturn = false
    private var event = ""
    private var id: String?
    private var data: [String] = []

    init(_ state: StreamState, withEmpty: Bool = false) {
      self.state = state
      self.withEmpty = withEmpty
    }

    /// The events that are complete with these bytes.
    mutating func taken(_ bytes: Foundation.Data) -> [ServerEvent] {
      var found: [ServerEvent] = []
      for byte in bytes {
        // The second half of a line ending whose first half already ended the line.
        let isSecondHalf = isAfterReturn && byte == UInt8(ascii: "\n")
        isAfterReturn = byte == UInt8(ascii: "\r")
        if isSecondHalf { continue }
        if byte == UInt8(ascii: "\n") || byte == UInt8(ascii: "\r") {
          if let event = endLine() { found.append(event) }
        } else {
          line.append(byte)
        }
      }
      return found
    }

    private mutating func endLine() -> ServerEvent? {
      if isFirstLine, line.starts(with: [0xEF, 0xBB, 0xBF]) { line.removeFirst(3) }
      isFirstLine = false
      defer { line.removeAll(keepingCapacity: true) }
      if line.isEmpty { return endEvent() }
      let colon = line.firstIndex(of: UInt8(ascii: ":"))
      var value = line[(colon.map { $0 + 1 } ?? line.count)...]
      if value.first == UInt8(ascii: " ") { value.removeFirst() }
      take(
        String(decoding: line[..<(colon ?? line.count)], as: UTF8.self),
        String(decoding: value, as: UTF8.self))
      return nil
    }

    private mutating func endEvent() -> ServerEvent? {
      defer {
        event = ""
        id = nil
        data = []
      }
      guard !data.isEmpty || withEmpty && !event.isEmpty else { return nil }
      return ServerEvent(
        event: event.isEmpty ? "message" : event, data: data.joined(separator: "\n"), id: id)
    }

    private mutating func take(_ field: String, _ value: String) {
      switch field {
      case "data": data.append(value)
      case "event": event = value
      case "id" where !value.utf8.contains(0):
        id = value
        state.lastID = value
      case "retry" where !value.isEmpty && value.utf8.allSatisfy { $0 &- 48 < 10 }:
        state.retry = TimeInterval(value).map { $0 / 1000 }
      default: break
      }
    }
  }

  /// The pieces between separators. The text after the last separator is a piece too. Pieces of
  /// white space are left out.
  struct PieceCutter: Sendable {
    private let separator: UInt8
    private var pending: [UInt8] = []

    init(_ separator: UInt8) {
      self.separator = separator
    }

    mutating func taken(_ bytes: Foundation.Data) -> [String] {
      var found: [String] = []
      for byte in bytes {
        if byte != separator {
          pending.append(byte)
        } else if let piece = piece() {
          found.append(piece)
        }
      }
      return found
    }

    /// The rest when the stream ends.
    mutating func ended() -> [String] {
      piece().map { [$0] } ?? []
    }

    private mutating func piece() -> String? {
      let text = String(decoding: pending, as: UTF8.self)
      pending.removeAll(keepingCapacity: true)
      return text.allSatisfy(\.isWhitespace) ? nil : text
    }
  }
}
