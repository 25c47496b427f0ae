extension Wire {
  /// The files among the values of an object, by their place: "photo", or "photos.0" in a list; in
  /// the order of the fields.
  struct Files: Sendable {
    private(set) var all: [(path: String, upload: Upload)] = []

    subscript(path: String) -> Upload? {
      all.first { isSame($0.path, path) }?.upload
    }

    mutating func addFile(_ path: String, _ file: Upload?) {
      if let file { all.append((path, file)) }
    }

    mutating func addFiles(_ path: String, _ files: [Upload?]?) {
      for (place, file) in (files ?? []).enumerated() { addFile("\(path).\(place)", file) }
    }

    /// Files of an object inside another one.
    mutating func addFiles<Value>(of path: String, _ value: Value?, _ files: (Value) -> Files) {
      guard let value else { return }
      for file in files(value).all { addFile("\(path).\(file.path)", file.upload) }
    }

    /// Files of objects in a list.
    mutating func addFiles<Value>(
      ofEach path: String, _ values: [Value?]?, _ files: (Value) -> Files
    ) {
      for (place, value) in (values ?? []).enumerated() {
        addFiles(of: "\(path).\(place)", value, files)
      }
    }
  }
}
