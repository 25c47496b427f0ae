import { pascalCase } from "../../text/words.js";

/** Returns the module name of an SDK that is a package. */
export function packageName(sdk: string): string {
  const name = pascalCase(sdk).replace(/[^A-Za-z0-9]/g, "");
  return /^[A-Za-z]/.test(name) ? `${name}SDK` : "APISDK";
}

/** Returns the `Package.swift` of an SDK. @param sdk its name in the configuration */
export function packageFile(sdk: string): string {
  const name = packageName(sdk);
  return `// swift-tools-version: 6.0
// Written by rhema generate. Do not edit: the next run replaces this file.

import PackageDescription

let package = Package(
  name: "${name}",
  platforms: [.iOS(.v15), .macOS(.v12), .tvOS(.v15), .watchOS(.v8)],
  products: [
    .library(name: "${name}", targets: ["${name}"])
  ],
  targets: [
    .target(name: "${name}", path: "Sources")
  ]
)
`;
}

/** Returns the `Package.swift` of a program that makes one call. */
export function programPackage(): string {
  return `// swift-tools-version: 6.0

import PackageDescription

let package = Package(
  name: "Call",
  platforms: [.macOS(.v12)],
  targets: [
    .executableTarget(name: "Call", path: "Sources")
  ]
)
`;
}
