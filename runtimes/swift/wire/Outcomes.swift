extension Wire {
  /// The outcomes of a response that arrives item by item. A failure that ends it is the last one.
  public struct Outcomes<Item: Sendable, Failure: CallFailure>: AsyncSequence, Sendable {
    public typealias Element = Swift.Result<Item, Failure>

    /// Begins an iteration: returns the function for the next outcome.
    let start: @Sendable () -> @Sendable () async -> Swift.Result<Item, Failure>?

    public func makeAsyncIterator() -> Iterator {
      Iterator(ask: start())
    }

    public struct Iterator: AsyncIteratorProtocol, Sendable {
      fileprivate let ask: @Sendable () async -> Swift.Result<Item, Failure>?

      /// The next outcome; nil at the end.
      public mutating func next() async -> Swift.Result<Item, Failure>? {
        await ask()
      }
    }
  }

  /// Returns the outcome of a call instead of throwing its failure.
  static func settled<Answer: Sendable, Failure: CallFailure>(
    _ call: () async throws(Failure) -> Answer
  ) async -> Swift.Result<Answer, Failure> {
    do throws(Failure) {
      return .success(try await call())
    } catch {
      return .failure(error)
    }
  }
}

extension Wire.Items {
  /// The same items, with the failure as the last one.
  var outcomes: Wire.Outcomes<Item, Failure> {
    let start = start
    return Wire.Outcomes {
      let ask = start()
      return {
        do throws(Failure) {
          return try await ask().map(Swift.Result.success)
        } catch {
          return .failure(error)
        }
      }
    }
  }
}

extension Wire.Connection {
  /// Performs one REST call and returns its outcome.
  func outcome<Answer: Sendable, Failure: Wire.CallFailure>(
    _ request: Wire.RestRequest, _ options: Wire.CallOptions,
    _ reading: Wire.Reading<Answer, Failure>
  ) async -> Swift.Result<Answer, Failure> {
    await Wire.settled { () async throws(Failure) in
      try await send(request, options, reading)
    }
  }
}
