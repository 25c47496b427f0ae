import Foundation

extension Wire {
  /// The headers and query of a request while credentials are added.
  struct Credentials {
    var headers: Headers
    var query: [String]
  }

  /// Adds a credential in the way that its scheme requires.
  struct Scheme: Sendable {
    let put: @Sendable (_ credential: String, _ into: inout Credentials) throws(Trouble) -> Void
  }

  /// `Authorization: Bearer …` (RFC 6750, section 2.1).
  static let bearer = scheme("Bearer")

  /// `Authorization: Basic …` (RFC 7617); the credential is "user:password".
  static let basic = Scheme { credential, into throws(Trouble) in
    let encoded = Foundation.Data(credential.utf8).base64EncodedString()
    into.headers["authorization"] = "Basic " + encoded
  }

  /// Another HTTP authentication scheme (RFC 9110, section 11.6.2).
  static func scheme(_ name: String) -> Scheme {
    Scheme { credential, into throws(Trouble) in
      try set("authorization", name + " " + credential, in: &into.headers)
    }
  }

  static func keyInHeader(_ name: String) -> Scheme {
    Scheme { key, into throws(Trouble) in try set(name, key, in: &into.headers) }
  }

  static func keyInQuery(_ name: String) -> Scheme {
    Scheme { key, into in into.query.append(encode(name) + "=" + encode(key)) }
  }

  static func keyInCookie(_ name: String) -> Scheme {
    Scheme { key, into in
      let others = into.headers["cookie"].map { $0 + "; " } ?? ""
      into.headers["cookie"] = others + name + "=" + encode(key)
    }
  }

  /// A credential that was sent, and the function that fetches another one.
  struct Used: Sendable {
    let credential: String
    let renewal: Renewal?

    /// Returns whether there is another one now.
    func renew() async throws(Trouble) -> Bool {
      guard let renewal else { return false }
      let rejected = credential
      return try await owned { try await renewal.renewed(rejected) } != rejected
    }
  }
}

extension Wire.Connection {
  /// Adds the credentials of the first alternative that the app supplies.
  ///
  /// - Parameter auth: alternatives, each a list of schemes that are needed together
  func authorize(
    _ auth: [[String]], _ into: inout Wire.Credentials
  ) async throws(Wire.Trouble) -> [Wire.Used] {
    guard let chosen = auth.first(where: { $0.allSatisfy { credentials[$0] != nil } }) else {
      return []
    }
    var used: [Wire.Used] = []
    for name in chosen {
      guard let source = credentials[name] else { continue }
      let asked = Wire.AskedCredential()
      let credential = try await Wire.owned {
        try await Wire.AskedCredential.$current.withValue(asked) { try await source() }
      }
      do throws(Wire.Trouble) {
        try schemes[name]?.put(credential, &into)
      } catch {
        throw Wire.Trouble(message: "the credential `\(name)` is not valid in a header")
      }
      used.append(Wire.Used(credential: credential, renewal: asked.renewal))
    }
    return used
  }
}
