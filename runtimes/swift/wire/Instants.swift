import Foundation

extension Wire {
  /// A date-time (RFC 3339, section 5.6).
  static func readDate(_ json: JSON) throws(Mismatch) -> Foundation.Date {
    guard let date = instant(try readText(json)) else { throw Mismatch("an instant") }
    return date
  }

  /// A date-time in UTC, with milliseconds.
  static func writeDate(_ date: Foundation.Date) -> JSON {
    .text(instantText(date))
  }

  private static func instant(_ text: String) -> Foundation.Date? {
    var rest = text.utf8[...]
    func number(_ digits: Int) -> Int? {
      guard rest.count >= digits, rest.prefix(digits).allSatisfy({ $0 &- 48 < 10 }) else {
        return nil
      }
      defer { rest.removeFirst(digits) }
      return Int(String(rest.prefix(digits)) ?? "")
    }
    func skip(_ characters: String) -> Bool {
      guard let first = rest.first, characters.utf8.contains(first) else { return false }
      rest.removeFirst()
      return true
    }
    guard let year = number(4), skip("-"), let month = number(2), skip("-"), let day = number(2),
      skip("Tt"), let hour = number(2), skip(":"), let minute = number(2)
    else { return nil }
    var second = 0
    var fraction = 0.0
    if skip(":") {
      guard let whole = number(2) else { return nil }
      second = whole
      if skip(".") {
        let digits = rest.prefix { $0 &- 48 < 10 }
        guard !digits.isEmpty, let value = Double("0." + (String(digits) ?? "")) else { return nil }
        fraction = value
        rest = rest.dropFirst(digits.count)
      }
    }
    var offset = 0
    if !skip("Zz") {
      let isWest = rest.first == UInt8(ascii: "-")
      guard skip("+-"), let hours = number(2), skip(":"), let minutes = number(2), hours < 24,
        minutes < 60
      else { return nil }
      offset = (hours * 60 + minutes) * (isWest ? -60 : 60)
    }
    guard rest.isEmpty, isDay(year, month, day), hour < 24, minute < 60, second < 60 else {
      return nil
    }
    let seconds = ((daysSince1970(year, month, day) * 24 + hour) * 60 + minute) * 60 + second
    return Foundation.Date(timeIntervalSince1970: Double(seconds - offset) + fraction)
  }

  private static func isDay(_ year: Int, _ month: Int, _ day: Int) -> Bool {
    guard (1...12).contains(month) else { return false }
    let isLeap = year % 4 == 0 && (year % 100 != 0 || year % 400 == 0)
    let lengths = [31, isLeap ? 29 : 28, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31]
    return (1...lengths[month - 1]).contains(day)
  }

  /// Days of the Gregorian calendar. The platform's own calendar has a gap in 1582.
  private static func daysSince1970(_ year: Int, _ month: Int, _ day: Int) -> Int {
    // In years that begin in March, the leap day is the last day.
    let shifted = month > 2 ? year : year - 1
    let era = floorDiv(shifted, 400)
    let yearOfEra = shifted - era * 400
    let dayOfYear = (153 * (month + (month > 2 ? -3 : 9)) + 2) / 5 + day - 1
    let dayOfEra = yearOfEra * 365 + yearOfEra / 4 - yearOfEra / 100 + dayOfYear
    return era * 146_097 + dayOfEra - 719_468
  }

  private static func floorDiv(_ one: Int, _ other: Int) -> Int {
    one >= 0 ? one / other : -((-one + other - 1) / other)
  }

  private static func instantText(_ date: Foundation.Date) -> String {
    let all = Int((date.timeIntervalSince1970 * 1000).rounded(.down))
    let days = floorDiv(all, 86_400_000)
    var rest = all - days * 86_400_000
    func part(_ unit: Int) -> Int {
      defer { rest %= unit }
      return rest / unit
    }
    let (hour, minute, second) = (part(3_600_000), part(60_000), part(1000))
    let (year, month, day) = dayOf(days)
    let time = "\(padded(hour, 2)):\(padded(minute, 2)):\(padded(second, 2)).\(padded(rest, 3))Z"
    return "\(padded(year, 4))-\(padded(month, 2))-\(padded(day, 2))T\(time)"
  }

  private static func dayOf(_ days: Int) -> (year: Int, month: Int, day: Int) {
    let shifted = days + 719_468
    let era = floorDiv(shifted, 146_097)
    let dayOfEra = shifted - era * 146_097
    let yearOfEra =
      (dayOfEra - dayOfEra / 1460 + dayOfEra / 36_524 - dayOfEra / 146_096) / 365
    let dayOfYear = dayOfEra - (365 * yearOfEra + yearOfEra / 4 - yearOfEra / 100)
    let shiftedMonth = (5 * dayOfYear + 2) / 153
    let day = dayOfYear - (153 * shiftedMonth + 2) / 5 + 1
    let month = shiftedMonth < 10 ? shiftedMonth + 3 : shiftedMonth - 9
    return (yearOfEra + era * 400 + (month <= 2 ? 1 : 0), month, day)
  }

  private static func padded(_ number: Int, _ digits: Int) -> String {
    let text = String(number)
    return String(repeating: "0", count: max(0, digits - text.count)) + text
  }
}
