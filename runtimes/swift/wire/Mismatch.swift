extension Wire {
  /// A value is not what the contract says.
  struct Mismatch: Swift.Error {
    /// What was expected, in words.
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
      "\(path.isEmpty ? "the answer" : path) has to be \(expected)"
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
