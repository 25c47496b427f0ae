import Foundation

extension Wire {
  /// One request to a fake connection.
  public struct FakeRequest: Sendable, CustomStringConvertible {
    /// The name of the call, without the name of the contract.
    public let call: String
    public let method: String
    public let url: String
    public let headers: Headers
    /// The body as it was sent; nil if there was none.
    public let body: Foundation.Data?

    public var description: String { "\(method) \(call)" }
  }

  /// A connection without a server, with a record of its requests.
  public struct FakeConnection<Own: Sendable>: Sendable {
    public let connection: Own
    let server: FakeServer

    /// All requests so far, in order.
    public var requests: [FakeRequest] { server.requests }
  }

  /// The error that a fake call throws in place of a response.
  public struct FakeFailure: Swift.Error {
    /// Nil if there is no network.
    let reply: FakeReply?

    /// Makes a fake call fail as if there were no network.
    public static var unreachable: FakeFailure { FakeFailure(reply: nil) }
  }

  /// The replies of a fake connection.
  struct FakeReply: Sendable {
    let status: Int
    let type: String
    let body: Foundation.Data
  }

  /// The reply to one call.
  typealias FakeCall = @Sendable (FakeRequest) async throws -> FakeReply

  /// Responds in place of a server and records all requests.
  final class FakeServer: Sendable {
    private let calls: [String: FakeCall]
    private let asked = Guarded<[FakeRequest]>([])

    init(_ calls: [String: FakeCall]) {
      self.calls = calls
    }

    var requests: [FakeRequest] { asked.with { $0 } }

    /// The layer that responds, inside all others.
    var layer: Layer {
      { outgoing, _ in try await self.answer(outgoing) }
    }

    private func answer(_ outgoing: Outgoing) async throws -> Response {
      let name = outgoing.call.split(separator: ".", maxSplits: 1).last.map(String.init) ?? ""
      let request = FakeRequest(
        call: name, method: outgoing.method, url: outgoing.url, headers: outgoing.headers,
        body: try outgoing.body.map(Self.bytes))
      asked.with { $0.append(request) }
      guard let call = calls[name] else {
        throw Trouble(message: "the fake connection has no response for `\(name)`")
      }
      let reply: FakeReply
      do {
        reply = try await call(request)
      } catch let failure as FakeFailure {
        guard let said = failure.reply else {
          throw Trouble(message: "the fake connection has no network")
        }
        reply = said
      }
      return Response(
        status: reply.status, headers: ["content-type": reply.type], body: reply.body)
    }

    private static func bytes(_ content: Content) throws -> Foundation.Data {
      switch content {
      case .bytes(let bytes): bytes
      case .file(let url): try Foundation.Data(contentsOf: url)
      case .parts(let parts): try parts.reduce(into: .init()) { $0.append(try bytes($1)) }
      }
    }
  }

  static func fakeNothing(_ status: Int) -> FakeReply {
    FakeReply(status: status, type: "application/json", body: .init())
  }

  static func fakeJSON(_ status: Int, _ type: String, _ json: JSON) -> FakeReply {
    FakeReply(status: status, type: type, body: .init(jsonBytes(json)))
  }

  static func fakeText(_ status: Int, _ type: String, _ json: JSON) -> FakeReply {
    FakeReply(status: status, type: type, body: .init(plainText(json).utf8))
  }

  static func fakeBytes(_ status: Int, _ type: String, _ bytes: Foundation.Data) -> FakeReply {
    FakeReply(status: status, type: type, body: bytes)
  }

  static func fakeItems(
    _ status: Int, _ type: String, _ kind: ItemKind, _ items: [JSON]
  ) -> FakeReply {
    let texts = items.map { item in
      switch kind {
      case .lines: jsonText(item) + "\n"
      case .sequence: "\u{1E}" + jsonText(item) + "\n"
      case .eventTexts: dataLines(plainText(item)) + "\n"
      case .eventRecords: eventLines(item) + "\n"
      case .events: "data: " + jsonText(item) + "\n\n"
      }
    }
    return FakeReply(status: status, type: type, body: .init(texts.joined().utf8))
  }

  private static func eventLines(_ json: JSON) -> String {
    (json.record ?? Fields()).map { name, value in
      name == "data" ? dataLines(plainText(value)) : "\(name): \(plainText(value))\n"
    }.joined()
  }

  private static func dataLines(_ text: String) -> String {
    text.split(separator: "\n", omittingEmptySubsequences: false).map { "data: \($0)\n" }.joined()
  }
}

extension Wire.ConnectionSettings {
  /// The same options with a layer inside all others.
  func answered(by layer: @escaping Wire.Layer) -> Wire.ConnectionSettings {
    var settings = self
    settings.around.append(layer)
    settings.baseURL = nil
    return settings
  }
}
