extension Wire {
  /// The cookie header of pairs as they stand in it; nil when there are none.
  static func cookies(_ pairs: String?...) -> String? {
    let given = pairs.compactMap { $0 }.filter { !$0.isEmpty }
    return given.isEmpty ? nil : given.joined(separator: "; ")
  }
}
