import Foundation

extension Wire {
  /// What came as a webhook is not what the contract says.
  public struct UnreadableWebhook: Swift.Error, CustomStringConvertible, LocalizedError {
    public let description: String
    /// JSON pointer to the first value that does not fit (RFC 6901); nil where it is no JSON.
    public let path: String?

    public var errorDescription: String? { description }
  }

  static func received<Value>(
    _ body: Foundation.Data, _ read: Reader<Value>
  ) throws(UnreadableWebhook) -> Value {
    let json: JSON
    do throws(NoJSON) {
      json = try parseJSON(body)
    } catch {
      throw UnreadableWebhook(description: "the body is no JSON: \(error.message)", path: nil)
    }
    do throws(Mismatch) {
      return try read(json)
    } catch {
      let place = error.path.isEmpty ? "the body" : error.path
      throw UnreadableWebhook(
        description: "\(place) has to be \(error.expected)", path: error.path)
    }
  }
}
