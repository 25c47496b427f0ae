extension Wire {
  /// Any JSON value (RFC 8259), for a value whose type the contract leaves open.
  public enum JSON: Hashable, Sendable {
    case null
    case truth(Bool)
    case number(Number)
    case text(String)
    case list([JSON])
    case record(Fields)

    /// The value of a key; nil if this is not an object or has no such key.
    public subscript(name: String) -> JSON? {
      guard case .record(let fields) = self else { return nil }
      return fields[name]
    }

    /// The item at a position; nil if this is not a list or is shorter.
    public subscript(place: Int) -> JSON? {
      guard case .list(let items) = self, items.indices.contains(place) else { return nil }
      return items[place]
    }

    /// The string; nil if this has another type.
    public var text: String? {
      guard case .text(let text) = self else { return nil }
      return text
    }

    /// The number; nil if this has another type.
    public var number: Number? {
      guard case .number(let number) = self else { return nil }
      return number
    }

    /// The boolean; nil if this has another type.
    public var truth: Bool? {
      guard case .truth(let truth) = self else { return nil }
      return truth
    }

    /// The items of the list; nil if this has another type.
    public var list: [JSON]? {
      guard case .list(let items) = self else { return nil }
      return items
    }

    /// The fields of the object; nil if this has another type.
    public var record: Fields? {
      guard case .record(let fields) = self else { return nil }
      return fields
    }
  }
}

extension Wire.JSON: ExpressibleByStringLiteral, ExpressibleByIntegerLiteral,
  ExpressibleByFloatLiteral, ExpressibleByBooleanLiteral, ExpressibleByArrayLiteral,
  ExpressibleByDictionaryLiteral
{
  public init(stringLiteral value: String) {
    self = .text(value)
  }

  public init(integerLiteral value: Int64) {
    self = .number(Wire.Number(value))
  }

  public init(floatLiteral value: Double) {
    self = Wire.json(value)
  }

  public init(booleanLiteral value: Bool) {
    self = .truth(value)
  }

  public init(arrayLiteral elements: Wire.JSON...) {
    self = .list(elements)
  }

  public init(dictionaryLiteral elements: (String, Wire.JSON)...) {
    var fields = Wire.Fields()
    for (name, value) in elements { fields[name] = value }
    self = .record(fields)
  }
}
