extension Wire.Headers {
  /// One header; nil if its value does not have the right type.
  func read<Value>(_ name: String, _ read: (String) -> Value?) -> Value? {
    self[name].flatMap(read)
  }

  /// A header that is a comma-separated list.
  func readAll<Value>(_ name: String, _ read: (String) -> Value?) -> [Value]? {
    guard let text = self[name] else { return nil }
    if text.isEmpty { return [] }
    return text.split(separator: ",", omittingEmptySubsequences: false)
      .compactMap { read(Wire.trimmed($0)) }
  }
}

extension Wire {
  static func headerText(_ text: String) -> String? { text }

  static func headerDouble(_ text: String) -> Double? {
    // The platform also reads hexadecimal numbers and words.
    let said = trimmed(text[...])
    let isNumber = said.utf8.allSatisfy { "0123456789+-.eE".utf8.contains($0) }
    return isNumber ? Double(said) : nil
  }

  static func headerInt64(_ text: String) -> Int64? {
    Int64(trimmed(text[...])) ?? headerDouble(text).flatMap { Int64(exactly: $0) }
  }

  static func headerInt32(_ text: String) -> Int32? {
    headerInt64(text).flatMap { Int32(exactly: $0) }
  }

  static func headerBool(_ text: String) -> Bool? {
    switch text {
    case "true": true
    case "false": false
    default: nil
    }
  }
}
