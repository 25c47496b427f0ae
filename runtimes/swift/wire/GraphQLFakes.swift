extension Wire {
  /// A result without errors.
  static func fakeData(_ data: JSON) -> FakeReply {
    fakeJSON(200, "application/json", ["data": data])
  }

  /// Results of a subscription, in order.
  static func fakeResults(_ results: [JSON]) -> FakeReply {
    let events = results.map { result in
      "event: next\ndata: " + jsonText(["data": result]) + "\n\n"
    }
    let text = events.joined() + "event: complete\n\n"
    return FakeReply(status: 200, type: "text/event-stream", body: .init(text.utf8))
  }

  /// A result with errors and partial data.
  static func fakeErrors(_ messages: [String], _ data: JSON?) -> FakeReply {
    let errors = JSON.list(messages.map { ["message": .text($0)] })
    return fakeJSON(200, "application/json", ["errors": errors, "data": data ?? .null])
  }
}
