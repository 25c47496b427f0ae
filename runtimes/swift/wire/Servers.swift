import Foundation

extension Wire {
  /// The server of a call that does not use the connection's server.
  struct OwnServer {
    let url: String
    /// Whether the app has chosen it, or another address of its origin. Only then it gets
    /// credentials.
    let isNamed: Bool

    init(_ url: String, isNamed: Bool) {
      self.url = url
      self.isNamed = isNamed
    }
  }

  /// An address with its variables filled in.
  static func serverURL(_ template: String, _ variables: [String: String]) -> String {
    var written = ""
    var rest = template[...]
    while let start = rest.firstIndex(of: "{") {
      written += rest[..<start]
      let after = rest[rest.index(after: start)...]
      guard let end = after.firstIndex(where: { $0 == "}" || $0 == "{" }), after[end] == "}",
        let value = variables[String(after[..<end])]
      else {
        written += "{"
        rest = after
        continue
      }
      written += value
      rest = after[after.index(after: end)...]
    }
    return written + rest
  }
}

extension Wire.Connection {
  /// The server of a call that has one of its own: the app's choice, otherwise the contract's. It
  /// gets credentials only if the app has chosen it, or if its origin gets them anyway.
  func ownServer(_ server: String, _ base: String) -> Wire.OwnServer {
    if let chosen = servers[server] { return Wire.OwnServer(chosen, isNamed: true) }
    guard let host = server.range(of: "//") ?? server.range(of: "\\\\"), hasHost(server, host)
    else {
      let here = Wire.platformURL(Wire.withoutEndSlashes(base) + "/")
      let url = Wire.platformURL(server, relativeTo: here)?.absoluteString ?? base + server
      return Wire.OwnServer(url, isNamed: true)
    }
    let scheme = base.lowercased().hasPrefix("http:") ? "http:" : "https:"
    let url = host.lowerBound == server.startIndex ? scheme + server : server
    guard let origin = Wire.platformURL(url) else { return Wire.OwnServer(url, isNamed: false) }
    // An address that a function returns has no known origin.
    let fixed = settings.baseURL == nil ? base : nil
    let named = ([fixed, contractURL].compactMap { $0 } + servers.values).compactMap {
      Wire.platformURL($0)
    }
    return Wire.OwnServer(url, isNamed: named.contains { Wire.isSameOrigin($0, origin) })
  }

  /// Whether an address begins with a host, after a scheme or without one.
  private func hasHost(_ server: String, _ slashes: Range<String.Index>) -> Bool {
    let before = server[..<slashes.lowerBound]
    return before.isEmpty || before.last == ":" && !before.contains { "/?#".contains($0) }
  }
}
