extension Wire {
  /// A value as JSON, in its own order and without spaces. Numbers keep their digits.
  static func jsonText(_ value: JSON) -> String {
    String(decoding: jsonBytes(value), as: UTF8.self)
  }

  /// The bytes of `jsonText`.
  static func jsonBytes(_ value: JSON) -> [UInt8] {
    var bytes: [UInt8] = []
    write(value, to: &bytes)
    return bytes
  }

  private static func write(_ value: JSON, to bytes: inout [UInt8]) {
    switch value {
    case .null: bytes.append(contentsOf: "null".utf8)
    case .truth(let truth): bytes.append(contentsOf: (truth ? "true" : "false").utf8)
    case .number(let number): bytes.append(contentsOf: number.description.utf8)
    case .text(let text): write(text, to: &bytes)
    case .list(let items):
      bytes.append(UInt8(ascii: "["))
      for (place, item) in items.enumerated() {
        if place > 0 { bytes.append(UInt8(ascii: ",")) }
        write(item, to: &bytes)
      }
      bytes.append(UInt8(ascii: "]"))
    case .record(let fields):
      bytes.append(UInt8(ascii: "{"))
      for (place, field) in fields.enumerated() {
        if place > 0 { bytes.append(UInt8(ascii: ",")) }
        write(field.name, to: &bytes)
        bytes.append(UInt8(ascii: ":"))
        write(field.value, to: &bytes)
      }
      bytes.append(UInt8(ascii: "}"))
    }
  }

  private static func write(_ text: String, to bytes: inout [UInt8]) {
    bytes.append(UInt8(ascii: "\""))
    for byte in text.utf8 {
      switch byte {
      case UInt8(ascii: "\""): bytes.append(contentsOf: "\\\"".utf8)
      case UInt8(ascii: "\\"): bytes.append(contentsOf: "\\\\".utf8)
      case 0x08: bytes.append(contentsOf: "\\b".utf8)
      case 0x09: bytes.append(contentsOf: "\\t".utf8)
      case 0x0A: bytes.append(contentsOf: "\\n".utf8)
      case 0x0C: bytes.append(contentsOf: "\\f".utf8)
      case 0x0D: bytes.append(contentsOf: "\\r".utf8)
      case 0..<0x20:
        bytes.append(contentsOf: "\\u00".utf8)
        bytes.append(hex[Int(byte >> 4)])
        bytes.append(hex[Int(byte & 15)])
      default: bytes.append(byte)
      }
    }
    bytes.append(UInt8(ascii: "\""))
  }

  private static let hex = Array("0123456789abcdef".utf8)
}
