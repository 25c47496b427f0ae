import Foundation

extension Wire {
  /// One entry of `errors` in a GraphQL response (GraphQL specification, section 7.1.2).
  public struct GraphQLError: Sendable, Hashable, CustomStringConvertible {
    public let message: String
    /// Names of fields and positions in lists; empty if the server gives none.
    public let path: [String]
    public let locations: [Location]
    public let extensions: [String: JSON]

    /// A position in the text of the operation.
    public struct Location: Sendable, Hashable {
      public let line: Int
      public let column: Int
    }

    public var description: String { message }
  }

  /// A result with errors.
  public struct ResultErrors<Answer: Sendable>: Sendable {
    public let errors: [GraphQLError]
    /// The partial data.
    public let data: Answer?
    public let report: Report
  }

  /// The options of a GraphQL connection besides those of every connection.
  public struct GraphQLSettings: Sendable {
    public var queriesBy: QueriesBy
    public var sends: Sends
    /// The transport of subscriptions: `overEvents()` or `overWebSocket()`.
    public var subscriptions: Subscriptions

    public init(
      queriesBy: QueriesBy = .post, sends: Sends = .text,
      subscriptions: Subscriptions = Wire.overEvents()
    ) {
      self.queriesBy = queriesBy
      self.sends = sends
      self.subscriptions = subscriptions
    }

    /// How queries are sent.
    public enum QueriesBy: Sendable {
      case post
      /// Lets caches between app and server store responses. Mutations always use POST.
      case get
    }

    /// What is sent for an operation.
    public enum Sends: Sendable {
      case text
      /// Its id, if it has one. For ids, the server needs the manifest.
      case id
    }
  }

  enum OperationKind: Sendable {
    case query, mutation, subscription
  }

  /// One GraphQL operation: its text, and how its response is read.
  struct Operation<Answer: Sendable, Failure: CallFailure>: Sendable {
    let kind: OperationKind
    let name: String
    /// "contract.call", for failures.
    let call: String
    let text: String
    /// The id of the text in the manifest.
    var id: String?
    let read: Reader<Answer>
    /// Creates the failure of a result with errors.
    let errors: @Sendable (ResultErrors<Answer>) -> Failure
  }

  /// The variables of an operation, and the files among them by their paths.
  struct Variables: Sendable {
    let json: JSON
    var files = Files()
  }

  /// The JSON of a response (GraphQL specification, section 7.1).
  struct GraphQLResult: Sendable {
    let data: JSON?
    let errors: [GraphQLError]?
  }

  /// A connection to a GraphQL endpoint.
  struct GraphQLConnection: Sendable {
    let wire: Connection
    let settings: GraphQLSettings

    init(
      contract: String, url: String, settings: ConnectionSettings, bearer: Credential?,
      graphql: GraphQLSettings
    ) {
      wire = Connection(
        contract: contract, base: url, settings: settings, credentials: ["bearer": bearer],
        schemes: ["bearer": Wire.bearer])
      self.settings = graphql
    }
  }

  /// Every call uses the same credential.
  static let graphqlAuth = [["bearer"]]

  /// The HTTP request of an operation.
  struct Asking: Sendable {
    let accept: String
    var byGet = false
    var isStream = false
  }
}

extension Wire.GraphQLConnection {
  /// Sends a query or mutation. Returns its data, or throws its failure.
  func execute<Answer, Failure>(
    _ operation: Wire.Operation<Answer, Failure>, _ variables: Wire.Variables,
    _ options: Wire.CallOptions
  ) async throws(Failure) -> Answer {
    do throws(Failure) {
      let exchanged = try await exchanged(operation, variables, options)
      let result: Wire.GraphQLResult
      do throws(Wire.Trouble) {
        result = try Wire.result(of: exchanged.response)
      } catch {
        throw .other(operation.call, error)
      }
      return try Wire.data(of: operation, result, exchanged.response.status)
    } catch {
      wire.settings.onFailure?(error)
      throw error
    }
  }

  private func exchanged<Answer, Failure>(
    _ operation: Wire.Operation<Answer, Failure>, _ variables: Wire.Variables,
    _ options: Wire.CallOptions
  ) async throws(Failure) -> Wire.Exchanged {
    let byGet = operation.kind == .query && settings.queriesBy == .get
    let asking = Wire.Asking(
      accept: "application/graphql-response+json, application/json;q=0.9", byGet: byGet)
    do throws(Wire.Trouble) {
      return try await Wire.withLimit(options.timeout ?? wire.settings.timeout) {
        () async throws(Wire.Trouble) in
        try await request(operation, variables, options, asking)
      }
    } catch {
      throw .other(operation.call, error)
    }
  }

  /// The JSON that is sent for an operation (GraphQL over HTTP, section 5.1).
  func payload<Answer, Failure>(
    _ operation: Wire.Operation<Answer, Failure>, _ variables: Wire.JSON
  ) -> Wire.Fields {
    let id = settings.sends == .id ? operation.id : nil
    return Wire.Fields(distinct: [
      id.map { ("documentId", .text($0)) } ?? ("query", .text(operation.text)),
      ("operationName", .text(operation.name)),
      ("variables", variables),
    ])
  }

  /// Sends a request (GraphQL over HTTP, sections 5.3 and 5.4; files as a multipart form).
  func request<Answer, Failure>(
    _ operation: Wire.Operation<Answer, Failure>, _ variables: Wire.Variables,
    _ options: Wire.CallOptions, _ asking: Wire.Asking
  ) async throws(Wire.Trouble) -> Wire.Exchanged {
    let payload = payload(operation, variables.json)
    let body = asking.byGet ? nil : Wire.body(payload, variables.files)
    return try await wire.authorized(options) { () async throws(Wire.Trouble) in
      let url = try await Wire.owned { try await wire.address() }
      var headers = try await wire.startHeaders(options)
      headers["accept"] = asking.accept
      var credentials = Wire.Credentials(headers: headers, query: [])
      let used = try await wire.authorize(Wire.graphqlAuth, &credentials)
      if let body { credentials.headers["content-type"] = body.type }
      // Servers refuse forms that another website could send. This header shows that the form is
      // not one of them.
      if !variables.files.all.isEmpty { credentials.headers["graphql-require-preflight"] = "1" }
      let query = (url.contains("?") ? "&" : "?") + Wire.pairs(of: payload)
      let outgoing = Wire.Outgoing(
        call: operation.call, method: asking.byGet ? "GET" : "POST",
        url: asking.byGet ? url + query : url, headers: credentials.headers, body: body?.content,
        isStream: asking.isStream, onProgress: options.onProgress)
      let response = try await wire.exchange(outgoing)
      return (Wire.Exchanged(outgoing: outgoing, response: response), used)
    }
  }
}

extension Wire {
  fileprivate static func pairs(of payload: Fields) -> String {
    payload.map { $0.name + "=" + encode(plainText($0.value)) }.joined(separator: "&")
  }

  /// A request whose variables contain files is a multipart form: the request with null in place of
  /// the files, a map from parts to places, then the files (the community's specification for
  /// GraphQL multipart requests).
  fileprivate static func body(_ payload: Fields, _ files: Files) -> Body? {
    if files.all.isEmpty { return jsonBody(.record(payload)) }
    var uploads: [(file: Upload, places: [JSON])] = []
    for (path, file) in files.all {
      let place = JSON.text("variables." + path)
      if let known = uploads.firstIndex(where: { $0.file == file }) {
        uploads[known].places.append(place)
      } else {
        uploads.append((file, [place]))
      }
    }
    let map = uploads.enumerated().map { (name: String($0), value: JSON.list($1.places)) }
    let start = [
      Part(
        name: "operations", value: .text(jsonText(.record(payload))), file: nil, type: nil),
      Part(
        name: "map", value: .text(jsonText(.record(Fields(distinct: map)))), file: nil, type: nil),
    ]
    let parts = uploads.enumerated().map { place, upload in
      Part(name: String(place), value: .null, file: upload.file, type: nil)
    }
    return multipart(start + parts)
  }

  /// The data of a result without errors. Throws the failure of a result with errors.
  static func data<Answer, Failure>(
    of operation: Operation<Answer, Failure>, _ result: GraphQLResult, _ status: Int
  ) throws(Failure) -> Answer {
    var read: Answer?
    if let data = result.data, data != .null {
      do throws(Mismatch) {
        read = try operation.read(data)
      } catch {
        let answer = FailedAnswer(status: status, headers: [:], text: jsonText(data))
        throw .other(
          operation.call,
          Trouble(
            message: "the response (\(status)) cannot be read: \(error.message)",
            mishap: .malformed(path: error.path), answer: answer))
      }
    }
    if result.errors == nil, let read { return read }
    throw errors(of: operation, result.errors ?? [], read)
  }

  /// The failure of a result with errors.
  static func errors<Answer, Failure>(
    of operation: Operation<Answer, Failure>, _ errors: [GraphQLError], _ data: Answer?
  ) -> Failure {
    let message = errors.first?.message ?? "the response has no data"
    let report = Report(call: operation.call, message: message, answer: nil)
    return operation.errors(ResultErrors(errors: errors, data: data, report: report))
  }

  fileprivate static func result(of response: Response) throws(Trouble) -> GraphQLResult {
    let received = Received(
      status: response.status, headers: response.headers, bytes: response.bytes ?? .init())
    let type = response.headers["content-type"]
    let isInPieces = type.map { mediaType($0) == "multipart/mixed" } ?? false
    let json = parsed(received.text)
    if isInPieces || json?["hasNext"] != nil {
      throw Trouble(
        message:
          "the server responded in parts, which is not supported; "
          + "remove @defer and @stream from the query",
        mishap: .malformed(path: nil), answer: received.failed)
    }
    if let result = result(of: json) { return result }
    let told = excerpt(type, received.text)
    guard (200..<300).contains(response.status) else {
      throw Trouble(
        message: "the server responded with \(response.status): \(told)",
        mishap: .unexpected(status: response.status), answer: received.failed)
    }
    throw Trouble(
      message: "the response is not a GraphQL result: \(told)", mishap: .malformed(path: nil),
      answer: received.failed)
  }

  /// A GraphQL result; nil for anything else.
  static func result(of json: JSON?) -> GraphQLResult? {
    guard case .record(let fields)? = json, fields["data"] != nil || fields["errors"] != nil
    else { return nil }
    return GraphQLResult(data: fields["data"], errors: fields["errors"]?.list.map(errors))
  }

  static func errors(in list: [JSON]) -> [GraphQLError] {
    list.map { each in
      var extensions: [String: JSON] = [:]
      for (name, value) in each["extensions"]?.record ?? Fields() { extensions[name] = value }
      return GraphQLError(
        message: plain(each["message"]) ?? "an error without a message",
        path: (each["path"]?.list ?? []).compactMap(plain),
        locations: (each["locations"]?.list ?? []).compactMap(location),
        extensions: extensions)
    }
  }

  private static func plain(_ json: JSON?) -> String? {
    switch json {
    case .text(let text): text
    case .number(let number): number.description
    case .truth(let truth): String(truth)
    default: nil
    }
  }

  private static func location(_ json: JSON) -> GraphQLError.Location? {
    guard let line = json["line"]?.number?.int64.flatMap({ Int(exactly: $0) }) else { return nil }
    let column = json["column"]?.number?.int64.flatMap { Int(exactly: $0) }
    return GraphQLError.Location(line: line, column: column ?? 1)
  }
}
