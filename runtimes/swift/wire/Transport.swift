import Foundation

#if canImport(FoundationNetworking)
  import FoundationNetworking
#endif

extension Wire {
  /// The platform's session, without what it does automatically: redirects, time limits, cookies,
  /// caches.
  final class Transport: Sendable {
    /// The session of connections without one of their own.
    static let shared = Transport(configuration: ownConfiguration(), delegate: nil)

    private let session: URLSession
    private let exchanges: Exchanges

    /// - Parameter app: the app's own session
    convenience init(_ app: URLSession) {
      self.init(configuration: app.configuration, delegate: app.delegate)
    }

    private init(configuration: URLSessionConfiguration, delegate: (any URLSessionDelegate)?) {
      exchanges = Exchanges(app: delegate)
      session = URLSession(configuration: configuration, delegate: exchanges, delegateQueue: nil)
    }

    deinit {
      // A session keeps its delegate until it is invalidated.
      session.finishTasksAndInvalidate()
    }

    private static func ownConfiguration() -> URLSessionConfiguration {
      let configuration = URLSessionConfiguration.ephemeral
      configuration.httpCookieStorage = nil
      configuration.httpShouldSetCookies = false
      configuration.urlCache = nil
      configuration.urlCredentialStorage = nil
      configuration.requestCachePolicy = .reloadIgnoringLocalCacheData
      return configuration
    }

    /// Sends a request once. The body of a stream is returned while it arrives, any other as a
    /// whole. Cancelling the task ends the request.
    func send(_ request: URLRequest, _ outgoing: Outgoing) async throws(Trouble) -> Response {
      let file: SentFile?
      let task: URLSessionTask
      switch outgoing.body {
      case nil:
        file = nil
        task = session.dataTask(with: request)
      case .bytes(let bytes):
        file = nil
        task = session.uploadTask(with: request, from: bytes)
      case .file(let url):
        file = nil
        task = session.uploadTask(with: request, fromFile: url)
      case .parts(let parts):
        let made = try SentFile(parts)
        file = made
        task = session.uploadTask(with: request, fromFile: made.url)
      }
      let exchange = Exchange(outgoing, task, file)
      exchanges.add(exchange, of: task)
      return try await exchange.response()
    }

    /// A socket that is not open yet.
    func socket(_ request: URLRequest) -> URLSessionWebSocketTask {
      session.webSocketTask(with: request)
    }
  }

  /// A file that is made of several, and is removed when nobody needs it any more.
  final class SentFile: Sendable {
    let url: Foundation.URL

    init(_ parts: [Content]) throws(Trouble) {
      url = FileManager.default.temporaryDirectory.appendingPathComponent(UUID().uuidString)
      do {
        try Foundation.Data().write(to: url)
        let into = try FileHandle(forWritingTo: url)
        defer { try? into.close() }
        try SentFile.write(parts, into)
      } catch {
        try? FileManager.default.removeItem(at: url)
        throw Trouble(message: "a file to send cannot be read")
      }
    }

    deinit {
      try? FileManager.default.removeItem(at: url)
    }

    private static func write(_ parts: [Content], _ into: FileHandle) throws {
      for part in parts {
        switch part {
        case .bytes(let bytes): try into.write(contentsOf: bytes)
        case .parts(let parts): try write(parts, into)
        case .file(let url):
          let from = try FileHandle(forReadingFrom: url)
          defer { try? from.close() }
          while let piece = try from.read(upToCount: 1 << 18), !piece.isEmpty {
            try into.write(contentsOf: piece)
          }
        }
      }
    }
  }
}

extension Wire {
  /// Saves the body of a success that came from elsewhere.
  static func save(
    _ bytes: Foundation.Data, to url: Foundation.URL, of status: Int
  ) throws(Trouble) {
    guard (200..<300).contains(status) else { return }
    let file = try SavedFile(url)
    try file.add(bytes)
    _ = try file.whole()
  }

  /// A file that is being saved. It stays next to its place until it is complete.
  final class SavedFile: Sendable {
    private let url: Foundation.URL
    private let part: Foundation.URL
    private let into: Guarded<FileHandle>

    init(_ url: Foundation.URL) throws(Trouble) {
      self.url = url
      part = url.appendingPathExtension(UUID().uuidString)
      do {
        try Foundation.Data().write(to: part)
        into = Guarded(try FileHandle(forWritingTo: part))
      } catch {
        throw SavedFile.unwritable
      }
    }

    deinit {
      try? FileManager.default.removeItem(at: part)
    }

    func add(_ bytes: Foundation.Data) throws(Trouble) {
      do {
        try into.with { try $0.write(contentsOf: bytes) }
      } catch {
        throw SavedFile.unwritable
      }
    }

    /// Moves the file to its place and returns its content.
    func whole() throws(Trouble) -> Foundation.Data {
      do {
        try into.with { try $0.close() }
        // A rename replaces an existing file at once, or not at all.
        guard rename(part.path, url.path) == 0 else { throw SavedFile.unwritable }
        return try Foundation.Data(contentsOf: url, options: .alwaysMapped)
      } catch {
        throw SavedFile.unwritable
      }
    }

    private static var unwritable: Trouble {
      Trouble(message: "the response cannot be saved to the file")
    }
  }
}

/// One request that is under way.
private final class Exchange: Sendable {
  private struct State {
    var waiting: CheckedContinuation<Swift.Result<Wire.Response, Wire.Trouble>, Never>?
    var result: Swift.Result<Wire.Response, Wire.Trouble>?
    var head: (status: Int, headers: Wire.Headers)?
    var bytes = Foundation.Data()
    var saved: Wire.SavedFile?
    var pieces: Wire.Pieces?
  }

  private let outgoing: Wire.Outgoing
  private let task: URLSessionTask
  private let file: Wire.SentFile?
  private let state = Wire.Guarded(State())

  init(_ outgoing: Wire.Outgoing, _ task: URLSessionTask, _ file: Wire.SentFile?) {
    self.outgoing = outgoing
    self.task = task
    self.file = file
  }

  func response() async throws(Wire.Trouble) -> Wire.Response {
    let task = task
    let result = await withTaskCancellationHandler {
      await withCheckedContinuation { waiting in
        let known = state.with { state in
          if state.result == nil { state.waiting = waiting }
          return state.result
        }
        if let known { waiting.resume(returning: known) } else { task.resume() }
      }
    } onCancel: {
      task.cancel()
    }
    return try result.get()
  }

  private func end(_ result: Swift.Result<Wire.Response, Wire.Trouble>) {
    let waiting = state.with { state in
      if state.result == nil { state.result = result }
      defer { state.waiting = nil }
      return state.waiting
    }
    waiting?.resume(returning: result)
  }

  func received(_ response: URLResponse) {
    guard let http = response as? HTTPURLResponse else { return }
    var headers = Wire.Headers()
    for (name, value) in http.allHeaderFields {
      if let name = name as? String, let value = value as? String { headers.add(name, value) }
    }
    let status = http.statusCode
    var saved: Wire.SavedFile?
    if let url = outgoing.saveTo, (200..<300).contains(status), !outgoing.isStream {
      do throws(Wire.Trouble) {
        saved = try Wire.SavedFile(url)
      } catch {
        end(.failure(error))
        task.cancel()
      }
    }
    state.with { state in
      state.head = (status, headers)
      state.saved = saved
    }
    guard outgoing.isStream else { return }
    let pieces = Wire.Pieces()
    state.with { $0.pieces = pieces }
    let body = Wire.ResponseBody.stream(Wire.StreamBody(pieces, task))
    end(.success(Wire.Response(status: status, headers: headers, content: body)))
  }

  func received(_ bytes: Foundation.Data) {
    let (pieces, saved) = state.with { state in
      if state.pieces == nil, state.saved == nil { state.bytes.append(bytes) }
      return (state.pieces, state.saved)
    }
    pieces?.add(bytes)
    do throws(Wire.Trouble) {
      try saved?.add(bytes)
    } catch {
      end(.failure(error))
      task.cancel()
    }
  }

  func sent(_ bytes: Int64, of total: Int64) {
    outgoing.onProgress?(Wire.UploadProgress(sent: bytes, total: total > 0 ? total : nil))
  }

  func completed(_ error: (any Swift.Error)?) {
    let (head, pieces, bytes, saved) = state.with { state in
      defer { state.saved = nil }
      return (state.head, state.pieces, state.bytes, state.saved)
    }
    if let error {
      let trouble = trouble(error, hasBegun: head != nil)
      pieces?.end(trouble)
      end(.failure(trouble))
    } else if let head {
      pieces?.end(nil)
      do throws(Wire.Trouble) {
        let content = Wire.ResponseBody.whole(try saved?.whole() ?? bytes)
        var response = Wire.Response(status: head.status, headers: head.headers, content: content)
        response.isSaved = saved != nil
        end(.success(response))
      } catch {
        end(.failure(error))
      }
    } else {
      end(.failure(Wire.Trouble(message: "the response to \(outgoing) is not HTTP")))
    }
  }

  private func trouble(_ error: any Swift.Error, hasBegun: Bool) -> Wire.Trouble {
    // The platform's error contains the whole address, which may have a key in its query.
    let code = (error as? URLError)?.code
    if code == .cancelled {
      return Wire.Trouble(message: "\(outgoing) was cancelled", mishap: .cancelled)
    }
    let message =
      hasBegun ? "the response to \(outgoing) was cut off" : "\(outgoing) could not be reached"
    return Wire.Trouble(message: message, mishap: .unreachable(cause: code))
  }
}

/// The delegate of a session. It passes events on to the request they belong to.
private final class Exchanges: NSObject, URLSessionDataDelegate, Sendable {
  private let all = Wire.Guarded<[Int: Exchange]>([:])
  /// The delegate of the app, which knows how to respond to a challenge.
  private let app: (any URLSessionDelegate)?

  init(app: (any URLSessionDelegate)?) {
    self.app = app
  }

  func add(_ exchange: Exchange, of task: URLSessionTask) {
    all.with { $0[task.taskIdentifier] = exchange }
  }

  private func exchange(of task: URLSessionTask) -> Exchange? {
    all.with { $0[task.taskIdentifier] }
  }

  func urlSession(
    _ session: URLSession, task: URLSessionTask,
    willPerformHTTPRedirection response: HTTPURLResponse, newRequest request: URLRequest,
    completionHandler: @escaping @Sendable (URLRequest?) -> Void
  ) {
    completionHandler(nil)
  }

  func urlSession(
    _ session: URLSession, dataTask: URLSessionDataTask, didReceive response: URLResponse,
    completionHandler: @escaping @Sendable (URLSession.ResponseDisposition) -> Void
  ) {
    exchange(of: dataTask)?.received(response)
    completionHandler(.allow)
  }

  func urlSession(
    _ session: URLSession, task: URLSessionTask, didReceive challenge: URLAuthenticationChallenge,
    completionHandler:
      @escaping @Sendable (URLSession.AuthChallengeDisposition, URLCredential?) -> Void
  ) {
    #if canImport(FoundationNetworking)
      // This platform asks after it has received a whole 401, and cannot continue with what it has.
      exchange(of: task)?.completed(nil)
      completionHandler(.cancelAuthenticationChallenge, nil)
    #else
      guard let app = app as? any URLSessionTaskDelegate,
        app.urlSession?(
          session, task: task, didReceive: challenge, completionHandler: completionHandler) != nil
      else { return completionHandler(.performDefaultHandling, nil) }
    #endif
  }

  #if !canImport(FoundationNetworking)
    func urlSession(
      _ session: URLSession, didReceive challenge: URLAuthenticationChallenge,
      completionHandler:
        @escaping @Sendable (URLSession.AuthChallengeDisposition, URLCredential?) -> Void
    ) {
      guard
        app?.urlSession?(session, didReceive: challenge, completionHandler: completionHandler)
          != nil
      else { return completionHandler(.performDefaultHandling, nil) }
    }
  #endif

  func urlSession(
    _ session: URLSession, dataTask: URLSessionDataTask, didReceive data: Foundation.Data
  ) {
    exchange(of: dataTask)?.received(data)
  }

  func urlSession(
    _ session: URLSession, task: URLSessionTask, didSendBodyData bytesSent: Int64,
    totalBytesSent: Int64, totalBytesExpectedToSend: Int64
  ) {
    exchange(of: task)?.sent(totalBytesSent, of: totalBytesExpectedToSend)
  }

  func urlSession(
    _ session: URLSession, task: URLSessionTask, didCompleteWithError error: (any Swift.Error)?
  ) {
    all.with { $0.removeValue(forKey: task.taskIdentifier) }?.completed(error)
  }
}
