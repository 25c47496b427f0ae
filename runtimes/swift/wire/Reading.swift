extension Wire {
  /// Makes the app's value of what is on the wire.
  typealias Reader<Value> = @Sendable (JSON) throws(Mismatch) -> Value

  static func readText(_ json: JSON) throws(Mismatch) -> String {
    guard case .text(let text) = json else { throw Mismatch("text") }
    return text
  }

  static func readInt64(_ json: JSON) throws(Mismatch) -> Int64 {
    guard case .number(let number) = json, let whole = number.int64 else {
      throw Mismatch("a whole number")
    }
    return whole
  }

  static func readInt32(_ json: JSON) throws(Mismatch) -> Int32 {
    guard let number = Int32(exactly: try readInt64(json)) else {
      throw Mismatch("a whole number of 32 bits")
    }
    return number
  }

  static func readDouble(_ json: JSON) throws(Mismatch) -> Double {
    guard case .number(let number) = json else { throw Mismatch("a number") }
    return number.double
  }

  static func readBool(_ json: JSON) throws(Mismatch) -> Bool {
    guard case .truth(let truth) = json else { throw Mismatch("true or false") }
    return truth
  }

  /// What the contract leaves unsaid.
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
    guard case .record(let fields) = json else { throw Mismatch("a record") }
    return fields
  }

  /// Reads the fields of a record one after the other.
  struct FieldReader {
    private let fields: Fields
    /// Where the field that comes next is to be expected.
    private var next = 0

    init(_ json: JSON) throws(Mismatch) {
      fields = try readRecord(json)
    }

    private mutating func value(_ name: String) -> JSON? {
      guard let place = fields.place(of: name, near: next) else { return nil }
      next = place + 1
      return fields[place].value
    }

    /// A field that has to be there.
    mutating func required<Value>(
      _ name: String, _ read: (JSON) throws(Mismatch) -> Value
    ) throws(Mismatch) -> Value {
      guard let json = value(name) else { throw Mismatch("a field " + jsonText(.text(name))) }
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

    /// A field that may be absent, and is null too.
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

    /// Every key but those that are declared.
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

  /// Reads the items of a list by their places.
  struct ItemReader {
    private let items: [JSON]

    /// - Parameter needed: how many have to be there
    init(_ json: JSON, needed: Int) throws(Mismatch) {
      guard case .list(let items) = json else { throw Mismatch("a list") }
      guard items.count >= needed else { throw Mismatch("\(needed) items") }
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

    /// Every item from a place on.
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

  /// A type of the app's own, from the text on the wire.
  static func readOwn<Value>(
    _ decode: @escaping @Sendable (String) throws -> Value
  ) -> Reader<Value> {
    { json throws(Mismatch) in
      let text = try readText(json)
      do {
        return try decode(text)
      } catch {
        throw Mismatch("what the app can read")
      }
    }
  }
}
