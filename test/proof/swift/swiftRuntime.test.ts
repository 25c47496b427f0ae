import { readFileSync } from "node:fs";
import { createServer } from "node:http";
import type { AddressInfo } from "node:net";
import { join } from "node:path";
import { expect, it } from "vitest";
import { planRest } from "../../../src/core/sdk/planRest.js";
import { packageRoot } from "../../support/packageRoot.js";
import { readRest } from "../../support/readRest.js";
import { canCompileSwift, compileSwift, runSwift } from "../../support/swift/swiftCompiler.js";
import { TemporaryProject } from "../../support/temporaryProject.js";
import { answering, jsonRows, numberRows, runtimeDocument } from "../runtimeServer.js";
import { printedInSwift } from "./compiledInSwift.js";

it("the Swift runtime passes its tests against a real server", async ({ skip }) => {
  skip(!canCompileSwift("the runtime in Swift"));
  const plan = { ...planRest(readRest(runtimeDocument).contract, {}), name: "harbour" };
  const sources = [...printedInSwift([plan], {})].filter(([path]) => path.endsWith(".swift"));
  const program = readFileSync(join(packageRoot, "test/support/swift/RuntimeProgram.swift"), "utf8");
  const compiled = await compileSwift(new Map([...sources, ["main.swift", program]]));
  expect(compiled.isFine ? "" : compiled.printed).toBe("");
  const data = new TemporaryProject({ "numbers.txt": numberRows(), "texts.txt": jsonRows() });
  const server = createServer(answering());
  await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
  try {
    const url = `http://127.0.0.1:${String((server.address() as AddressInfo).port)}`;
    const { printed } = await runSwift([
      compiled.program,
      url,
      join(data.folder, "numbers.txt"),
      join(data.folder, "texts.txt"),
    ]);
    expect(printed).toBe("0 wrong\n");
  } finally {
    server.closeAllConnections();
    server.close();
  }
});
