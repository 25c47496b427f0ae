import Foundation

/// A value with its own dump.
protocol Dumped {
  var dumped: Wire.JSON { get }
}

/// What an app sees, as JSON: a record as its properties under "$record"; an integer as its digits
/// under "$long"; a member of a union under "$case".
func dump(of value: Any?) -> Wire.JSON {
  switch value {
  case nil: return .null
  case let json as Wire.JSON: return ["$json": json]
  case let text as String: return .text(text)
  case let number as Int32: return ["$long": .text(String(number))]
  case let number as Int64: return ["$long": .text(String(number))]
  case let truth as Bool: return .truth(truth)
  case let number as Double: return Wire.json(number)
  case let value as any Dumped: return value.dumped
  case let bytes as Foundation.Data:
    return ["$bytes": .text(String(decoding: bytes, as: UTF8.self))]
  case let raw as any RawRepresentable: return dump(of: raw.rawValue)
  case is Void: return .null
  case let value?: return reflected(Mirror(reflecting: value), value)
  }
}

private func reflected(_ mirror: Mirror, _ value: Any) -> Wire.JSON {
  switch mirror.displayStyle {
  case .optional: return mirror.children.first.map { dump(of: $0.value) } ?? .null
  case .collection: return .list(mirror.children.map { dump(of: $0.value) })
  case .dictionary:
    var fields = Wire.Fields()
    for child in mirror.children {
      let pair = Mirror(reflecting: child.value).children.map(\.value)
      if let key = pair.first as? String { fields[key] = dump(of: pair.last) }
    }
    return ["$map": .record(fields)]
  case .enum: return enumerated(mirror, value)
  default: break
  }
  var fields = Wire.Fields()
  for child in mirror.children {
    if let label = child.label { fields[label] = dump(of: child.value) }
  }
  return ["$record": .record(fields)]
}

private func enumerated(_ mirror: Mirror, _ value: Any) -> Wire.JSON {
  guard let child = mirror.children.first, let name = child.label else {
    let name = String(describing: value)
    if String(describing: type(of: value)).hasPrefix("Sent<") {
      return name.hasSuffix("null") ? .null : ["$absent": .null]
    }
    return ["$case": .text(name), "$value": .null]
  }
  let type = String(describing: type(of: value))
  if type.hasPrefix("Sent<") || type.hasPrefix("Box<") { return dump(of: child.value) }
  let parts = Mirror(reflecting: child.value)
  if name == "other" {
    let json = parts.displayStyle == .tuple ? parts.children.map(\.value).last : child.value
    return ["$case": "other", "$value": dump(of: json)]
  }
  return ["$case": .text(name), "$value": dump(of: child.value)]
}
