import Foundation

extension Wire {
  /// How a call failed. Every call has a type of its own with the failures that its contract
  /// declares.
  public protocol CallFailure: Swift.Error, Sendable, CustomStringConvertible, LocalizedError {
    /// Failures that every call can have.
    static func other(_ failure: OtherFailure) -> Self

    /// The details of the failure, whichever it is.
    var report: Report { get }
  }

  /// The details of a failure.
  public struct Report: Sendable {
    /// The name of the call: "contract.call".
    public let call: String
    /// A message in words.
    public let message: String
    /// The response of the server; nil if there was none.
    public let answer: FailedAnswer?
  }

  /// A response that is a failure.
  public struct FailedAnswer: Sendable {
    /// The status of the response.
    public let status: Int
    public let headers: Headers
    /// The body as text.
    public let text: String
  }

  /// A failure that the contract declares.
  public struct Declared<Body: Sendable>: Sendable {
    /// The declared body; nil if there is none, or if it is not JSON but should be.
    public let body: Body?
    public let report: Report

    /// The status of the response.
    public var status: Int { report.answer?.status ?? 0 }
  }

  /// Failures that every call can have.
  public struct OtherFailure: Sendable {
    public let mishap: Mishap
    public let report: Report
  }

  /// The failures of a call besides those that its contract declares.
  public enum Mishap: Sendable {
    /// A status that the contract does not declare.
    case unexpected(status: Int)
    /// A response whose body does not match the contract. `path` is a JSON pointer to the first
    /// value that does not match (RFC 6901); nil if the body is not JSON.
    case malformed(path: String?)
    /// The server could not be reached, or the request could not be sent. `cause` is the platform's
    /// error, without the address in it.
    case unreachable(cause: URLError.Code?)
    /// The time limit was reached.
    case timedOut
    /// The task was cancelled.
    case cancelled
    /// A function of the app threw an error: a credential, a layer, a header.
    case thrown(any Swift.Error)
  }

  /// A failure that every call can have, before the call is known.
  struct Trouble: Swift.Error {
    let message: String
    var mishap = Mishap.unreachable(cause: nil)
    var answer: FailedAnswer?
  }
}

extension Wire.CallFailure {
  public var description: String {
    "\(report.call): \(report.message)"
  }

  public var errorDescription: String? {
    description
  }

  /// The response of the server; nil if there was none.
  public var answer: Wire.FailedAnswer? {
    report.answer
  }

  static func other(_ call: String, _ trouble: Wire.Trouble) -> Self {
    let report = Wire.Report(call: call, message: trouble.message, answer: trouble.answer)
    return .other(Wire.OtherFailure(mishap: trouble.mishap, report: report))
  }
}
