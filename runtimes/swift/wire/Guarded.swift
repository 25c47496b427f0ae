import Foundation

extension Wire {
  /// A value that several threads change.
  final class Guarded<Value>: @unchecked Sendable {
    private let lock = NSLock()
    private var value: Value

    init(_ value: Value) {
      self.value = value
    }

    func with<Result>(_ work: (inout Value) throws -> Result) rethrows -> Result {
      lock.lock()
      defer { lock.unlock() }
      return try work(&value)
    }
  }
}
