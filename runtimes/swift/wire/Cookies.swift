extension Wire {
  /// The cookie header for pairs that are already encoded; nil when there are none.
  static func cookies(_ pairs: String?...) -> String? {
    let given = pairs.compactMap { $0 }.filter { !$0.isEmpty }
    return given.isEmpty ? nil : given.joined(separator: "; ")
  }
}
