extension Wire {
  /// The headers of a request or a response, in order. Their names are case-insensitive.
  public struct Headers: Sendable, Sequence, ExpressibleByDictionaryLiteral {
    private var all: [(name: String, value: String)]

    public init() {
      all = []
    }

    public init(dictionaryLiteral elements: (String, String)...) {
      all = elements.map { (name: $0.0, value: $0.1) }
    }

    /// All values of a header, joined into one (RFC 9110, section 5.3); nil if it is absent.
    /// Setting it replaces all its values.
    public subscript(name: String) -> String? {
      get {
        let values = all.filter { isSame($0.name, name) }.map(\.value)
        return values.isEmpty ? nil : values.joined(separator: ", ")
      }
      set {
        all = all.filter { !isSame($0.name, name) }
        if let newValue { all.append((name, newValue)) }
      }
    }

    /// Adds a header next to those with the same name.
    public mutating func add(_ name: String, _ value: String) {
      all.append((name, value))
    }

    public func makeIterator() -> IndexingIterator<[(name: String, value: String)]> {
      all.makeIterator()
    }

    /// The headers whose names pass a test.
    func only(_ keeps: (String) -> Bool) -> Headers {
      var kept = Headers()
      kept.all = all.filter { keeps($0.name) }
      return kept
    }

    private func isSame(_ one: String, _ other: String) -> Bool {
      one.lowercased() == other.lowercased()
    }
  }
}

extension Wire.Headers: CustomStringConvertible, CustomReflectable {
  /// Only the names: values may be secrets.
  public var description: String {
    map(\.name).joined(separator: ", ")
  }

  public var customMirror: Mirror {
    Mirror(self, children: ["names": description])
  }
}
