extension Wire {
  /// Fetches a credential when it is first needed, and again when the server rejects it with 401.
  /// It is fetched once, however many calls wait for it. Each of them is then sent a second time,
  /// and never a third.
  ///
  /// - Parameter get: returns the credential; its argument is the one that was rejected, nil for
  ///   the first
  public static func renewable(
    _ get: @escaping @Sendable (_ rejected: String?) async throws -> String
  ) -> Credential {
    let renewal = Renewal(get)
    return {
      AskedCredential.current?.found(renewal)
      return try await renewal.renewed(nil)
    }
  }

  /// Stores a credential that can be renewed.
  actor Renewal {
    private let get: @Sendable (String?) async throws -> String
    private var known: String?
    private var getting: _Concurrency.Task<String, any Swift.Error>?

    init(_ get: @escaping @Sendable (String?) async throws -> String) {
      self.get = get
    }

    /// The current credential, or another one if the current one was rejected.
    func renewed(_ rejected: String?) async throws -> String {
      if let getting { return try await getting.value }
      if let known, known != rejected { return known }
      // The next call tries again to fetch a credential that could not be fetched.
      known = nil
      let get = get
      let task = _Concurrency.Task { try await get(rejected) }
      getting = task
      defer { getting = nil }
      let credential = try await task.value
      known = credential
      return credential
    }
  }

  /// Asks for a credential. A supplier whose credential can be renewed reports that.
  final class AskedCredential: Sendable {
    @TaskLocal static var current: AskedCredential?

    private let source = Guarded<Renewal?>(nil)

    var renewal: Renewal? {
      source.with { $0 }
    }

    func found(_ renewal: Renewal) {
      source.with { $0 = renewal }
    }
  }
}
