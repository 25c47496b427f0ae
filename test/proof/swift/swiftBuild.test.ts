import { join } from "node:path";
import { expect, it } from "vitest";
import { demoText } from "../../support/demoText.js";
import { canCompileSwift, runSwift } from "../../support/swift/swiftCompiler.js";
import { TemporaryProject } from "../../support/temporaryProject.js";

const app = `import HarbourSDK

let harbour = BerthsConnection(
  auth: .init(harbourToken: { "any" }), baseURL: CommandLine.arguments[1])
let reserved = try await harbour.reserveBerth(
  berthID: "N-07", body: .init(arrival: "2026-07-01", departure: "2026-07-03", vesselID: "v-12"))
print(reserved.arrival, reserved.state == .requested)
`;

const packageText = `// swift-tools-version: 6.0
import PackageDescription

let package = Package(
  name: "Skipper",
  platforms: [.macOS(.v12)],
  dependencies: [.package(path: "sdk")],
  targets: [.executableTarget(name: "Skipper", dependencies: [.product(name: "HarbourSDK", package: "sdk")])]
)
`;

it("an SDK that is a package builds with an app that depends on it, and a program for one call runs", async ({
  skip,
}) => {
  skip(!canCompileSwift("packages in Swift"));
  const project = new TemporaryProject({
    "berths.yaml": demoText("contracts/v1/berths.yaml"),
    "rhema.yaml":
      "contracts: { berths: { from: berths.yaml } }\nsdks: { harbour: { language: swift, covers: [berths], into: sdk, settings: { package: true } } }\n",
    "Package.swift": packageText,
    "Sources/Skipper/main.swift": app,
  });
  expect((await project.run(["generate", "--quiet"])).err).toBe("");
  const address = `${await project.play()}/berths`;
  const ran = await runSwift(["swift", "run", "--package-path", project.folder, "Skipper", address]);
  expect(ran.printed).toMatch(/\n2026-07-01 true\n$/);

  const body = '{"arrival":"2026-07-01","departure":"2026-07-03","vesselId":"v-12"}';
  const tried = await project.run(["try", "reserveBerth", "berthId=N-07", `body=${body}`, "--code", "tries"]);
  expect(tried.out).toContain("swift run --package-path tries/reserve-berth");
  const folder = join(project.folder, "tries/reserve-berth");
  const said = await runSwift(["env", `BERTHS_URL=${address}`, "swift", "run", "--package-path", folder]);
  expect(said.printed).toContain('Reservation(arrival: "2026-07-01", berthID: "N-07"');
});
