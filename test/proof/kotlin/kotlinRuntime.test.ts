import { readFileSync } from "node:fs";
import { createServer } from "node:http";
import type { AddressInfo } from "node:net";
import { join } from "node:path";
import { expect, it } from "vitest";
import { language } from "../../../src/core/languages/kotlin/language.js";
import { printSdk } from "../../../src/core/languages/printSdk.js";
import { planRest } from "../../../src/core/sdk/planRest.js";
import { canCompileKotlin, KotlinCompiler } from "../../support/kotlin/kotlinCompiler.js";
import { kotlinRuntime } from "../../support/kotlin/kotlinRuntime.js";
import { packageRoot } from "../../support/packageRoot.js";
import { readRest } from "../../support/readRest.js";
import { TemporaryProject } from "../../support/temporaryProject.js";
import { answering, jsonRows, numberRows, runtimeDocument } from "../runtimeServer.js";

it("the Kotlin runtime passes its tests against a real server", async ({ skip }) => {
  skip(!canCompileKotlin("the runtime in Kotlin"));
  const plan = { ...planRest(readRest(runtimeDocument).contract, {}), name: "harbour" };
  const settings = { namespace: "quay" };
  const files = printSdk(
    language,
    { name: "quay", contracts: [plan] },
    { runtime: kotlinRuntime, scalars: new Map(), settings },
  );
  const program = readFileSync(join(packageRoot, "test/support/kotlin/RuntimeProgram.kt"), "utf8");
  const compiler = KotlinCompiler.shared();
  const compiled = await compiler.compile(new Map([...files, ["Program.kt", program]]), { isStrict: false });
  expect(compiled.isFine ? "" : compiled.printed).toBe("");
  const data = new TemporaryProject({ "numbers.txt": numberRows(), "texts.txt": jsonRows() });
  const server = createServer(answering());
  await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
  try {
    const url = `http://127.0.0.1:${String((server.address() as AddressInfo).port)}`;
    const given = [url, join(data.folder, "numbers.txt"), join(data.folder, "texts.txt")];
    const { printed } = await compiler.run("quay.harbour.ProgramKt", [compiled.classes], given);
    expect(printed).toBe("0 wrong\n");
  } finally {
    server.closeAllConnections();
    server.close();
  }
});
