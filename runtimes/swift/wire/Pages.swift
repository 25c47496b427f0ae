import Foundation

extension Wire {
  /// The options that all ways of paging need.
  struct Paging<Page: Sendable, Item: Sendable, Failure: CallFailure>: Sendable {
    /// "contract.call", for failures.
    let call: String
    /// The items of a page. A server may leave an empty list out.
    let items: @Sendable (Page) -> [Item]?
  }

  /// The position of the next page, as a page gives it.
  enum NextPage<Cursor: Sendable>: Sendable {
    case at(Cursor)
    case nowhere
    /// The page gives a value that is not a position, such as a string that is not a number.
    case unreadable

    /// A position as the page gives it. An empty string is none.
    init(_ said: Cursor?) {
      if let said, (said as? String)?.isEmpty != true { self = .at(said) } else { self = .nowhere }
    }

    /// A position of another type than string.
    init(converting said: (some CustomStringConvertible)?) where Cursor: LosslessStringConvertible {
      guard let text = said?.description, !text.isEmpty else {
        self = .nowhere
        return
      }
      self = Cursor(text).map(NextPage.at) ?? .unreadable
    }
  }
}

/// Items page by page. The step from the position of one page returns its items and the position of
/// the next.
private actor PageSource<Place: Sendable, Item: Sendable, Failure: Wire.CallFailure> {
  typealias Step = @Sendable (Place) async throws(Failure) -> (
    items: [Item], next: Swift.Result<Place?, Failure>
  )

  private let step: Step
  private var next: Swift.Result<Place?, Failure>
  private var ready: ArraySlice<Item> = []

  init(from first: Place, _ step: @escaping Step) {
    self.step = step
    next = .success(first)
  }

  func next() async throws(Failure) -> Item? {
    while true {
      if let item = ready.popFirst() { return item }
      let place = next
      next = .success(nil)
      guard let place = try place.get() else { return nil }
      let page = try await step(place)
      ready = page.items[...]
      next = page.next
    }
  }
}

extension Wire.Connection {
  private func items<Place, Item, Failure>(
    from first: Place,
    _ step: @escaping PageSource<Place, Item, Failure>.Step
  ) -> Wire.Items<Item, Failure> {
    Wire.Items {
      let source = PageSource(from: first, step)
      return { () async throws(Failure) in try await source.next() }
    }
  }

  /// Iterates over pages, each of which contains the cursor of the next.
  func pagesByCursor<Page, Item, Failure, Cursor: Hashable & Sendable>(
    _ paging: Wire.Paging<Page, Item, Failure>, from first: Cursor?,
    next: @escaping @Sendable (Page) -> Wire.NextPage<Cursor>,
    ask: @escaping @Sendable (Cursor?) async throws(Failure) -> Page
  ) -> Wire.Items<Item, Failure> {
    typealias Place = (cursor: Cursor?, seen: Set<Cursor>)
    return items(from: (first, [])) { (place: Place) async throws(Failure) in
      let page = try await ask(place.cursor)
      let following: Swift.Result<Place?, Failure>
      switch next(page) {
      case .nowhere: following = .success(nil)
      case .at(let cursor) where !place.seen.contains(cursor):
        following = .success((cursor, place.seen.union([cursor])))
      case .at(let cursor):
        // Following it would never end.
        let message = "a page gives a next page that was already read"
        following = .failure(self.refused(paging, message, "\(cursor)"))
      case .unreadable:
        let message = "a page gives a next page that is not a number"
        following = .failure(self.refused(paging, message, ""))
      }
      return (paging.items(page) ?? [], following)
    }
  }

  /// Iterates over pages by offset until one is empty.
  func pagesByOffset<Page, Item, Failure>(
    _ paging: Wire.Paging<Page, Item, Failure>, from first: Int64,
    _ ask: @escaping @Sendable (Int64) async throws(Failure) -> Page
  ) -> Wire.Items<Item, Failure> {
    countedPages(paging, from: first, ask) { Int64($0.count) }
  }

  /// Iterates over pages by page number until one is empty.
  func pagesByNumber<Page, Item, Failure>(
    _ paging: Wire.Paging<Page, Item, Failure>, from first: Int64,
    _ ask: @escaping @Sendable (Int64) async throws(Failure) -> Page
  ) -> Wire.Items<Item, Failure> {
    countedPages(paging, from: first, ask) { _ in 1 }
  }

  /// - Parameter step: the distance from a page with these items to the next
  private func countedPages<Page, Item, Failure>(
    _ paging: Wire.Paging<Page, Item, Failure>, from first: Int64,
    _ ask: @escaping @Sendable (Int64) async throws(Failure) -> Page,
    _ step: @escaping @Sendable ([Item]) -> Int64
  ) -> Wire.Items<Item, Failure> {
    items(from: first) { (place: Int64) async throws(Failure) in
      let items = paging.items(try await ask(place)) ?? []
      return (items, .success(items.isEmpty ? nil : place + step(items)))
    }
  }

  private func refused<Page, Item, Failure>(
    _ paging: Wire.Paging<Page, Item, Failure>, _ message: String, _ text: String
  ) -> Failure {
    let answer = Wire.FailedAnswer(status: 200, headers: [:], text: text)
    let trouble = Wire.Trouble(message: message, mishap: .malformed(path: nil), answer: answer)
    let failure = Failure.other(paging.call, trouble)
    settings.onFailure?(failure)
    return failure
  }

  /// Iterates over pages, each of which links to the next (RFC 8288). The next page is requested
  /// with the query of the link, whatever the contract says about it, and at the address of the
  /// first page. A server therefore cannot redirect credentials.
  ///
  /// - Parameters:
  ///   - credentials: names of credentials in the query; a link never sets one
  ///   - ask: performs the call with the given options
  func pagesByLink<Page, Item, Failure>(
    _ paging: Wire.Paging<Page, Item, Failure>, credentials: Set<String>,
    _ options: Wire.CallOptions,
    _ ask: @escaping @Sendable (Wire.CallOptions) async throws(Failure) -> Page
  ) -> Wire.Items<Item, Failure> {
    typealias Place = (query: String?, seen: Set<[String]>)
    return items(from: (nil, [])) { (place: Place) async throws(Failure) in
      let asked = Wire.Guarded((address: "", link: ""))
      var following = options
      following.address = { url in
        let address = place.query.map { Wire.address(url, $0, credentials) } ?? url
        asked.with { $0.address = address }
        return address
      }
      following.onAnswer = { status, headers in
        asked.with { $0.link = headers["link"] ?? "" }
        options.onAnswer?(status, headers)
      }
      let items = paging.items(try await ask(following)) ?? []
      let (address, link) = asked.with { $0 }
      guard let target = Wire.nextTarget(link) else { return (items, .success(nil)) }
      guard let query = Wire.query(of: target, from: address) else {
        let message = "the link to the next page leads to another address"
        return (items, .failure(self.refused(paging, message, target)))
      }
      let seen = place.seen.union([Wire.pairs(address).sorted()])
      if seen.contains(Wire.pairs(Wire.address(address, query, credentials)).sorted()) {
        let message = "the link to the next page leads to a page that was already read"
        return (items, .failure(self.refused(paging, message, target)))
      }
      return (items, .success((query, seen)))
    }
  }
}

extension Wire {
  /// The query of a link to the same address; nil if the link leads to another address.
  fileprivate static func query(of target: String, from address: String) -> String? {
    guard let here = platformURL(address), let there = platformURL(target, relativeTo: here),
      isSameOrigin(here, there),
      let one = URLComponents(url: here, resolvingAgainstBaseURL: true),
      let other = URLComponents(url: there, resolvingAgainstBaseURL: true),
      one.percentEncodedPath == other.percentEncodedPath
    else { return nil }
    return other.percentEncodedQuery ?? ""
  }

  /// An address with another query. It keeps its own credentials.
  fileprivate static func address(
    _ address: String, _ query: String, _ credentials: Set<String>
  ) -> String {
    let isCredential: (String) -> Bool = { credentials.contains(name(of: $0)) }
    let given = query.split(separator: "&").map(String.init).filter { !isCredential($0) }
    let all = given + pairs(address).filter(isCredential)
    let path = String(address.prefix { $0 != "?" })
    return all.isEmpty ? path : path + "?" + all.joined(separator: "&")
  }

  fileprivate static func pairs(_ address: String) -> [String] {
    guard let start = address.firstIndex(of: "?") else { return [] }
    return address[address.index(after: start)...].split(separator: "&").map(String.init)
  }

  private static func name(of pair: String) -> String {
    let written = pair.prefix { $0 != "=" }.map { $0 == "+" ? " " : $0 }
    return String(written).removingPercentEncoding ?? String(written)
  }

  /// The target with the relation "next" (RFC 8288, section 3); nil if there is none.
  fileprivate static func nextTarget(_ header: String) -> String? {
    var rest = header[...]
    while let start = rest.firstIndex(of: "<"), let end = rest[start...].firstIndex(of: ">") {
      let target = String(rest[rest.index(after: start)..<end])
      rest = rest[rest.index(after: end)...]
      let relations = relations(&rest)
      if relations.contains("next") { return target }
    }
    return nil
  }

  /// The relations among the parameters of a link. Removes them from the rest of the header.
  private static func relations(_ rest: inout Substring) -> [String] {
    var found: [String]?
    while true {
      rest = rest.drop { $0.isWhitespace }
      guard rest.first == ";" else { return found ?? [] }
      rest = rest.dropFirst().drop { $0.isWhitespace }
      let name = trimmed(rest.prefix { !"=;,".contains($0) }).lowercased()
      rest = rest.drop { !"=;,".contains($0) }
      guard rest.first == "=" else { continue }
      rest = rest.dropFirst().drop { $0.isWhitespace }
      let value = parameterValue(&rest)
      if name == "rel", found == nil {
        found = value.lowercased().split { $0.isWhitespace }.map(String.init)
      }
    }
  }

  private static func parameterValue(_ rest: inout Substring) -> String {
    guard rest.first == "\"" else {
      let value = rest.prefix { !$0.isWhitespace && !",;".contains($0) }
      rest = rest[value.endIndex...]
      return String(value)
    }
    var value = ""
    rest = rest.dropFirst()
    while let character = rest.popFirst(), character != "\"" {
      value.append(character == "\\" ? rest.popFirst() ?? character : character)
    }
    return value
  }
}
