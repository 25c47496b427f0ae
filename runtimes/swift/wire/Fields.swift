extension Wire {
  /// The fields of a JSON object, in order.
  public struct Fields: Sendable, RandomAccessCollection {
    public typealias Element = (name: String, value: JSON)

    private var all: [Element]

    public init() {
      all = []
    }

    /// - Parameter distinct: fields with names that are all different
    init(distinct: [Element]) {
      all = distinct
    }

    public var startIndex: Int { 0 }

    public var endIndex: Int { all.count }

    public subscript(place: Int) -> Element { all[place] }

    /// The value of a field; nil if it is absent. Names are equal if their bytes are: `é` may be
    /// written in two ways, which are two names.
    public subscript(name: String) -> JSON? {
      get { place(of: name, near: 0).map { all[$0].value } }
      set {
        let place = place(of: name, near: 0)
        switch (place, newValue) {
        case (let place?, let value?): all[place].value = value
        case (let place?, nil): all.remove(at: place)
        case (nil, let value?): all.append((name, value))
        case (nil, nil): break
        }
      }
    }

    /// The index of a field. The search starts at a position, because fields are read in about the
    /// order in which they are sent.
    func place(of name: String, near start: Int) -> Int? {
      for place in start..<all.count where isSame(all[place].name, name) { return place }
      for place in 0..<Swift.min(start, all.count) where isSame(all[place].name, name) {
        return place
      }
      return nil
    }
  }

  /// Whether two texts have the same bytes. Swift treats texts that look alike as equal.
  @inline(__always)
  static func isSame(_ one: String, _ other: String) -> Bool {
    one.utf8.count == other.utf8.count && one.utf8.elementsEqual(other.utf8)
  }
}

extension Wire.Fields: Hashable {
  /// The order of fields has no meaning.
  public static func == (one: Wire.Fields, other: Wire.Fields) -> Bool {
    guard one.count == other.count else { return false }
    for (place, field) in one.enumerated() {
      guard let same = other.place(of: field.name, near: place), other[same].value == field.value
      else { return false }
    }
    return true
  }

  public func hash(into hasher: inout Hasher) {
    var all = 0
    for (name, value) in self {
      var own = Hasher()
      own.combine(name)
      own.combine(value)
      all ^= own.finalize()
    }
    hasher.combine(all)
  }
}

extension Wire.Fields: ExpressibleByDictionaryLiteral {
  public init(dictionaryLiteral elements: (String, Wire.JSON)...) {
    self.init()
    for (name, value) in elements { self[name] = value }
  }
}
