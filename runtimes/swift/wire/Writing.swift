extension Wire {
  /// Converts the value that the app sees to JSON.
  typealias Writer<Value> = @Sendable (Value) -> JSON

  static func writeText(_ value: String) -> JSON { .text(value) }

  static func writeInt64(_ value: Int64) -> JSON { .number(Number(value)) }

  static func writeInt32(_ value: Int32) -> JSON { .number(Number(Int64(value))) }

  static func writeDouble(_ value: Double) -> JSON { json(value) }

  static func writeBool(_ value: Bool) -> JSON { .truth(value) }

  static func writeJSON(_ value: JSON) -> JSON { value }

  static func writeList<Item>(_ item: @escaping Writer<Item>) -> Writer<[Item]> {
    { items in .list(items.map(item)) }
  }

  /// A map in the order of its keys' bytes, because a dictionary has no order of its own.
  static func writeMap<Value>(_ value: @escaping Writer<Value>) -> Writer<[String: Value]> {
    { map in
      .record(Fields(distinct: sortedByName(map).map { (name: $0.key, value: value($0.value)) }))
    }
  }

  static func writeNullable<Value>(_ value: @escaping Writer<Value>) -> Writer<Value?> {
    { given in given.map(value) ?? .null }
  }

  private static func sortedByName<Value>(
    _ map: [String: Value]
  ) -> [(key: String, value: Value)] {
    map.sorted { $0.key.utf8.lexicographicallyPrecedes($1.key.utf8) }
  }

  /// The fields of an object to send, in order.
  struct FieldWriter {
    private var fields: [Fields.Element] = []

    /// The object with the fields that were written so far.
    var json: JSON { .record(Fields(distinct: fields)) }

    mutating func required<Value>(_ name: String, _ value: Value, _ write: (Value) -> JSON) {
      fields.append((name, write(value)))
    }

    mutating func optional<Value>(_ name: String, _ value: Value?, _ write: (Value) -> JSON) {
      if let value { fields.append((name, write(value))) }
    }

    mutating func sent<Value>(_ name: String, _ value: Sent<Value>, _ write: (Value) -> JSON) {
      switch value {
      case .absent: break
      case .null: fields.append((name, .null))
      case .value(let value): fields.append((name, write(value)))
      }
    }

    /// Undeclared keys, which stay as they are.
    mutating func others<Value>(_ values: [String: Value], _ write: (Value) -> JSON) {
      let declared = fields
      for (name, value) in sortedByName(values)
      where !declared.contains(where: { isSame($0.name, name) }) {
        fields.append((name, write(value)))
      }
    }
  }

  /// An object with the tag that identifies its type, if the object does not contain it.
  static func tagged(_ json: JSON, _ field: String, _ value: String) -> JSON {
    guard case .record(let fields) = json, fields[field] == nil else { return json }
    return .record(Fields(distinct: [(field, .text(value))] + fields))
  }

  /// Items by position, of which those at the end may be missing, then the rest.
  static func writeTuple(_ parts: [JSON?], rest: [JSON] = []) -> JSON {
    var known = parts[...]
    while let last = known.last, last == nil { known.removeLast() }
    return .list(known.map { $0 ?? .null } + rest)
  }

  static func writeOwn<Value>(_ encode: @escaping @Sendable (Value) -> String) -> Writer<Value> {
    { value in .text(encode(value)) }
  }
}
