import Foundation

#if canImport(FoundationNetworking)
  import FoundationNetworking
#endif

private let redirected: Set<Int> = [301, 302, 303, 307, 308]
private let mostRedirects = 20
private let harmless: Set<String> = [
  "accept", "accept-language", "content-language", "content-type", "range", "user-agent",
]

extension Wire {
  /// Whether a header never contains a secret. Any other header may be a credential.
  static func isHarmless(_ name: String) -> Bool {
    harmless.contains(name.lowercased())
  }
}

extension Wire.Connection {
  /// Sends a request and follows redirects (Fetch standard, section 4.4). Once a redirect leads to
  /// another origin, no credential is sent.
  func fetchFollowing(_ outgoing: Wire.Outgoing) async throws(Wire.Trouble) -> Wire.Response {
    guard var url = Wire.platformURL(outgoing.url) else {
      throw Wire.Trouble(message: "\(Wire.shownAddress(outgoing.url)) is not a valid address")
    }
    var method = outgoing.method
    var headers = outgoing.headers
    var body = outgoing.body
    var count = 0
    while true {
      let sent = Wire.Outgoing(
        call: outgoing.call, method: method, url: url.absoluteString, headers: headers, body: body,
        isStream: outgoing.isStream, onProgress: outgoing.onProgress, saveTo: outgoing.saveTo)
      let response = try await transport.send(try request(url, sent), sent)
      guard redirected.contains(response.status), let location = response.headers["location"]
      else { return response }
      count += 1
      if count > mostRedirects {
        throw Wire.Trouble(message: "the server redirects more than \(mostRedirects) times")
      }
      guard let to = target(location, from: url) else {
        throw Wire.Trouble(message: "the server redirects to an address that is not valid")
      }
      let becomesGet =
        response.status == 303 ? method != "HEAD" : response.status < 303 && method == "POST"
      if !Wire.isSameOrigin(url, to) { headers = headers.only(Wire.isHarmless) }
      if becomesGet {
        method = "GET"
        body = nil
        headers["content-type"] = nil
      }
      url = to
    }
  }

  /// The target of a redirect. A user in an address would be sent as a credential.
  private func target(_ location: String, from url: Foundation.URL) -> Foundation.URL? {
    guard let to = Wire.platformURL(location, relativeTo: url),
      var parts = URLComponents(url: to, resolvingAgainstBaseURL: true),
      ["http", "https"].contains(parts.scheme?.lowercased())
    else { return nil }
    parts.user = nil
    parts.password = nil
    parts.fragment = nil
    return parts.url
  }

  private func request(
    _ url: Foundation.URL, _ outgoing: Wire.Outgoing
  ) throws(Wire.Trouble) -> URLRequest {
    if outgoing.body != nil, ["GET", "HEAD"].contains(outgoing.method) {
      throw Wire.Trouble(message: "\(outgoing.method) cannot be sent with a body")
    }
    var request = URLRequest(url: url)
    request.httpMethod = outgoing.method
    // The platform's limit is on silence, which streams are allowed to keep.
    request.timeoutInterval = 1e9
    for (name, value) in outgoing.headers { request.setValue(value, forHTTPHeaderField: name) }
    return request
  }
}
