import Foundation

/// Methods that change nothing on the server (RFC 9110, section 9.2.1).
private let safeMethods: Set<String> = ["GET", "HEAD", "OPTIONS", "TRACE", "QUERY"]

extension Wire {
  /// Retries safe requests that could not be sent or whose response has the status of a temporary
  /// failure. The pause is the one in the response's `Retry-After` (RFC 9110, section 10.2.3),
  /// otherwise it grows with each retry.
  ///
  /// - Parameters:
  ///   - idempotent: whether PUT and DELETE are retried too; sending them twice has the same
  ///     effect as sending them once
  ///   - longestPause: in seconds; if a server requires a longer pause, there is no retry
  ///   - pause: in seconds, before the first retry, doubled for each further one, with some
  ///     random variation
  ///   - statuses: statuses of temporary failures
  ///   - times: the largest number of retries
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

  /// The pause that a server requires, in seconds: from a number of them, or from a date-time.
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

  /// Calls a function before every request and sends its result.
  public static func eachRequest(
    _ look: @escaping @Sendable (Outgoing) async throws -> Outgoing
  ) -> Layer {
    { request, next in try await next(try await look(request)) }
  }

  /// Calls a function after every response, before its body is read.
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
