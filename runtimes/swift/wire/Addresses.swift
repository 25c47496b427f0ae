import Foundation

extension Wire {
  /// An address without its query, which may contain a key, and without a user.
  static func shownAddress(_ url: String) -> String {
    let path = url.prefix { $0 != "?" && $0 != "#" }
    guard let start = path.range(of: "//")?.upperBound else { return String(path) }
    let authority = path[start...].prefix { $0 != "/" }
    guard let user = authority.lastIndex(of: "@") else { return String(path) }
    return String(path[..<start]) + path[path.index(after: user)...]
  }

  /// Why an address is not valid; nil if it may be valid.
  static func addressFault(_ url: String) -> String? {
    let scheme = url.prefix(8).lowercased()
    let rest: Substring
    if scheme.hasPrefix("http://") {
      rest = url.dropFirst(7)
    } else if scheme == "https://" {
      rest = url.dropFirst(8)
    } else {
      return "must begin with https://"
    }
    let authority = rest.prefix { !"/?#\\".contains($0) }
    return authority.contains("@")
      ? "contains a user or a password; use a credential instead" : nil
  }

  /// An address for the platform. Illegal characters are percent-encoded, and all others stay as
  /// they are. The platform would encode everything again as soon as one character is illegal.
  static func platformURL(_ text: String, relativeTo base: Foundation.URL? = nil) -> Foundation.URL?
  {
    var start = text.startIndex
    if let host = text.range(of: "://")?.upperBound {
      start = text[host...].firstIndex { "/?#".contains($0) } ?? text.endIndex
    }
    let legal = String(text[..<start]) + encodedIllegal(text[start...])
    return Foundation.URL(string: legal, relativeTo: base)?.absoluteURL
  }

  private static func encodedIllegal(_ text: Substring) -> String {
    var written: [UInt8] = []
    let bytes = Array(text.utf8)
    for (place, byte) in bytes.enumerated() {
      let isKept =
        byte == UInt8(ascii: "%")
        ? place + 2 < bytes.count && isHexDigit(bytes[place + 1]) && isHexDigit(bytes[place + 2])
        : isLegal(byte)
      if isKept {
        written.append(byte)
      } else {
        let digits = String(byte, radix: 16, uppercase: true)
        written.append(contentsOf: ("%" + (byte < 16 ? "0" : "") + digits).utf8)
      }
    }
    return String(decoding: written, as: UTF8.self)
  }

  private static func isHexDigit(_ byte: UInt8) -> Bool {
    Character(Unicode.Scalar(byte)).isHexDigit && byte < 0x80
  }

  /// Characters that are valid in a path, a query or a fragment (RFC 3986, section 3).
  private static func isLegal(_ byte: UInt8) -> Bool {
    switch byte {
    case UInt8(ascii: "a")...UInt8(ascii: "z"), UInt8(ascii: "A")...UInt8(ascii: "Z"),
      UInt8(ascii: "0")...UInt8(ascii: "9"):
      true
    default: "-._~:/?#@!$&'()*+,;=".utf8.contains(byte)
    }
  }

  /// Whether two addresses have the same origin (RFC 6454, section 4).
  static func isSameOrigin(_ one: Foundation.URL, _ other: Foundation.URL) -> Bool {
    one.scheme?.lowercased() == other.scheme?.lowercased()
      && one.host?.lowercased() == other.host?.lowercased() && port(one) == port(other)
  }

  private static func port(_ url: Foundation.URL) -> Int? {
    url.port ?? ["http": 80, "https": 443][url.scheme?.lowercased() ?? ""]
  }
}
