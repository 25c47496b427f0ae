import { expect, it } from "vitest";
import { canCompileSwift, compileSwift, runSwift } from "../../support/swift/swiftCompiler.js";
import { formatsContract, movedText } from "../formatsContract.js";
import { plannedRest } from "../plannedContracts.js";
import { printedInSwift } from "./compiledInSwift.js";

const app = `
struct Mooring: Hashable, Sendable {
  let quay: String
  let place: Int
}

struct NoMooring: Error {}

func decode(_ text: String) throws -> Mooring {
  let parts = text.split(separator: "-")
  guard parts.count == 2, let place = Int(parts[1]) else { throw NoMooring() }
  return Mooring(quay: String(parts[0]), place: place)
}

func text(_ mooring: Mooring) -> String { "\\(mooring.quay)-\\(mooring.place + 10)" }
`;

const program = `
import Foundation

let moved = try Quay.MovedWebhook.read(Data(#"${movedText}"#.utf8))
let at: Mooring = moved.at
print(at.quay, at.place, moved.many.map(\\.place), moved.named?["home"]?.quay ?? "nil")
print(String(decoding: Quay.MovedWebhook.reply(moved), as: UTF8.self))
do {
  _ = try Quay.MovedWebhook.read(Data(#"{"at":"N-07","many":["nowhere"]}"#.utf8))
} catch {
  print(error.path ?? "nil")
}
let connection = QuayConnection(baseURL: "http://127.0.0.1:9")
func ask() async throws -> Mooring { try await connection.getMooring(at: at, near: [at], xFrom: at) }
`;

it("formats have the app's own types in Swift, whatever names the contract has", async () => {
  if (!canCompileSwift("formats of the app's own in Swift")) return;
  const own = { type: "Mooring", decode: "decode", encode: "text" };
  const sources = [
    ...printedInSwift([plannedRest("quay", formatsContract)], {
      testing: true,
      formats: { "mooring-code": own, "mooring.code": own },
    }),
  ].filter(([path]) => path.endsWith(".swift"));
  const compiled = await compileSwift(new Map([...sources, ["App.swift", app], ["main.swift", program]]));
  expect(compiled.isFine ? "" : compiled.printed).toBe("");
  const { printed } = await runSwift([compiled.program]);
  expect(printed.trim().split("\n")).toEqual([
    "N 7 [1, 2] E",
    '{"at":"N-17","before":null,"many":["S-11","S-12"],"named":{"home":"E-13"}}',
    "/many/0",
  ]);
});
