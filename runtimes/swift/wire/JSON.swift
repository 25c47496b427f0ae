extension Wire {
  /// Any JSON value (RFC 8259): what a contract leaves unsaid.
  public enum JSON: Hashable, Sendable {
    case null
    case truth(Bool)
    case number(Number)
    case text(String)
    case list([JSON])
    case record(Fields)

    /// The value of a key; nil where this is no record, or has no such key.
    public subscript(name: String) -> JSON? {
      guard case .record(let fields) = self else { return nil }
      return fields[name]
    }

    /// The item at a place; nil where this is no list, or a shorter one.
    public subscript(place: Int) -> JSON? {
      guard case .list(let items) = self, items.indices.contains(place) else { return nil }
      return items[place]
    }

    /// The text that this is; nil where it is something else.
    public var text: String? {
      guard case .text(let text) = self else { return nil }
      return text
    }

    /// The number that this is; nil where it is something else.
    public var number: Number? {
      guard case .number(let number) = self else { return nil }
      return number
    }

    /// The truth value that this is; nil where it is something else.
    public var truth: Bool? {
      guard case .truth(let truth) = self else { return nil }
      return truth
    }

    /// The items of the list that this is; nil where it is something else.
    public var list: [JSON]? {
      guard case .list(let items) = self else { return nil }
      return items
    }

    /// The fields of the record that this is; nil where it is something else.
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
