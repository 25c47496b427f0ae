import Foundation

#if canImport(FoundationNetworking)
  import FoundationNetworking
#endif

extension Wire {
  /// A function that returns a credential. It is called each time the credential is needed.
  public typealias Credential = @Sendable () async throws -> String

  /// The options of every connection, whatever the contract.
  public struct ConnectionSettings: Sendable {
    /// Layers around every request, outermost first: `retrying()`, `eachRequest`, `eachAnswer`, or
    /// your own.
    public var around: [Layer]
    /// Returns the address for each call, in place of the connection's.
    public var baseURL: (@Sendable () async throws -> String)?
    /// Headers that are sent with every call.
    public var headers: (@Sendable () async throws -> Headers)?
    /// Called with every failure before the call throws it.
    public var onFailure: (@Sendable (any CallFailure) -> Void)?
    /// The app's own session, with its proxies, protocols and certificates. Its configuration is
    /// used, and its delegate is asked about challenges. Time limits, redirects and retries are
    /// still the connection's.
    public var session: URLSession?
    /// The text that ends a stream of JSON events and is not an event itself; nil for "[DONE]".
    public var streamEnd: String?
    /// Seconds until a call fails with `timedOut`, all retries included; for a stream, until it
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

  /// The options of one call.
  public struct CallOptions: Sendable {
    /// Headers of this call, which override the connection's of the same name.
    public var headers: Headers
    /// How many seconds a stream may be silent before it fails with `timedOut`; nil for no limit.
    public var idle: TimeInterval?
    /// Called with the status and headers of the response before its body is read.
    public var onAnswer: (@Sendable (_ status: Int, _ headers: Headers) -> Void)?
    /// Called with a subscription result that has errors. The subscription then continues.
    public var onErrors: (@Sendable (any CallFailure) -> Void)?
    /// Called with the name and id of an event before its data is returned.
    public var onEvent: (@Sendable (_ event: String, _ id: String?) -> Void)?
    /// Called with the progress of the request's upload.
    public var onProgress: (@Sendable (UploadProgress) -> Void)?
    /// Whether a stream of events is requested again after it ends, from its last id on (HTML,
    /// section 9.2).
    public var reconnects: Bool
    /// A file for the body of a successful response. The body is written there piece by piece, and
    /// the call's result reads it from there without loading it. An existing file stays unchanged
    /// until the whole body has arrived.
    public var saveTo: Foundation.URL?
    /// Seconds that replace the connection's limit; infinity for no limit.
    public var timeout: TimeInterval?

    /// Changes the address of a request when pages follow a link.
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

  /// The progress of an upload, in bytes.
  public struct UploadProgress: Sendable, Equatable {
    public let sent: Int64
    /// Nil if it is not known.
    public let total: Int64?
  }

  /// A layer around every request. It can change the request, send it again, respond itself, or
  /// only watch.
  public typealias Layer =
    @Sendable (
      _ request: Outgoing, _ next: @Sendable (Outgoing) async throws -> Response
    ) async throws -> Response

  /// An HTTP request that is about to be sent.
  public struct Outgoing: Sendable {
    /// The name of the call: "contract.call".
    public let call: String
    public let method: String
    public let url: String
    public var headers: Headers
    public let body: Content?
    /// Whether the body of the response is read while it arrives.
    let isStream: Bool
    let onProgress: (@Sendable (UploadProgress) -> Void)?
    /// The file for the body of a successful response; without one, the body is kept in memory.
    var saveTo: Foundation.URL?
  }

  /// A response of the server.
  public struct Response: Sendable {
    public let status: Int
    public let headers: Headers
    let body: ResponseBody
    /// Whether the body is in the file that was given for it.
    var isSaved = false

    /// The body; nil if it is read while it arrives.
    public var bytes: Foundation.Data? {
      if case .whole(let bytes) = body { bytes } else { nil }
    }

    /// A response that a layer gives itself.
    public init(status: Int, headers: Headers = [:], body: Foundation.Data = .init()) {
      self.init(status: status, headers: headers, content: .whole(body))
    }

    /// The body piece by piece, also if it is known as a whole.
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

  /// The body of a response.
  enum ResponseBody: Sendable {
    case whole(Foundation.Data)
    case stream(StreamBody)
  }

  /// The address, transport and credentials of an API.
  final class Connection: Sendable {
    let contract: String
    let base: String
    let settings: ConnectionSettings
    let credentials: [String: Credential]
    let schemes: [String: Scheme]
    /// The base URL in the contract; nil if it has none.
    let contractURL: String?
    /// Other base URLs, for calls that have a server of their own.
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

    /// The base URL of the next request.
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
