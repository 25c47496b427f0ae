import Foundation

extension Wire {
  /// The body of a webhook does not match the contract.
  public struct UnreadableWebhook: Swift.Error, CustomStringConvertible, LocalizedError {
    public let description: String
    /// JSON pointer to the first value that does not match (RFC 6901); nil if the body is not JSON.
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
      throw UnreadableWebhook(description: "the body is not JSON: \(error.message)", path: nil)
    }
    do throws(Mismatch) {
      return try read(json)
    } catch {
      let place = error.path.isEmpty ? "the body" : error.path
      throw UnreadableWebhook(
        description: "\(place) must be \(error.expected)", path: error.path)
    }
  }
}
