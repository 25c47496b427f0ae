import { describe, expect, it } from "vitest";
import { contractWith } from "../support/smallContract.js";
import { TemporaryProject } from "../support/temporaryProject.js";

const contract = JSON.stringify(contractWith({ Berth: { type: "object", properties: { note: { type: "string" } } } }));

const packageText = `// swift-tools-version: 6.0
import PackageDescription
// .target(name: "Old")
let package = Package(name: "Quay", targets: [
  .executableTarget(name: "Skipper", dependencies: []),
  .testTarget(name: "SkipperTests", path: "Tests"),
])
`;

const configuration = (settings: string): string =>
  `contracts: { harbour: { from: harbour.json } }\nsdks: { app: { language: swift, covers: [harbour], into: Sources/Skipper/app${settings} } }\n`;

describe("SDKs in Swift", () => {
  it.each([
    ["a package", { "Package.swift": packageText }, "Sources/Skipper/app"],
    [
      "a package whose target says where its sources are",
      { "Package.swift": packageText.replace("dependencies: []", 'path: "Code/App"') },
      "Code/App/app",
    ],
    [
      "an Xcode project",
      { "Quay.xcodeproj/project.pbxproj": "", "Quay/QuayApp.swift": "import SwiftUI\n" },
      "Quay/app",
    ],
  ])("init finds the place in %s", async (_, files, into) => {
    const project = new TemporaryProject({ "harbour.json": contract, ...files });
    const { code, err } = await project.run(["init", "--yes", "--sdk", "app"]);
    expect([code, err]).toEqual([0, ""]);
    expect(project.read("rhema.yaml")).toContain("language: swift");
    expect(project.read("rhema.yaml")).toContain(`into: ${into} `);
  });

  it("stand in the app's target, of which nothing is public, or are a package", async () => {
    const project = new TemporaryProject({
      "harbour.json": contract,
      "rhema.yaml": configuration(""),
    });
    expect((await project.run(["generate", "--quiet"])).err).toBe("");
    const connection = "Sources/Skipper/app/Harbour/Harbour.swift";
    expect(project.read(connection)).toContain("struct HarbourConnection: Swift.Sendable");
    expect(project.read(connection)).not.toContain("public");
    expect(project.read("Sources/Skipper/app/Wire/Wire.JSON.swift")).not.toContain("public");
    project.write("rhema.yaml", configuration(", settings: { package: true, prefix: Quay }"));
    expect((await project.run(["generate", "--quiet"])).err).toBe("");
    const placed = "Sources/Skipper/app/Sources/QuayHarbour/QuayHarbour.swift";
    expect(project.read(placed)).toContain("public struct QuayHarbourConnection: Swift.Sendable");
    expect(project.read("Sources/Skipper/app/Package.swift")).toContain('.target(name: "AppSDK", path: "Sources")');
    expect(project.exists(connection)).toBe(false);
  });

  it("impact says that it cannot tell what source uses", async () => {
    const project = new TemporaryProject({
      "harbour.json": contract,
      "rhema.yaml": configuration(""),
      "Sources/Skipper/main.swift": 'let harbour = HarbourConnection(baseURL: "http://localhost")\n',
    });
    expect((await project.run(["generate", "--quiet"])).err).toBe("");
    project.write(
      "harbour.json",
      JSON.stringify(contractWith({ Berth: { type: "object", properties: { note: { type: "integer" } } } })),
    );
    const { out } = await project.run(["impact"]);
    expect(out).toContain("cannot tell");
    expect(out).not.toContain("not used");
  });
});
