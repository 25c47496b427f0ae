extension Wire {
  /// A text as a part of an address, percent-encoded in UTF-8.
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

  /// A single value as text; a record or list inside a value becomes JSON.
  static func plainText(_ json: JSON) -> String {
    if case .text(let text) = json { text } else { jsonText(json) }
  }

  /// Stands in an address for what no address can carry; a request is refused because of it.
  static let unsendable = "\u{0}"

  /// Path style "simple" (RFC 6570, section 3.2.2): `a`, `a,b`, or for a record `k,v` (`k=v` when
  /// exploded).
  ///
  /// - Parameter name: the argument, for the failure of one that cannot be sent
  static func segment(_ name: String, _ json: JSON, explode: Bool = false) -> String {
    let written = simple(json, explode: explode)
    // Without it the path would be another one.
    return written.isEmpty ? unsendable + name + unsendable : written
  }

  /// Style "simple" (RFC 6570, section 3.2.2), also for what is a part of another style.
  static func simple(_ json: JSON, explode: Bool = false) -> String {
    switch json {
    case .list(let items): items.map { encode(plainText($0)) }.joined(separator: ",")
    case .record(let fields):
      fields.map { encode($0.name) + (explode ? "=" : ",") + encode(plainText($0.value)) }
        .joined(separator: ",")
    default: encode(plainText(json))
    }
  }

  /// Header style "simple": like a path segment, without percent-encoding; nil when the value is
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

  /// Query style "form": `name=a&name=b` when exploded (the default), else `name=a,b`; "" when the
  /// value is absent.
  ///
  /// - Parameter name: nil where the fields of the value are the whole query
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
