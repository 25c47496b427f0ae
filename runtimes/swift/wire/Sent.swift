extension Wire {
  /// A field of a request that may be left out, and that may also be null, with another meaning.
  public enum Sent<Value> {
    case absent
    case null
    case value(Value)

    /// The value; nil if there is none.
    var given: Value? {
      if case .value(let value) = self { value } else { nil }
    }
  }
}

extension Wire.Sent: Sendable where Value: Sendable {}
extension Wire.Sent: Equatable where Value: Equatable {}
extension Wire.Sent: Hashable where Value: Hashable {}
