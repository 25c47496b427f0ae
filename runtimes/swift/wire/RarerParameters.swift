extension Wire {
  /// Items, or the keys and values of an object in turn, with a separator between them.
  private static func separated(_ name: String?, _ json: JSON?, by separator: String) -> String {
    let items: [JSON]
    switch json {
    case .list(let list): items = list
    case .record(let fields): items = fields.flatMap { [.text($0.name), $0.value] }
    default: return form(name, json, explode: false)
    }
    if items.isEmpty { return "" }
    return encode(name ?? "") + "="
      + items.map { encode(plainText($0)) }.joined(separator: separator)
  }

  /// Query style "spaceDelimited" (OpenAPI 3.1, section 4.8.12.6): `name=a%20b`, or for an object
  /// `name=k%20v`.
  static func spaced(_ name: String?, _ json: JSON?) -> String {
    separated(name, json, by: "%20")
  }

  /// Query style "pipeDelimited": `name=a%7Cb`, or for an object `name=k%7Cv`.
  static func piped(_ name: String?, _ json: JSON?) -> String {
    separated(name, json, by: "%7C")
  }

  /// Tab-separated values (OpenAPI 2.0, `tsv`): `name=a%09b`.
  static func tabbed(_ name: String?, _ json: JSON?) -> String {
    separated(name, json, by: "%09")
  }

  /// Query style "form" that does not encode the reserved characters of a URL (`allowReserved`).
  static func reserved(_ name: String?, _ json: JSON?, explode: Bool = true) -> String {
    form(name, json, explode: explode, encodeValue: encodeAllowed)
  }

  /// Percent-encodes all characters except those that RFC 3986 reserves. It does encode those that
  /// would end the value or the query, and the apostrophe, which platforms encode anyway.
  private static func encodeAllowed(_ text: String) -> String {
    var written = ""
    for scalar in text.unicodeScalars {
      if ":/?[]@!$()*,;".unicodeScalars.contains(scalar) {
        written.unicodeScalars.append(scalar)
      } else {
        written += scalar == "'" ? "%27" : encode(String(scalar))
      }
    }
    return written
  }

  /// Query style "deepObject": `name[key]=value`, also for nested objects and lists.
  static func deepObject(_ name: String?, _ json: JSON?) -> String {
    deepPairs(name ?? "", json).joined(separator: "&")
  }

  private static func deepPairs(_ name: String, _ json: JSON?) -> [String] {
    switch json {
    case nil: []
    case .list(let items): items.flatMap { deepPairs(name, $0) }
    case .record(let fields): fields.flatMap { deepPairs("\(name)[\($0.name)]", $0.value) }
    case let json?: [encode(name) + "=" + encode(plainText(json))]
    }
  }

  /// A query parameter whose value is JSON, or the whole query as JSON.
  static func jsonQuery(_ name: String?, _ json: JSON?) -> String {
    guard let json else { return "" }
    let written = encode(jsonText(json))
    return name.map { encode($0) + "=" + written } ?? written
  }

  /// JSON in a path.
  static func jsonSegment(_ json: JSON) -> String {
    encode(jsonText(json))
  }

  /// JSON in a header, which is not percent-encoded; nil if the value is absent.
  static func jsonHeader(_ json: JSON?) -> String? {
    json.map(jsonText)
  }

  /// Path style "label": `.a,b`, or `.a.b` if exploded.
  static func label(_ json: JSON, explode: Bool = false) -> String {
    let written = simple(json, explode: explode)
    return "." + (explode ? replaced(written, ",", by: ".") : written)
  }

  /// Path style "matrix": `;name=a,b`, or `;name=a;name=b` if exploded.
  static func matrix(_ name: String, _ json: JSON, explode: Bool = false) -> String {
    let key = encode(name)
    guard explode else { return ";\(key)=\(simple(json))" }
    switch json {
    case .list(let items): return items.map { ";\(key)=\(simple($0))" }.joined()
    case .record: return ";" + replaced(simple(json, explode: true), ",", by: ";")
    default: return ";\(key)=\(simple(json))"
    }
  }

  private static func replaced(
    _ text: String, _ separator: Character, by other: String
  ) -> String {
    text.split(separator: separator, omittingEmptySubsequences: false).joined(separator: other)
  }
}
