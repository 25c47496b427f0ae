extension Wire {
  /// A text that is not valid JSON.
  struct NoJSON: Swift.Error {
    /// The place of the error.
    let message: String
  }

  /// Parses a JSON text (RFC 8259). Numbers keep all their digits. Of repeated keys, the last one
  /// counts. Bytes that are not valid UTF-8 become replacement characters, as the Encoding standard
  /// decodes them.
  static func parseJSON(_ bytes: some Sequence<UInt8>) throws(NoJSON) -> JSON {
    if let result = bytes.withContiguousStorageIfAvailable({ parsed($0) }) {
      return try result.get()
    }
    return try ContiguousArray(bytes).withUnsafeBufferPointer { parsed($0) }.get()
  }

  private static func parsed(_ bytes: UnsafeBufferPointer<UInt8>) -> Swift.Result<JSON, NoJSON> {
    do throws(NoJSON) {
      var parser = JSONParser(bytes)
      return .success(try parser.whole())
    } catch {
      return .failure(error)
    }
  }
}

/// Deeper nesting is refused before the stack of a small thread overflows.
private let deepest = 500

/// Up to this many names of an object are compared one by one; more use a hash.
private let few = 16

private struct JSONParser {
  private let bytes: UnsafeBufferPointer<UInt8>
  private var at = 0
  private var depth = 0
  private var names: SeenTexts
  private var values: SeenTexts

  init(_ bytes: UnsafeBufferPointer<UInt8>) {
    self.bytes = bytes
    names = SeenTexts(isLarge: bytes.count > 10_000)
    values = names
  }

  mutating func whole() throws(Wire.NoJSON) -> Wire.JSON {
    // A byte order mark is not part of the text (RFC 8259, section 8.1).
    if bytes.starts(with: [0xEF, 0xBB, 0xBF]) { at = 3 }
    let value = try value()
    skipSpace()
    if at < bytes.count { throw unexpected() }
    return value
  }

  private mutating func value() throws(Wire.NoJSON) -> Wire.JSON {
    skipSpace()
    guard at < bytes.count else { throw unexpected() }
    switch bytes[at] {
    case UInt8(ascii: "{"): return .record(try record())
    case UInt8(ascii: "["): return .list(try list())
    case UInt8(ascii: "\""): return .text(try text(among: \.values))
    case UInt8(ascii: "t"): return try word("true", .truth(true))
    case UInt8(ascii: "f"): return try word("false", .truth(false))
    case UInt8(ascii: "n"): return try word("null", .null)
    default: return .number(try number())
    }
  }

  private mutating func goDeeper() throws(Wire.NoJSON) {
    depth += 1
    if depth > deepest { throw Wire.NoJSON(message: "it is nested more than \(deepest) deep") }
    at += 1
    skipSpace()
  }

  private mutating func record() throws(Wire.NoJSON) -> Wire.Fields {
    try goDeeper()
    defer { depth -= 1 }
    var fields: [Wire.Fields.Element] = []
    var places: [ByteText: Int] = [:]
    if skip(UInt8(ascii: "}")) { return Wire.Fields() }
    while true {
      skipSpace()
      guard at < bytes.count, bytes[at] == UInt8(ascii: "\"") else { throw unexpected() }
      let name = try text(among: \.names)
      skipSpace()
      guard skip(UInt8(ascii: ":")) else { throw unexpected() }
      let value = try value()
      if let known = known(name, in: fields, &places) {
        fields[known].value = value
      } else {
        fields.append((name, value))
      }
      skipSpace()
      if skip(UInt8(ascii: "}")) { return Wire.Fields(distinct: fields) }
      guard skip(UInt8(ascii: ",")) else { throw unexpected() }
    }
  }

  /// The index of an existing name; nil for a new one, which is added.
  private func known(
    _ name: String, in fields: [Wire.Fields.Element], _ places: inout [ByteText: Int]
  ) -> Int? {
    if fields.count < few { return fields.firstIndex { Wire.isSame($0.name, name) } }
    if places.isEmpty {
      for (place, field) in fields.enumerated() { places[ByteText(field.name)] = place }
    }
    let key = ByteText(name)
    if let place = places[key] { return place }
    places[key] = fields.count
    return nil
  }

  private mutating func list() throws(Wire.NoJSON) -> [Wire.JSON] {
    try goDeeper()
    defer { depth -= 1 }
    var items: [Wire.JSON] = []
    if skip(UInt8(ascii: "]")) { return items }
    while true {
      items.append(try value())
      skipSpace()
      if skip(UInt8(ascii: "]")) { return items }
      guard skip(UInt8(ascii: ",")) else { throw unexpected() }
    }
  }

  private mutating func word(
    _ word: StaticString, _ value: Wire.JSON
  ) throws(Wire.NoJSON) -> Wire.JSON {
    for place in 0..<word.utf8CodeUnitCount {
      guard skip(word.utf8Start[place]) else { throw unexpected() }
    }
    return value
  }

  private mutating func number() throws(Wire.NoJSON) -> Wire.Number {
    let start = at
    _ = skip(UInt8(ascii: "-"))
    if !skip(UInt8(ascii: "0")) { try digits() }
    if skip(UInt8(ascii: ".")) { try digits() }
    if skip(UInt8(ascii: "e")) || skip(UInt8(ascii: "E")) {
      if !skip(UInt8(ascii: "+")) { _ = skip(UInt8(ascii: "-")) }
      try digits()
    }
    return Wire.Number(digits: string(from: start, to: at))
  }

  private mutating func digits() throws(Wire.NoJSON) {
    let start = at
    while at < bytes.count, bytes[at] &- UInt8(ascii: "0") < 10 { at += 1 }
    if at == start { throw unexpected() }
  }

  /// A string. A short one is taken from the cache.
  private mutating func text(
    among seen: WritableKeyPath<JSONParser, SeenTexts>
  ) throws(Wire.NoJSON) -> String {
    at += 1
    let start = at
    while at < bytes.count {
      let byte = bytes[at]
      if byte == UInt8(ascii: "\"") {
        let found = UnsafeBufferPointer(rebasing: bytes[start..<at])
        at += 1
        return self[keyPath: seen].text(found)
      }
      if byte == UInt8(ascii: "\\") { return try escaped(from: start) }
      if byte < 0x20 { throw unexpected() }
      at += 1
    }
    throw unexpected()
  }

  private func string(from start: Int, to end: Int) -> String {
    String(decoding: UnsafeBufferPointer(rebasing: bytes[start..<end]), as: UTF8.self)
  }

  /// The rest of a string that contains escapes.
  private mutating func escaped(from start: Int) throws(Wire.NoJSON) -> String {
    var found = Array(bytes[start..<at])
    while at < bytes.count {
      let byte = bytes[at]
      if byte == UInt8(ascii: "\"") {
        at += 1
        return String(decoding: found, as: UTF8.self)
      }
      if byte < 0x20 { throw unexpected() }
      at += 1
      if byte == UInt8(ascii: "\\") {
        found.append(contentsOf: String(try escape()).utf8)
      } else {
        found.append(byte)
      }
    }
    throw unexpected()
  }

  private mutating func escape() throws(Wire.NoJSON) -> Unicode.Scalar {
    guard at < bytes.count else { throw unexpected() }
    at += 1
    switch bytes[at - 1] {
    case UInt8(ascii: "\""): return "\""
    case UInt8(ascii: "\\"): return "\\"
    case UInt8(ascii: "/"): return "/"
    case UInt8(ascii: "b"): return "\u{8}"
    case UInt8(ascii: "f"): return "\u{C}"
    case UInt8(ascii: "n"): return "\n"
    case UInt8(ascii: "r"): return "\r"
    case UInt8(ascii: "t"): return "\t"
    case UInt8(ascii: "u"): return try scalar()
    default:
      at -= 1
      throw unexpected()
    }
  }

  /// A character that is written as one or two units of UTF-16. Half of a character alone is not
  /// valid: no string here can contain it.
  private mutating func scalar() throws(Wire.NoJSON) -> Unicode.Scalar {
    let unit = try unit()
    if let scalar = Unicode.Scalar(unit) { return scalar }
    let after = at
    if UTF16.isLeadSurrogate(unit), skip(UInt8(ascii: "\\")), skip(UInt8(ascii: "u")) {
      let second = try self.unit()
      if UTF16.isTrailSurrogate(second) {
        return UTF16.decode(UTF16.EncodedScalar([unit, second]))
      }
    }
    at = after
    return "\u{FFFD}"
  }

  private mutating func unit() throws(Wire.NoJSON) -> UInt16 {
    var unit: UInt16 = 0
    for _ in 0..<4 {
      guard at < bytes.count, let digit = hexDigit(bytes[at]) else { throw unexpected() }
      unit = unit << 4 | digit
      at += 1
    }
    return unit
  }

  private func hexDigit(_ byte: UInt8) -> UInt16? {
    switch byte {
    case UInt8(ascii: "0")...UInt8(ascii: "9"): UInt16(byte - UInt8(ascii: "0"))
    case UInt8(ascii: "a")...UInt8(ascii: "f"): UInt16(byte - UInt8(ascii: "a") + 10)
    case UInt8(ascii: "A")...UInt8(ascii: "F"): UInt16(byte - UInt8(ascii: "A") + 10)
    default: nil
    }
  }

  private mutating func skip(_ byte: UInt8) -> Bool {
    guard at < bytes.count, bytes[at] == byte else { return false }
    at += 1
    return true
  }

  private mutating func skipSpace() {
    while at < bytes.count {
      switch bytes[at] {
      case UInt8(ascii: " "), UInt8(ascii: "\n"), UInt8(ascii: "\r"), UInt8(ascii: "\t"): at += 1
      default: return
      }
    }
  }

  private func unexpected() -> Wire.NoJSON {
    Wire.NoJSON(
      message: at >= bytes.count
        ? "it ends too early" : "it has an unexpected character at position \(at)")
  }
}

/// A string as a key that is compared by its bytes.
private struct ByteText: Hashable {
  let text: String

  init(_ text: String) {
    self.text = text
  }

  static func == (one: ByteText, other: ByteText) -> Bool {
    Wire.isSame(one.text, other.text)
  }

  func hash(into hasher: inout Hasher) {
    // Strings with the same bytes are equal to Swift too.
    hasher.combine(text)
  }
}

/// The strings so far. A response repeats its names and many of its values. A shared string needs
/// no memory.
private struct SeenTexts {
  private var places: [String?]

  init(isLarge: Bool) {
    // A small response repeats little.
    places = Array(repeating: nil, count: isLarge ? 512 : 16)
  }

  mutating func text(_ bytes: UnsafeBufferPointer<UInt8>) -> String {
    // Swift stores strings of up to 15 bytes in place, and long ones hardly ever come twice.
    if bytes.count < 16 || bytes.count > 40 { return String(decoding: bytes, as: UTF8.self) }
    var hash: UInt32 = 0
    for byte in bytes { hash = hash &* 31 &+ UInt32(byte) }
    let place = Int((hash ^ hash >> 9) & UInt32(places.count - 1))
    if let known = places[place], known.utf8.count == bytes.count, known.utf8.elementsEqual(bytes) {
      return known
    }
    let made = String(decoding: bytes, as: UTF8.self)
    places[place] = made
    return made
  }
}
