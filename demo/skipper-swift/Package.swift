// swift-tools-version: 6.0

import PackageDescription

let package = Package(
  name: "Skipper",
  platforms: [.macOS(.v12)],
  targets: [
    .executableTarget(name: "Skipper")
  ]
)
