extension Wire {
  /// Converts JSON to the value that the app sees.
  typealias Reader<Value> = @Sendable (JSON) throws(Mismatch) -> Value

  static func readText(_ json: JSON) throws(Mismatch) -> String {
    guard case .text(let text) = json else { throw Mismatch("a string") }
    return text
  }

  static func readInt64(_ json: JSON) throws(Mismatch) -> Int64 {
    guard case .number(let number) = json, let whole = number.int64 else {
      throw Mismatch("an integer")
    }
    return whole
  }

  static func readInt32(_ json: JSON) throws(Mismatch) -> Int32 {
    guard let number = Int32(exactly: try readInt64(json)) else {
      throw Mismatch("a 32-bit integer")
    }
    return number
  }

  static func readDouble(_ json: JSON) throws(Mismatch) -> Double {
    guard case .number(let number) = json else { throw Mismatch("a number") }
    return number.double
  }

  static func readBool(_ json: JSON) throws(Mismatch) -> Bool {
    guard case .truth(let truth) = json else { throw Mismatch("a boolean") }
    return truth
  }

  /// A value whose type the contract leaves open.
  static func readJSON(_ json: JSON) throws(Mismatch) -> JSON {
    json
  }

  static func readList<Item>(_ item: @escaping Reader<Item>) -> Reader<[Item]> {
    { json throws(Mismatch) in
      guard case .list(let list) = json else { throw Mismatch("a list") }
      var items: [Item] = []
      items.reserveCapacity(list.count)
      for (place, each) in list.enumerated() {
        do throws(Mismatch) {
          items.append(try item(each))
        } catch {
          throw error.below(String(place))
        }
      }
      return items
    }
  }

  static func readMap<Value>(_ value: @escaping Reader<Value>) -> Reader<[String: Value]> {
    { json throws(Mismatch) in
      let fields = try readRecord(json)
      var all: [String: Value] = [:]
      all.reserveCapacity(fields.count)
      for (name, each) in fields {
        do throws(Mismatch) {
          all[name] = try value(each)
        } catch {
          throw error.below(name)
        }
      }
      return all
    }
  }

  static func readNullable<Value>(_ value: @escaping Reader<Value>) -> Reader<Value?> {
    { json throws(Mismatch) in json == .null ? nil : try value(json) }
  }

  static func readRecord(_ json: JSON) throws(Mismatch) -> Fields {
    guard case .record(let fields) = json else { throw Mismatch("an object") }
    return fields
  }

  /// Reads the fields of an object one after the other.
  struct FieldReader {
    private let fields: Fields
    /// The expected position of the next field.
    private var next = 0

    init(_ json: JSON) throws(Mismatch) {
      fields = try readRecord(json)
    }

    private mutating func value(_ name: String) -> JSON? {
      guard let place = fields.place(of: name, near: next) else { return nil }
      next = place + 1
      return fields[place].value
    }

    /// A required field.
    mutating func required<Value>(
      _ name: String, _ read: (JSON) throws(Mismatch) -> Value
    ) throws(Mismatch) -> Value {
      guard let json = value(name) else {
        throw Mismatch("an object with the field " + jsonText(.text(name)))
      }
      do throws(Mismatch) {
        return try read(json)
      } catch {
        throw error.below(name)
      }
    }

    /// A field that may be absent or null, which is the same to an app.
    mutating func optional<Value>(
      _ name: String, _ read: (JSON) throws(Mismatch) -> Value
    ) throws(Mismatch) -> Value? {
      guard let json = value(name) else { return nil }
      if case .null = json { return nil }
      do throws(Mismatch) {
        return try read(json)
      } catch {
        throw error.below(name)
      }
    }

    /// A field that may be absent, and also null.
    mutating func sent<Value>(
      _ name: String, _ read: (JSON) throws(Mismatch) -> Value
    ) throws(Mismatch) -> Sent<Value> {
      guard let json = value(name) else { return .absent }
      if case .null = json { return .null }
      do throws(Mismatch) {
        return .value(try read(json))
      } catch {
        throw error.below(name)
      }
    }

    /// All undeclared keys.
    func others<Value>(
      _ declared: Set<String>, _ read: (JSON) throws(Mismatch) -> Value
    ) throws(Mismatch) -> [String: Value] {
      var all: [String: Value] = [:]
      for (name, json) in fields where !declared.contains(name) {
        do throws(Mismatch) {
          all[name] = try read(json)
        } catch {
          throw error.below(name)
        }
      }
      return all
    }
  }

  /// Reads the items of a list by position.
  struct ItemReader {
    private let items: [JSON]

    /// - Parameter needed: the number of required items
    init(_ json: JSON, needed: Int) throws(Mismatch) {
      guard case .list(let items) = json else { throw Mismatch("a list") }
      guard items.count >= needed else { throw Mismatch("a list of \(needed) or more items") }
      self.items = items
    }

    func required<Value>(
      _ place: Int, _ read: (JSON) throws(Mismatch) -> Value
    ) throws(Mismatch) -> Value {
      do throws(Mismatch) {
        return try read(items[place])
      } catch {
        throw error.below(String(place))
      }
    }

    /// An item that may be missing.
    func optional<Value>(
      _ place: Int, _ read: (JSON) throws(Mismatch) -> Value
    ) throws(Mismatch) -> Value? {
      guard place < items.count else { return nil }
      if case .null = items[place] { return nil }
      return try required(place, read)
    }

    /// All items from a position on.
    func rest<Value>(
      from start: Int, _ read: (JSON) throws(Mismatch) -> Value
    ) throws(Mismatch) -> [Value] {
      var all: [Value] = []
      for place in Swift.min(start, items.count)..<items.count {
        all.append(try required(place, read))
      }
      return all
    }
  }

  /// A type of the app's own, from a JSON string.
  static func readOwn<Value>(
    _ decode: @escaping @Sendable (String) throws -> Value
  ) -> Reader<Value> {
    { json throws(Mismatch) in
      let text = try readText(json)
      do {
        return try decode(text)
      } catch {
        throw Mismatch("a value that the app can read")
      }
    }
  }
}
