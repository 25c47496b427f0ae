import Foundation

#if canImport(FoundationNetworking)
  import FoundationNetworking
#endif

extension Wire {
  /// The body of a response that is read while it arrives. When nobody reads it any more, the
  /// request ends.
  final class StreamBody: Sendable {
    private let pieces: Pieces
    private let task: URLSessionTask?

    init(_ pieces: Pieces, _ task: URLSessionTask) {
      self.pieces = pieces
      self.task = task
    }

    /// A body that is known as a whole.
    init(_ bytes: Foundation.Data) {
      pieces = Pieces()
      pieces.add(bytes)
      pieces.end(nil)
      task = nil
    }

    deinit {
      task?.cancel()
    }

    /// The next piece, in order of arrival; nil at the end.
    func next() async throws(Trouble) -> Foundation.Data? {
      let (pieces, task) = (pieces, task)
      return try await withTaskCancellationHandler {
        await pieces.next()
      } onCancel: {
        task?.cancel()
      }.get()
    }

    /// All remaining bytes.
    func rest() async throws(Trouble) -> Foundation.Data {
      var all = Foundation.Data()
      while let piece = try await next() { all.append(piece) }
      return all
    }
  }

  /// The pieces of a body between the code that receives them and the code that reads them.
  final class Pieces: Sendable {
    private typealias Next = Swift.Result<Foundation.Data?, Trouble>

    private struct State {
      var ready: [Foundation.Data] = []
      var end: Next?
      var waiting: CheckedContinuation<Next, Never>?
    }

    private let state = Guarded(State())

    func next() async -> Swift.Result<Foundation.Data?, Trouble> {
      await withCheckedContinuation { waiting in
        let known: Next? = state.with { state in
          if !state.ready.isEmpty { return .success(state.ready.removeFirst()) }
          if state.end == nil { state.waiting = waiting }
          return state.end
        }
        if let known { waiting.resume(returning: known) }
      }
    }

    func add(_ piece: Foundation.Data) {
      let waiting = state.with { state in
        if state.waiting == nil { state.ready.append(piece) }
        defer { state.waiting = nil }
        return state.waiting
      }
      waiting?.resume(returning: .success(piece))
    }

    /// - Parameter trouble: why there are no more; nil at the end
    func end(_ trouble: Trouble?) {
      let end: Next = trouble.map { .failure($0) } ?? .success(nil)
      let waiting = state.with { state in
        state.end = end
        defer { state.waiting = nil }
        return state.waiting
      }
      waiting?.resume(returning: end)
    }
  }
}
