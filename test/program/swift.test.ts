import { describe, expect, it } from "vitest";
import { demoText } from "../support/demoText.js";
import type { ToldImpact } from "../support/toldImpact.js";
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
  ])("init finds the folder in %s", async (_, files, into) => {
    const project = new TemporaryProject({ "harbour.json": contract, ...files });
    const { code, err } = await project.run(["init", "--yes", "--sdk", "app"]);
    expect([code, err]).toEqual([0, ""]);
    expect(project.read("rhema.yaml")).toContain("language: swift");
    expect(project.read("rhema.yaml")).toContain(`into: ${into} `);
  });

  it("are internal in the app's target, or a package", async () => {
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

  it("impact shows what a changed contract breaks in the app's source", async () => {
    const project = new TemporaryProject({
      "berths.yaml": demoText("contracts/v1/berths.yaml"),
      "rhema.yaml":
        "contracts: { berths: { from: berths.yaml } }\nsdks: { app: { language: swift, covers: [berths], into: Sources/App/Sdk, settings: { prefix: Harbour } } }\n",
      "Package.swift": "// let berth = Berths.Berth.note",
      "Sources/App/Board.swift": `import Foundation

func show(_ harbour: HarbourBerthsConnection) async throws {
  let berths = try await harbour.listBerths(minLength: 12, status: [.free]).items
  for berth in berths { print("\\(berth.id) \\(berth.note ?? "") \\(berth.createdAt)") }
}
func kind(_ vessel: HarbourBerths.Vessel) -> String {
  switch vessel {
  case .motor(let motor): motor.name
  case .sail, .rowing: "quiet"
  case .other: "new"
  }
}
func money(_ money: HarbourBerths.Money) -> String { "\\(money.amount) \\(money.currency)" }
`,
    });
    expect((await project.run(["generate", "--quiet"])).err).toBe("");
    project.write("berths.yaml", demoText("contracts/v2/berths.yaml"));
    const { out } = await project.run(["impact", "--json"]);
    const changes = (JSON.parse(out) as ToldImpact).contracts.flatMap((each) => each.changes);
    const told = changes
      .filter(({ use, verdict }) => use === "used" && verdict.code === "breaking")
      .map(({ code, hits }) => `${code} ${hits.map(({ line }) => String(line)).join(" ")}`);
    expect(told.sort()).toEqual(["answer.field.gone 5", "answer.member.new 8", "ask.parameter.gone 4"]);
    expect(changes.some(({ use }) => use === "cannot tell")).toBe(false);
  });

  it("impact shows what a changed schema breaks in source that uses the responses", async () => {
    const schema = `
      type Query { craft: Craft! state: State! find(by: By!): Dinghy }
      interface Craft { name: String! owner: String }
      type Dinghy implements Craft { name: String! owner: String sail: Int! class: String! }
      type Cruiser implements Craft { name: String! owner: String cabins: Int! }
      enum State { OPEN SHUT }
      input By @oneOf { name: String hullNumber: Int }`;
    const project = new TemporaryProject({
      "fleet.graphql": schema,
      "queries/all.graphql":
        "query One { craft { name owner ... on Dinghy { sail } ... on Cruiser { cabins } } } query Two { craft { name owner ... on Dinghy { sail } } } query Three { state } query Four($by: By!) { find(by: $by) { name ...Hull } } fragment Hull on Dinghy { class }",
      "rhema.yaml": `contracts: { fleet: { from: fleet.graphql, queries: [queries/*.graphql] } }
sdks: { fleet: { language: swift, covers: [fleet], into: Sources/App/Sdk } }
`,
      "Sources/App/App.swift": `func whole(_ fleet: FleetConnection) async throws -> Int32 {
  switch try await fleet.one().craft {
  case .dinghy(let dinghy): dinghy.sail
  case .cruiser(let cruiser): cruiser.cabins
  case .newer: 0
  }
}
func some(_ fleet: FleetConnection) async throws -> String {
  guard case .dinghy(let craft) = try await fleet.two().craft else { return "" }
  guard let owner = craft.owner else { return craft.name.uppercased() }
  return "\\(owner) \\(craft.name)"
}
func isOpen(_ fleet: FleetConnection) async throws -> Bool { try await fleet.three().state == .open }
func found(_ fleet: FleetConnection) async throws -> Fleet.HullPart? {
  try await fleet.four(by: .hullNumber(7)).find?.asHullPart
}
func lower(_ hull: Fleet.HullPart) -> String { hull.class.lowercased() }
`,
    });
    expect((await project.run(["generate", "--quiet"])).err).toBe("");
    const told = async (changed: string): Promise<string[]> => {
      project.write("fleet.graphql", changed);
      const { out } = await project.run(["impact", "--json"]);
      return (JSON.parse(out) as ToldImpact).contracts
        .flatMap(({ changes }) => changes)
        .filter(({ use }) => use === "used")
        .map(({ code, verdict, hits }) => {
          const lines = hits.filter(({ file }) => file === "Sources/App/App.swift").map(({ line }) => String(line));
          return [code, verdict.code, ...lines].join(" ");
        });
    };
    const tender = `${schema} type Tender implements Craft { name: String! owner: String }`;
    expect(await told(tender)).toEqual(["type.interface.gained breaking 2"]);
    expect(await told(schema.replaceAll("name: String!", "name: String"))).toEqual(
      expect.arrayContaining(["answer.null.gained breaking 10 11"]),
    );
    expect(await told(schema.replaceAll("owner: String ", "owner: String! "))).toEqual(
      expect.arrayContaining(["answer.null.lost breaking 10"]),
    );
    expect(await told(schema.replace("class: String!", "class: String"))).toEqual(["answer.null.gained breaking 17"]);
    expect(await told(schema.replace("OPEN SHUT", "OPEN SHUT BUSY"))).toEqual(["answer.choice.new compatible"]);
    expect(await told(schema.replace(" @oneOf", ""))).toEqual(["ask.one-of.gone breaking 15"]);
    expect(await told(schema.replace("hullNumber: Int }", "hullNumber: Int code: Int }"))).toEqual([]);
    expect(await told(schema.replace("name: String hull", "label: String hull"))).toEqual([
      "ask.field.gone compatible",
    ]);
    expect(await told(schema.replace(" hullNumber: Int }", " }"))).toEqual(["ask.field.gone breaking 15"]);
  });

  it("impact cannot tell if nothing is known of a value", async () => {
    const project = new TemporaryProject({
      "harbour.json": contract,
      "rhema.yaml": configuration(""),
      "Sources/Skipper/main.swift": "import Elsewhere\nprint(held().note)\n",
    });
    expect((await project.run(["generate", "--quiet"])).err).toBe("");
    project.write("harbour.json", contract.replace('"note"', '"remark"'));
    const { out } = await project.run(["impact", "--json"]);
    const [change] = (JSON.parse(out) as ToldImpact).contracts.flatMap(({ changes }) => changes);
    expect(change).toMatchObject({ use: "cannot tell" });
  });
});
