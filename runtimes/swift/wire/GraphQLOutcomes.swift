extension Wire.GraphQLConnection {
  /// Sends a query or mutation and returns its outcome.
  func outcome<Answer, Failure>(
    _ operation: Wire.Operation<Answer, Failure>, _ variables: Wire.Variables,
    _ options: Wire.CallOptions
  ) async -> Swift.Result<Answer, Failure> {
    await Wire.settled { () async throws(Failure) in
      try await execute(operation, variables, options)
    }
  }

  /// Performs a subscription: the outcome of each result. One with errors does not end it; any
  /// other failure does.
  func subscribeOutcomes<Answer, Failure>(
    _ operation: Wire.Operation<Answer, Failure>, _ variables: Wire.Variables,
    _ options: Wire.CallOptions
  ) -> Wire.Outcomes<Answer, Failure> {
    let subscribed = subscribed(operation, variables, options)
    return Wire.Outcomes {
      let source = Wire.Subscribing(operation, subscribed)
      return { await source.nextOutcome() }
    }
  }
}
