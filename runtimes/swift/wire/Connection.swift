import Foundation

#if canImport(FoundationNetworking)
  import FoundationNetworking
#endif

extension Wire {
  /// A credential, got when it is needed.
  public typealias Credential = @Sendable () async throws -> String

  /// What every connection can be told, whatever the contract.
  public struct ConnectionSettings: Sendable {
    /// What is done around every exchange, outermost first: `retrying()`, `eachRequest`,
    /// `eachAnswer`, or your own.
    public var around: [Layer]
    /// Gives the address anew for each call, in the place of the connection's.
    public var baseURL: (@Sendable () async throws -> String)?
    /// Headers sent with every call.
    public var headers: (@Sendable () async throws -> Headers)?
    /// Told of every failure before the call throws it.
    public var onFailure: (@Sendable (any CallFailure) -> Void)?
    /// The app's own session, with its proxies, protocols and certificates. Its configuration is
    /// used, and its delegate is asked about challenges; time limits, redirects and retries are the
    /// connection's all the same.
    public var session: URLSession?
    /// The text that ends a stream of JSON events without being one; nil for "[DONE]".
    public var streamEnd: String?
    /// Seconds until a call fails with `timedOut`, all tries included; of a stream, until it
    /// begins; nil for no limit.
    public var timeout: TimeInterval?

    public init(
      around: [Layer] = [],
      baseURL: (@Sendable () async throws -> String)? = nil,
      headers: (@Sendable () async throws -> Headers)? = nil,
      onFailure: (@Sendable (any CallFailure) -> Void)? = nil,
      session: URLSession? = nil,
      streamEnd: String? = nil,
      timeout: TimeInterval? = nil
    ) {
      self.around = around
      self.baseURL = baseURL
      self.headers = headers
      self.onFailure = onFailure
      self.session = session
      self.streamEnd = streamEnd
      self.timeout = timeout
    }
  }

  /// What one call may be told.
  public struct CallOptions: Sendable {
    /// Added to the connection's, and stronger.
    public var headers: Headers
    /// How many seconds a stream may be silent before it fails with `timedOut`; nil for no limit.
    public var idle: TimeInterval?
    /// Told of the status and headers of the server's answer, before its body is read.
    public var onAnswer: (@Sendable (_ status: Int, _ headers: Headers) -> Void)?
    /// Told of a result of a subscription that carries errors, which then does not end the
    /// subscription.
    public var onErrors: (@Sendable (any CallFailure) -> Void)?
    /// Told of the name and the id of an event before its data is given.
    public var onEvent: (@Sendable (_ event: String, _ id: String?) -> Void)?
    /// Told how far the body of the request is sent.
    public var onProgress: (@Sendable (UploadProgress) -> Void)?
    /// Whether a stream of events that ends is asked for again from its last id on (HTML, section
    /// 9.2).
    public var reconnects: Bool
    /// A file for the body of an answer that is a success: it goes there piece by piece, and what
    /// the call gives is read from there without being loaded. A file that is there stays what it
    /// is until the whole body has come.
    public var saveTo: Foundation.URL?
    /// Seconds instead of the connection's; infinity for no limit.
    public var timeout: TimeInterval?

    /// Changes the address of a request, where pages follow a link.
    var address: (@Sendable (String) -> String)?

    public init(
      headers: Headers = [:],
      idle: TimeInterval? = nil,
      onAnswer: (@Sendable (_ status: Int, _ headers: Headers) -> Void)? = nil,
      onErrors: (@Sendable (any CallFailure) -> Void)? = nil,
      onEvent: (@Sendable (_ event: String, _ id: String?) -> Void)? = nil,
      onProgress: (@Sendable (UploadProgress) -> Void)? = nil,
      reconnects: Bool = false,
      saveTo: Foundation.URL? = nil,
      timeout: TimeInterval? = nil
    ) {
      self.headers = headers
      self.idle = idle
      self.onAnswer = onAnswer
      self.onErrors = onErrors
      self.onEvent = onEvent
      self.onProgress = onProgress
      self.reconnects = reconnects
      self.saveTo = saveTo
      self.timeout = timeout
    }
  }

  /// How far an upload is, in bytes.
  public struct UploadProgress: Sendable, Equatable {
    public let sent: Int64
    /// Nil where it is not known.
    public let total: Int64?
  }

  /// Something around every exchange: it may change the request, ask again, answer by itself, or
  /// only look.
  public typealias Layer =
    @Sendable (
      _ request: Outgoing, _ next: @Sendable (Outgoing) async throws -> Response
    ) async throws -> Response

  /// One request on its way out.
  public struct Outgoing: Sendable {
    /// The call's name: "contract.call".
    public let call: String
    public let method: String
    public let url: String
    public var headers: Headers
    public let body: Content?
    /// Whether the body of the answer is read while it comes.
    let isStream: Bool
    let onProgress: (@Sendable (UploadProgress) -> Void)?
    /// Where the body of a success goes instead of into memory.
    var saveTo: Foundation.URL?
  }

  /// An answer of the server.
  public struct Response: Sendable {
    public let status: Int
    public let headers: Headers
    let body: ResponseBody
    /// Whether the body stands in the file that it goes to.
    var isSaved = false

    /// The body; nil where it is read while it comes.
    public var bytes: Foundation.Data? {
      if case .whole(let bytes) = body { bytes } else { nil }
    }

    /// An answer that a layer gives by itself.
    public init(status: Int, headers: Headers = [:], body: Foundation.Data = .init()) {
      self.init(status: status, headers: headers, content: .whole(body))
    }

    /// The body piece by piece, also where it is known as a whole.
    var pieces: StreamBody {
      switch body {
      case .whole(let bytes): StreamBody(bytes)
      case .stream(let body): body
      }
    }

    init(status: Int, headers: Headers, content: ResponseBody) {
      self.status = status
      self.headers = headers
      body = content
    }
  }

  /// The body of an answer.
  enum ResponseBody: Sendable {
    case whole(Foundation.Data)
    case stream(StreamBody)
  }

  /// Where an API is, and how its calls get there.
  final class Connection: Sendable {
    let contract: String
    let base: String
    let settings: ConnectionSettings
    let credentials: [String: Credential]
    let schemes: [String: Scheme]
    /// Where the contract says that the API is; nil where it does not.
    let contractURL: String?
    /// Other addresses for calls that have a server of their own.
    let servers: [String: String]
    let transport: Transport

    init(
      contract: String,
      base: String,
      settings: ConnectionSettings,
      credentials: [String: Credential?] = [:],
      schemes: [String: Scheme] = [:],
      contractURL: String? = nil,
      servers: [String: String?] = [:]
    ) {
      self.contract = contract
      self.base = base
      self.settings = settings
      self.credentials = credentials.compactMapValues { $0 }
      self.schemes = schemes
      self.contractURL = contractURL
      self.servers = servers.compactMapValues { $0 }
      transport = settings.session.map(Transport.init) ?? Transport.shared
    }

    /// Where the next request goes.
    func address() async throws -> String {
      try await settings.baseURL?() ?? base
    }
  }
}

extension Wire.Outgoing: CustomStringConvertible, CustomReflectable {
  /// The request without its query and its headers, which may be secrets.
  public var description: String {
    "\(method) \(Wire.shownAddress(url))"
  }

  public var customMirror: Mirror {
    Mirror(self, children: ["request": description])
  }
}

extension Wire.ConnectionSettings: CustomReflectable {
  public var customMirror: Mirror {
    Mirror(self, children: ["layers": around.count])
  }
}

extension Wire.Connection: CustomReflectable {
  var customMirror: Mirror {
    Mirror(self, children: ["contract": contract])
  }
}
