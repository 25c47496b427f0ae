import { expect, it } from "vitest";
import { canCompileSwift, compileSwift, runSwift } from "../../support/swift/swiftCompiler.js";
import { plannedRest } from "../plannedContracts.js";
import { webhookContract } from "../webhookContract.js";
import { printedInSwift } from "./compiledInSwift.js";

const program = `
import Foundation

let query: Quay.Query = try Quay.FreedWebhook.read(Data("{\\"berth\\":\\"N-07\\",\\"length\\":8}".utf8))
print(Quay.FreedWebhook.method, query.berth, query.length ?? 0)
print(String(decoding: Quay.FreedWebhook.reply(.init(taken: true)), as: UTF8.self))
print(Quay.FreedWebhook.Headers.xSignature, Quay.FreedWebhook.Query.since)
for body in ["{\\"berth\\":7}", "{", "[]"] {
  do {
    _ = try Quay.FreedWebhook.read(Data(body.utf8))
  } catch {
    print(error.path ?? "nil", error)
  }
}
`;

it("a webhook is read and replied to in Swift, and its names are available", async () => {
  if (!canCompileSwift("webhooks in Swift")) return;
  const sources = [...printedInSwift([plannedRest("quay", webhookContract)], {})].filter(([path]) =>
    path.endsWith(".swift"),
  );
  const compiled = await compileSwift(new Map([...sources, ["main.swift", program]]));
  expect(compiled.isFine ? "" : compiled.printed).toBe("");
  const { printed } = await runSwift([compiled.program]);
  expect(printed.trim().split("\n")).toEqual([
    "POST N-07 8.0",
    '{"taken":true}',
    "X-Signature since",
    "/berth /berth must be a string",
    expect.stringMatching(/^nil the body is not JSON: /),
    " the body must be an object",
  ]);
});
