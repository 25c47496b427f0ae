extension Wire {
  /// A JSON number with all its digits.
  public struct Number: Hashable, Sendable, CustomStringConvertible {
    /// The number in JSON.
    public let description: String

    /// - Parameter digits: a number in JSON, which is not validated again
    init(digits: String) {
      description = digits
    }

    public init(_ value: Int64) {
      description = String(value)
    }

    /// The number of a double; nil if it is infinite or not a number, because JSON has no digits
    /// for those.
    public init?(_ value: Double) {
      guard value.isFinite else { return nil }
      description = numberText(value)
    }

    /// The nearest double.
    public var double: Double {
      // Every number in JSON is a number to the platform too.
      Double(description) ?? .nan
    }

    /// The integer value, also if it is written with a fraction of zero or with an exponent; nil if
    /// it is not an integer or has more than 64 bits.
    public var int64: Int64? {
      if let whole = Int64(description) { return whole }
      return Decimal(description).int64
    }
  }

  /// A double as JSON. A double that is not a number is null, as in ECMAScript.
  static func json(_ value: Double) -> JSON {
    Number(value).map(JSON.number) ?? .null
  }

  /// A double as ECMAScript writes it (ECMA-262, Number::toString): the fewest digits that give the
  /// same double again.
  static func numberText(_ value: Double) -> String {
    if let whole = Int64(exactly: value), whole.magnitude < 1_000_000_000_000_000 {
      return String(whole)
    }
    // The platform finds the fewest digits. Only the position of the point follows ECMAScript.
    let shortest = Decimal(value.description)
    let digits = shortest.digits
    let point = shortest.point
    var text = shortest.isNegative ? "-" : ""
    if point > digits.count, point <= 21 {
      text += digits + String(repeating: "0", count: point - digits.count)
    } else if point > 0, point <= 21 {
      text += digits.prefix(point)
      if point < digits.count { text += "." + digits.dropFirst(point) }
    } else if point > -6, point <= 0 {
      text += "0." + String(repeating: "0", count: -point) + digits
    } else {
      text += digits.prefix(1)
      if digits.count > 1 { text += "." + digits.dropFirst() }
      text += point > 0 ? "e+" : "e-"
      text += String((point - 1).magnitude)
    }
    return text
  }

  /// A number as its digits: 0.digits times ten to the power of `point`. Zero has none.
  struct Decimal: Equatable {
    let isNegative: Bool
    let digits: String
    let point: Int

    /// - Parameter text: a number in JSON
    init(_ text: String) {
      var digits: [UInt8] = []
      var point = 0
      var exponent = 0
      var isNegative = false
      var isFraction = false
      var bytes = text.utf8[...]
      if bytes.first == UInt8(ascii: "-") {
        isNegative = true
        bytes.removeFirst()
      }
      while let byte = bytes.popFirst() {
        if byte == UInt8(ascii: ".") {
          isFraction = true
        } else if byte == UInt8(ascii: "e") || byte == UInt8(ascii: "E") {
          // An exponent that fits no integer makes a number zero, or larger than any type.
          let written = String(Substring(bytes))
          exponent = Int(written) ?? (written.hasPrefix("-") ? -1_000_000_000 : 1_000_000_000)
          exponent = min(max(exponent, -1_000_000_000), 1_000_000_000)
          break
        } else if digits.isEmpty, byte == UInt8(ascii: "0") {
          if isFraction { point -= 1 }
        } else {
          digits.append(byte)
          if !isFraction { point += 1 }
        }
      }
      while digits.last == UInt8(ascii: "0") { digits.removeLast() }
      self.isNegative = isNegative && !digits.isEmpty
      self.digits = String(decoding: digits, as: UTF8.self)
      self.point = digits.isEmpty ? 0 : point + exponent
    }

    /// The number itself, if it is an integer of at most 64 bits.
    var int64: Int64? {
      if digits.isEmpty { return 0 }
      guard isWhole, point <= 19 else { return nil }
      let zeros = String(repeating: "0", count: point - digits.count)
      return Int64((isNegative ? "-" : "") + digits + zeros)
    }

    var isWhole: Bool {
      digits.isEmpty || point >= digits.count
    }
  }
}
