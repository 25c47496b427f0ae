extension Wire {
  /// A value does not match the contract.
  struct Mismatch: Swift.Error {
    /// The expected value, in words.
    let expected: String
    /// JSON pointer to the value (RFC 6901).
    private(set) var path = ""

    init(_ expected: String) {
      self.expected = expected
    }

    init(_ expected: String, at path: String) {
      self.expected = expected
      self.path = path
    }

    /// The same mismatch, seen from one level further out.
    func below(_ key: String) -> Mismatch {
      Mismatch(expected, at: "/" + pointerKey(key) + path)
    }

    var message: String {
      "\(path.isEmpty ? "the response" : path) must be \(expected)"
    }
  }

  /// A key as a part of a JSON pointer (RFC 6901, section 3).
  static func pointerKey(_ key: String) -> String {
    var text = ""
    for character in key.unicodeScalars {
      switch character {
      case "~": text += "~0"
      case "/": text += "~1"
      default: text.unicodeScalars.append(character)
      }
    }
    return text
  }
}
