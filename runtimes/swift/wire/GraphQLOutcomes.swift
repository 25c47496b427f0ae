extension Wire.GraphQLConnection {
  /// Performs a query or mutation: what became of it.
  func outcome<Answer, Failure>(
    _ operation: Wire.Operation<Answer, Failure>, _ variables: Wire.Variables,
    _ options: Wire.CallOptions
  ) async -> Swift.Result<Answer, Failure> {
    await Wire.settled { () async throws(Failure) in
      try await execute(operation, variables, options)
    }
  }

  /// Performs a subscription: the outcome of each result. One with errors is followed by others;
  /// another failure is the last.
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
