import Foundation

extension Wire {
  /// Bytes to send, from memory or from a file.
  public struct Upload: Sendable, Hashable {
    /// The file name in a form.
    public let name: String?
    /// The media type, if it differs from the contract's.
    public let type: String?
    let content: Content

    /// Bytes in memory.
    public init(_ bytes: Foundation.Data, name: String? = nil, type: String? = nil) {
      self.name = name
      self.type = type
      content = .bytes(bytes)
    }

    /// A file, which is never loaded as a whole. It is read when the request is sent.
    public init(file: Foundation.URL, name: String? = nil, type: String? = nil) {
      self.name = name ?? file.lastPathComponent
      self.type = type
      content = .file(file)
    }
  }

  /// The content of a body.
  public enum Content: Sendable, Hashable {
    case bytes(Foundation.Data)
    case file(Foundation.URL)
    /// Bytes and files, one after the other.
    case parts([Content])
  }

  /// A body to send.
  struct Body: Sendable {
    /// The value of the header, which is set before the body.
    let type: String
    let content: Content
  }

  /// A JSON body; nil means no body, which is not the JSON value null.
  static func jsonBody(_ json: JSON?, type: String = "application/json") -> Body? {
    json.map { Body(type: type, content: .bytes(Foundation.Data(jsonBytes($0)))) }
  }

  static func textBody(_ text: String?, type: String) -> Body? {
    text.map { Body(type: type, content: .bytes(Foundation.Data($0.utf8))) }
  }

  static func bytesBody(_ upload: Upload?, type: String) -> Body? {
    upload.map { Body(type: $0.type ?? type, content: $0.content) }
  }
}
