import Foundation

extension Wire {
  /// How a call failed. Every call has a type of its own, which says what its contract declares.
  public protocol CallFailure: Swift.Error, Sendable, CustomStringConvertible, LocalizedError {
    /// What can happen to any call.
    static func other(_ failure: OtherFailure) -> Self

    /// What is known of the failure, whatever it is.
    var report: Report { get }
  }

  /// What is known of a failure.
  public struct Report: Sendable {
    /// The call's name: "contract.call".
    public let call: String
    /// What happened, in words.
    public let message: String
    /// What the server answered; nil when it did not.
    public let answer: FailedAnswer?
  }

  /// An answer that is a failure.
  public struct FailedAnswer: Sendable {
    /// The status that was sent.
    public let status: Int
    public let headers: Headers
    /// The body as text.
    public let text: String
  }

  /// A failure that the contract declares.
  public struct Declared<Body: Sendable>: Sendable {
    /// What the body holds; nil where there is none, or where it is no JSON although it should be.
    public let body: Body?
    public let report: Report

    /// The status that was sent.
    public var status: Int { report.answer?.status ?? 0 }
  }

  /// What can happen to any call.
  public struct OtherFailure: Sendable {
    public let mishap: Mishap
    public let report: Report
  }

  /// What happened to a call beside what its contract declares.
  public enum Mishap: Sendable {
    /// A status that the contract does not declare.
    case unexpected(status: Int)
    /// An answer whose body cannot be read as what the contract says. `path` is a JSON pointer to
    /// the first value that is something else (RFC 6901); nil where the body is no JSON at all.
    case malformed(path: String?)
    /// The server could not be reached, or the request could not be sent. `cause` is the platform's
    /// error, without what it says of the address.
    case unreachable(cause: URLError.Code?)
    /// The time was over.
    case timedOut
    /// The task was cancelled.
    case cancelled
    /// A function of the app's own threw: a credential, a layer, a header.
    case thrown(any Swift.Error)
  }

  /// Something that can happen to any call, before it is known which call's failure it becomes.
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

  /// What the server answered; nil when it did not.
  public var answer: Wire.FailedAnswer? {
    report.answer
  }

  static func other(_ call: String, _ trouble: Wire.Trouble) -> Self {
    let report = Wire.Report(call: call, message: trouble.message, answer: trouble.answer)
    return .other(Wire.OtherFailure(mishap: trouble.mishap, report: report))
  }
}
