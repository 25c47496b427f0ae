extension Wire {
  /// What a server reports about a failure, as problem details (RFC 9457, section 3).
  public struct ProblemDetails: Sendable, Hashable {
    /// A URI that identifies the type of problem; "about:blank" if there is none.
    public let type: String
    public let title: String?
    public let status: Int?
    public let detail: String?
    /// A URI of this occurrence.
    public let instance: String?
    /// Further members of this type of problem.
    public let others: [String: JSON]
  }
}

extension Wire.CallFailure {
  /// The problem details of a failure, declared by the contract or not; nil if it has none.
  public var problem: Wire.ProblemDetails? {
    answer.flatMap(Wire.problem)
  }
}

extension Wire {
  fileprivate static func problem(_ answer: FailedAnswer) -> ProblemDetails? {
    guard let type = answer.headers["content-type"], mediaType(type) == "application/problem+json",
      case .record(let said)? = parsed(answer.text)
    else { return nil }
    // A member of another type than the standard's is ignored (section 3.1).
    let own = ["type", "title", "status", "detail", "instance"]
    var others: [String: JSON] = [:]
    for (name, value) in said where !own.contains(name) { others[name] = value }
    return ProblemDetails(
      type: said["type"]?.text ?? "about:blank",
      title: said["title"]?.text,
      status: said["status"]?.number?.int64.flatMap { Int(exactly: $0) },
      detail: said["detail"]?.text,
      instance: said["instance"]?.text,
      others: others
    )
  }

  /// A media type without its parameters.
  static func mediaType(_ header: String) -> String {
    trimmed(header.prefix { $0 != ";" }).lowercased()
  }

  /// A text as JSON; nil if it is not valid JSON.
  static func parsed(_ text: String) -> JSON? {
    try? parseJSON(text.utf8)
  }

  /// The body's description of the failure, if it has the form of problem details.
  static func words(of body: JSON?) -> String {
    guard case .record(let fields)? = body,
      let said = (fields["detail"] ?? fields["title"])?.text
    else { return "" }
    return ": " + said
  }

  /// Describes an unexpected body for a message: its media type and its first words, without
  /// markup.
  static func excerpt(_ contentType: String?, _ text: String) -> String {
    let type = contentType.map { String($0.prefix { $0 != ";" }) } ?? "of no media type"
    let words = firstWords(of: text)
    if words.isEmpty { return "it is \(type), and empty" }
    let longest = 80
    let more = words.utf16.count > longest ? "…" : ""
    let shown = String(decoding: words.utf16.prefix(longest), as: UTF16.self)
    return "it is \(type), and begins with \"\(shown)\(more)\""
  }

  /// The text of a page without its markup, scripts and styles, with single spaces.
  private static func firstWords(of text: String) -> String {
    var rest = Array(text.unicodeScalars.prefix(4_000))[...]
    var words = String.UnicodeScalarView()
    while let scalar = rest.first {
      if scalar == "<", let after = afterMarkup(rest) {
        rest = after
        words.append(" ")
      } else {
        words.append(isSpace(scalar) ? " " : scalar)
        rest.removeFirst()
      }
    }
    return String(words).split(separator: " ").joined(separator: " ")
  }

  private static func isSpace(_ scalar: Unicode.Scalar) -> Bool {
    scalar.properties.isWhitespace || scalar.value < 0x20 || (0x7F...0x9F).contains(scalar.value)
  }

  /// The text after a tag, or after the whole element of a script or style; nil if no tag begins
  /// there.
  private static func afterMarkup(
    _ text: ArraySlice<Unicode.Scalar>
  ) -> ArraySlice<Unicode.Scalar>? {
    guard let end = text.prefix(502).firstIndex(of: ">") else { return nil }
    let rest = text[(end + 1)...]
    let name = String(
      String.UnicodeScalarView(text.dropFirst().prefix { $0.properties.isAlphabetic })
    ).lowercased()
    guard name == "script" || name == "style" else { return rest }
    let close = Array("</\(name)>".unicodeScalars)
    for start in rest.indices where rest[start] == "<" {
      let tag = String(String.UnicodeScalarView(rest[start...].prefix(close.count))).lowercased()
      if tag == "</\(name)>" { return rest[(start + close.count)...] }
    }
    return rest[rest.endIndex...]
  }

  static func trimmed(_ text: Substring) -> String {
    let isKept: (Character) -> Bool = { !$0.isWhitespace }
    guard let first = text.firstIndex(where: isKept), let last = text.lastIndex(where: isKept)
    else { return "" }
    return String(text[first...last])
  }
}
