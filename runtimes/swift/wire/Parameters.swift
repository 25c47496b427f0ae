extension Wire {
  /// A string as a part of an address, percent-encoded in UTF-8.
  static func encode(_ text: String) -> String {
    var bytes: [UInt8] = []
    bytes.reserveCapacity(text.utf8.count)
    for byte in text.utf8 {
      if isUnreserved(byte) {
        bytes.append(byte)
      } else {
        bytes.append(UInt8(ascii: "%"))
        bytes.append(hexDigits[Int(byte >> 4)])
        bytes.append(hexDigits[Int(byte & 15)])
      }
    }
    return String(decoding: bytes, as: UTF8.self)
  }

  private static let hexDigits = Array("0123456789ABCDEF".utf8)

  private static func isUnreserved(_ byte: UInt8) -> Bool {
    switch byte {
    case UInt8(ascii: "a")...UInt8(ascii: "z"), UInt8(ascii: "A")...UInt8(ascii: "Z"),
      UInt8(ascii: "0")...UInt8(ascii: "9"):
      true
    default: "-_.!~*'()".utf8.contains(byte)
    }
  }

  /// A single value as text. An object or list inside a value becomes JSON.
  static func plainText(_ json: JSON) -> String {
    if case .text(let text) = json { text } else { jsonText(json) }
  }

  /// Marks a character that cannot be part of an address. A request with this mark is refused.
  static let unsendable = "\u{0}"

  /// Path style "simple" (RFC 6570, section 3.2.2): `a`, `a,b`, or for an object `k,v` (`k=v` if
  /// exploded).
  ///
  /// - Parameter name: the argument, for the failure if it cannot be sent
  static func segment(_ name: String, _ json: JSON, explode: Bool = false) -> String {
    let written = simple(json, explode: explode)
    // Without it, the path would be another one.
    return written.isEmpty ? unsendable + name + unsendable : written
  }

  /// Style "simple" (RFC 6570, section 3.2.2), also as a part of other styles.
  static func simple(_ json: JSON, explode: Bool = false) -> String {
    switch json {
    case .list(let items): items.map { encode(plainText($0)) }.joined(separator: ",")
    case .record(let fields):
      fields.map { encode($0.name) + (explode ? "=" : ",") + encode(plainText($0.value)) }
        .joined(separator: ",")
    default: encode(plainText(json))
    }
  }

  /// Header style "simple": like a path segment, without percent-encoding; nil if the value is
  /// absent.
  static func header(_ json: JSON?, explode: Bool = false) -> String? {
    switch json {
    case nil: nil
    case .list(let items): items.map(plainText).joined(separator: ",")
    case .record(let fields):
      fields.map { $0.name + (explode ? "=" : ",") + plainText($0.value) }.joined(separator: ",")
    case let json?: plainText(json)
    }
  }

  /// Query style "form": `name=a&name=b` if exploded (the default), otherwise `name=a,b`; "" if the
  /// value is absent.
  ///
  /// - Parameter name: nil if the fields of the value are the whole query
  static func form(
    _ name: String?, _ json: JSON?, explode: Bool = true,
    encodeValue: (String) -> String = { encode($0) }
  ) -> String {
    let key = encode(name ?? "")
    switch json {
    case nil: return ""
    case .list(let items):
      if items.isEmpty { return "" }
      let parts = items.map { encodeValue(plainText($0)) }
      return explode
        ? parts.map { "\(key)=\($0)" }.joined(separator: "&")
        : "\(key)=" + parts.joined(separator: ",")
    case .record(let fields):
      let pairs = fields.map { (encode($0.name), encodeValue(plainText($0.value))) }
      return explode
        ? pairs.map { "\($0)=\($1)" }.joined(separator: "&")
        : "\(key)=" + pairs.map { "\($0),\($1)" }.joined(separator: ",")
    case let json?: return "\(key)=\(encodeValue(plainText(json)))"
    }
  }
}
