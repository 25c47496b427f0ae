extension Wire {
  /// Validates a value against a part of the contract. This is not a function type: in a list,
  /// older systems do not support functions with typed errors.
  struct Check: Sendable {
    /// Throws for the first value that does not match.
    let hold: @Sendable (JSON) throws(Mismatch) -> Void

    init(_ hold: @escaping @Sendable (JSON) throws(Mismatch) -> Void) {
      self.hold = hold
    }
  }

  /// A reader that validates its input against the contract first.
  static func checked<Value>(
    _ check: Check, _ read: @escaping Reader<Value>
  ) -> Reader<Value> {
    { json throws(Mismatch) in
      try check.hold(json)
      return try read(json)
    }
  }

  private static func plain(
    _ expected: String, _ fits: @escaping @Sendable (JSON) -> Bool
  ) -> Check {
    Check { json throws(Mismatch) in
      if !fits(json) { throw Mismatch(expected) }
    }
  }

  static let textCheck = plain("a string") { isText($0) }
  static let numberCheck = plain("a number") { isNumber($0) }
  static let wholeCheck = plain("an integer") { json in
    json.number.map { Decimal($0.description).isWhole } ?? false
  }
  static let truthCheck = plain("a boolean") { isTruth($0) }
  static let anyCheck = Check { _ in }
  static let noCheck = plain("nothing") { _ in false }

  /// One of several constants.
  static func oneOfCheck(_ constants: JSON...) -> Check {
    oneOfCheck(constants)
  }

  static func oneOfCheck(_ constants: [JSON]) -> Check {
    plain(constants.map(jsonText).joined(separator: " or ")) { isOne($0, of: constants) }
  }

  /// One of many strings.
  static func oneOfCheck(texts: Set<String>, inOrder list: [String]) -> Check {
    Check { json throws(Mismatch) in
      if let text = json.text, texts.contains(text) { return }
      throw Mismatch(list.map { jsonText(.text($0)) }.joined(separator: " or "))
    }
  }

  /// Null, or a value that passes another check.
  static func orNullCheck(_ check: Check) -> Check {
    Check { json throws(Mismatch) in
      if json != .null { try check.hold(json) }
    }
  }

  /// The check of an object's field, or of an object with a given string in that field.
  struct FieldCheck: Sendable {
    let name: String
    let check: Check

    init(_ name: String, _ check: Check) {
      self.name = name
      self.check = check
    }
  }

  private static func hold(_ json: JSON, below key: String, _ check: Check) throws(Mismatch) {
    do throws(Mismatch) {
      try check.hold(json)
    } catch {
      throw error.below(key)
    }
  }

  /// An object: required fields, optional fields, and the check for all other keys. The fields are
  /// checked in this order, whatever their order in the body.
  static func recordCheck(
    _ needed: [FieldCheck], optional: [FieldCheck] = [], rest: Check? = nil
  ) -> Check {
    let known = Set(needed.map(\.name) + optional.map(\.name))
    return Check { json throws(Mismatch) in
      let fields = try readRecord(json)
      for each in needed where fields[each.name] == nil {
        throw Mismatch("an object with the field " + jsonText(.text(each.name)))
      }
      for each in needed + optional {
        if let value = fields[each.name] { try hold(value, below: each.name, each.check) }
      }
      guard let rest else { return }
      for (name, value) in fields where !known.contains(name) {
        try hold(value, below: name, rest)
      }
    }
  }

  static func listCheck(_ item: Check) -> Check {
    tupleCheck([], needed: 0, rest: item)
  }

  static func mapCheck(_ value: Check) -> Check {
    recordCheck([], rest: value)
  }

  /// Items by position: the first ones are required, the rest is optional.
  static func tupleCheck(_ items: [Check], needed: Int, rest: Check? = nil) -> Check {
    Check { json throws(Mismatch) in
      guard case .list(let list) = json else { throw Mismatch("a list") }
      guard list.count >= needed else { throw Mismatch("a list of \(needed) or more items") }
      for (place, item) in list.enumerated() {
        guard let check = place < items.count ? items[place] : rest else {
          throw Mismatch("absent", at: "/\(place)")
        }
        try hold(item, below: String(place), check)
      }
    }
  }

  /// A value that passes at least one of several checks. If none passes, the mismatch is that of
  /// the check that got furthest.
  static func eitherCheck(_ checks: Check...) -> Check {
    Check { json throws(Mismatch) in
      var furthest: Mismatch?
      for check in checks {
        do throws(Mismatch) {
          return try check.hold(json)
        } catch {
          furthest = further(error, furthest)
        }
      }
      throw noneFits(furthest)
    }
  }

  /// An object whose check depends on the string in one field. Each row has that string as its
  /// name.
  static func taggedCheck(_ field: String, _ rows: FieldCheck...) -> Check {
    Check { json throws(Mismatch) in
      let tag = json[field]?.text
      guard let row = rows.first(where: { row in tag.map { isSame($0, row.name) } ?? false }) else {
        let expected = rows.map { jsonText(.text($0.name)) }.joined(separator: " or ")
        throw Mismatch(expected, at: "/" + pointerKey(field))
      }
      try row.check.hold(json)
    }
  }
}
