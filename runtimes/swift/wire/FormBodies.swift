import Foundation

extension Wire {
  /// How one field of a form is written, if not in the default way.
  struct FieldWay: Sendable {
    /// The media type of a part, or "application/json" for a field that contains JSON.
    var type: String?
    var style: String?
    var explode = true
  }

  /// A body as `application/x-www-form-urlencoded`, with spaces as `+`. An object inside is JSON
  /// unless a style says otherwise.
  static func urlencoded(_ json: JSON?, ways: [String: FieldWay] = [:]) -> Body? {
    guard let json else { return nil }
    let pairs = (json.record ?? Fields()).map { name, value in
      pair(name, value, ways[name] ?? FieldWay())
    }
    let text = pairs.filter { !$0.isEmpty }.joined(separator: "&")
    let written = text.replacingOccurrences(of: "%20", with: "+")
    return textBody(written, type: "application/x-www-form-urlencoded")
  }

  private static func pair(_ name: String, _ json: JSON, _ way: FieldWay) -> String {
    if let type = way.type, isJSON(type) { return form(name, .text(jsonText(json))) }
    switch (way.style, way.explode) {
    case ("deepObject", _): return deepObject(name, json)
    case ("spaceDelimited", false): return spaced(name, json)
    case ("pipeDelimited", false): return piped(name, json)
    case ("tabDelimited", false): return tabbed(name, json)
    default: return form(name, json, explode: way.explode)
    }
  }

  /// A body as `multipart/form-data` (RFC 7578): files stay files, objects become JSON parts, lists
  /// become repeated parts.
  ///
  /// - Parameter files: the files for the places in which the value has null
  static func multipart(
    _ json: JSON?, files: Files = Files(), ways: [String: FieldWay] = [:]
  ) -> Body? {
    guard let json else { return nil }
    let parts = (json.record ?? Fields()).flatMap { name, value -> [Part] in
      let type = ways[name]?.type
      if case .list(let items) = value, !(type.map(isJSON) ?? false) {
        return items.enumerated().map { place, item in
          Part(name: name, value: item, file: files["\(name).\(place)"], type: type)
        }
      }
      return [Part(name: name, value: value, file: files[name], type: type)]
    }
    return multipart(parts)
  }

  struct Part {
    let name: String
    let value: JSON
    let file: Upload?
    let type: String?
  }

  static func multipart(_ parts: [Part]) -> Body {
    // A random boundary, so that no content can end its part early.
    let boundary = "form-" + UUID().uuidString.lowercased()
    var contents: [Content] = []
    var text = ""
    for part in parts {
      text += head(of: part, boundary)
      if let file = part.file {
        contents += [.bytes(Foundation.Data(text.utf8)), file.content]
        text = ""
      }
      text += "\r\n"
    }
    text += "--\(boundary)--\r\n"
    contents.append(.bytes(Foundation.Data(text.utf8)))
    return Body(type: "multipart/form-data; boundary=\(boundary)", content: joined(contents))
  }

  /// Content in memory is sent from there.
  private static func joined(_ contents: [Content]) -> Content {
    var all = Foundation.Data()
    for content in contents {
      guard case .bytes(let bytes) = content else { return .parts(contents) }
      all.append(bytes)
    }
    return .bytes(all)
  }

  /// The text before a file, or the whole part if it is not a file.
  private static func head(of part: Part, _ boundary: String) -> String {
    var head = "--\(boundary)\r\nContent-Disposition: form-data; name=\"\(quoted(part.name))\""
    if let file = part.file {
      let type = file.type ?? part.type ?? "application/octet-stream"
      return head + "; filename=\"\(quoted(file.name ?? "blob"))\"\r\nContent-Type: \(type)\r\n\r\n"
    }
    let isData = part.value.record != nil || part.value.list != nil || part.value == .null
    let type = part.type ?? (isData ? "application/json" : "text/plain")
    if isData || type != "text/plain" { head += "\r\nContent-Type: \(type)" }
    let isWrittenAsJSON = isData || part.type.map(isJSON) ?? false
    let text = isWrittenAsJSON ? jsonText(part.value) : formLines(plainText(part.value))
    return head + "\r\n\r\n" + text
  }

  /// A name between quotation marks (HTML, section 4.10.21.8).
  private static func quoted(_ name: String) -> String {
    formLines(name).replacingOccurrences(of: "\r\n", with: "%0D%0A")
      .replacingOccurrences(of: "\"", with: "%22")
  }

  /// Line endings in the way that forms require.
  private static func formLines(_ text: String) -> String {
    var written = String.UnicodeScalarView()
    var before: Unicode.Scalar?
    for scalar in text.unicodeScalars {
      if scalar == "\r" || scalar == "\n" && before != "\r" {
        written.append(contentsOf: "\r\n".unicodeScalars)
      } else if scalar != "\n" {
        written.append(scalar)
      }
      before = scalar
    }
    return String(written)
  }

  private static func isJSON(_ type: String) -> Bool {
    let name = mediaType(type)
    return name == "application/json" || name.hasPrefix("application/") && name.hasSuffix("+json")
  }

  /// A file is kept next to the values of its form, which have null in its place.
  static func writeUpload(_ upload: Upload) -> JSON { .null }
}
