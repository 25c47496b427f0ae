extension Wire {
  /// A value that is kept elsewhere, because it may hold one of the kind that holds it.
  indirect enum Box<Value> {
    case holding(Value)

    init(_ value: Value) {
      self = .holding(value)
    }

    var value: Value {
      switch self {
      case .holding(let value): value
      }
    }
  }
}

extension Wire.Box: Sendable where Value: Sendable {}
extension Wire.Box: Equatable where Value: Equatable {}
extension Wire.Box: Hashable where Value: Hashable {}
