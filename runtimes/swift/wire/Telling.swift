extension Wire {
  /// The string in the field that identifies an object's type; nil if it has none.
  static func tag(_ json: JSON, _ field: String) throws(Mismatch) -> String? {
    try readRecord(json)[field]?.text
  }

  static func isRecord(_ json: JSON, with needed: String...) -> Bool {
    guard case .record(let fields) = json else { return false }
    return needed.allSatisfy { fields[$0] != nil }
  }

  static func isList(_ json: JSON) -> Bool { json.list != nil }

  static func isText(_ json: JSON) -> Bool { json.text != nil }

  static func isNumber(_ json: JSON) -> Bool { json.number != nil }

  static func isTruth(_ json: JSON) -> Bool { json.truth != nil }

  /// Whether a value is one of several constants. Numbers are compared by value.
  static func isOne(_ json: JSON, of constants: JSON...) -> Bool {
    isOne(json, of: constants)
  }

  static func isOne(_ json: JSON, of constants: [JSON]) -> Bool {
    constants.contains { isSame(json, $0) }
  }

  /// Whether a field of an object has one of several constants.
  static func has(_ json: JSON, _ field: String, oneOf constants: JSON...) -> Bool {
    guard let value = json[field] else { return false }
    return isOne(value, of: constants)
  }

  private static func isSame(_ json: JSON, _ constant: JSON) -> Bool {
    switch (json, constant) {
    case (.text(let one), .text(let other)): isSame(one, other)
    case (.truth(let one), .truth(let other)): one == other
    case (.number(let one), .number(let other)):
      one == other || Decimal(one.description) == Decimal(other.description)
    default: false
    }
  }

  /// Of two mismatches, the one that got further.
  static func further(_ one: Mismatch, _ other: Mismatch?) -> Mismatch {
    guard let other, other.path.utf16.count >= one.path.utf16.count else { return one }
    return other
  }

  /// The mismatch of a value that has none of several types.
  static func noneFits(_ furthest: Mismatch?) -> Mismatch {
    if let furthest, !furthest.path.isEmpty { return furthest }
    return Mismatch("one of several types")
  }
}
