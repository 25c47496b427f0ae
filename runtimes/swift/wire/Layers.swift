import Foundation

/// Methods that change nothing on the server (RFC 9110, section 9.2.1).
private let safeMethods: Set<String> = ["GET", "HEAD", "OPTIONS", "TRACE", "QUERY"]

extension Wire {
  /// Sends safe requests again that could not be delivered, or were answered with a status that may
  /// pass by itself, after the pause that the server asks for in `Retry-After` (RFC 9110, section
  /// 10.2.3), else after growing pauses.
  ///
  /// - Parameters:
  ///   - idempotent: whether PUT and DELETE are sent again too: done twice, they change no more
  ///     than done once
  ///   - longestPause: in seconds; a server that asks for a longer one gets no further try
  ///   - pause: in seconds, before the second try, doubled before each further one, and varied
  ///   - statuses: statuses that may pass by themselves
  ///   - times: how often a request is sent again at most
  public static func retrying(
    idempotent: Bool = false,
    longestPause: TimeInterval = 20,
    pause: TimeInterval = 0.3,
    statuses: Set<Int> = [429, 502, 503, 504],
    times: Int = 2
  ) -> Layer {
    let methods = idempotent ? safeMethods.union(["PUT", "DELETE"]) : safeMethods
    return { request, next in
      guard methods.contains(request.method) else { return try await next(request) }
      var tries = 0
      while true {
        var wait = pause * pow(2, Double(tries)) * Double.random(in: 0.75...1.25)
        do {
          let response = try await next(request)
          guard statuses.contains(response.status), tries < times else { return response }
          wait = askedPause(response.headers["retry-after"]) ?? wait
          if wait > longestPause { return response }
        } catch let trouble as Trouble {
          guard case .unreachable = trouble.mishap, tries < times else { throw trouble }
        }
        let nanoseconds = UInt64(min(wait, longestPause) * 1e9)
        try await _Concurrency.Task.sleep(nanoseconds: nanoseconds)
        tries += 1
      }
    }
  }

  /// What a server asks to wait, in seconds: a number of them, or until an instant.
  private static func askedPause(_ header: String?) -> TimeInterval? {
    guard let said = header?.trimmingCharacters(in: .whitespaces), !said.isEmpty else { return nil }
    if said.utf8.allSatisfy({ (UInt8(ascii: "0")...UInt8(ascii: "9")).contains($0) }) {
      return TimeInterval(said)
    }
    let format = DateFormatter()
    format.locale = Locale(identifier: "en_US_POSIX")
    format.timeZone = TimeZone(identifier: "GMT")
    format.dateFormat = "EEE, dd MMM yyyy HH:mm:ss zzz"
    return format.date(from: said).map { max(0, $0.timeIntervalSinceNow) }
  }

  /// Calls back before every request, and sends what it gives.
  public static func eachRequest(
    _ look: @escaping @Sendable (Outgoing) async throws -> Outgoing
  ) -> Layer {
    { request, next in try await next(try await look(request)) }
  }

  /// Calls back after every answer, before anything reads its body.
  public static func eachAnswer(
    _ look: @escaping @Sendable (Response, Outgoing) async throws -> Void
  ) -> Layer {
    { request, next in
      let response = try await next(request)
      try await look(response, request)
      return response
    }
  }
}
