extension Wire {
  /// A value in a storage of its own, because it may contain a value of the type that contains it.
  @propertyWrapper
  public indirect enum Box<Value> {
    case holding(Value)

    public init(wrappedValue: Value) {
      self = .holding(wrappedValue)
    }

    public var wrappedValue: Value {
      get {
        switch self {
        case .holding(let value): value
        }
      }
      set { self = .holding(newValue) }
    }
  }
}

extension Wire.Box: Sendable where Value: Sendable {}
extension Wire.Box: Equatable where Value: Equatable {}
extension Wire.Box: Hashable where Value: Hashable {}
