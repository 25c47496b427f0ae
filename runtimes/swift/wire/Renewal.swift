extension Wire {
  /// A credential that is got when it is first needed, and got anew when the server rejects it with
  /// 401: once, however many calls wait for it. Each of them is then sent a second time, and never
  /// a third.
  ///
  /// - Parameter get: gives the credential; it is told which one was rejected, nil for the first
  public static func renewable(
    _ get: @escaping @Sendable (_ rejected: String?) async throws -> String
  ) -> Credential {
    let renewal = Renewal(get)
    return {
      AskedCredential.current?.found(renewal)
      return try await renewal.renewed(nil)
    }
  }

  /// Holds a credential that can be renewed.
  actor Renewal {
    private let get: @Sendable (String?) async throws -> String
    private var known: String?
    private var getting: _Concurrency.Task<String, any Swift.Error>?

    init(_ get: @escaping @Sendable (String?) async throws -> String) {
      self.get = get
    }

    /// The credential that is known, or another one where it is the rejected one.
    func renewed(_ rejected: String?) async throws -> String {
      if let getting { return try await getting.value }
      if let known, known != rejected { return known }
      // What could not be got is asked for again by the next call.
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

  /// A credential that is being asked for; what gives one that can be renewed says so.
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
