import { expect, it } from "vitest";
import { canCompileKotlin, KotlinCompiler } from "../../support/kotlin/kotlinCompiler.js";
import { demoSdk } from "./demoSdk.js";

it("the samples of the docs pages and of the README compile", async () => {
  if (!canCompileKotlin("samples of documentation in Kotlin")) return;
  const files = demoSdk({ dates: "decoded", namespace: "app" });
  const samples = [...files].flatMap(([path, text]) => {
    const [contract = ""] = path.split("/");
    if (!path.endsWith(".md") || path === "README.md") return [];
    return [...text.matchAll(/```kotlin\n([^]*?)\n```/g)].map(([, code = ""]) => ({ contract, code }));
  });
  expect(samples.length).toBeGreaterThan(20);
  for (const contract of ["berths", "passages"]) {
    const own = samples.filter((each) => each.contract === contract);
    const type = `${contract.charAt(0).toUpperCase()}${contract.slice(1)}Connection`;
    const functions = own.map(
      ({ code }, at) => `suspend fun sample${String(at)}(connection: ${type}) {\n    ${code}\n}\n`,
    );
    files.set(
      `samples/${contract}.kt`,
      `package samples.${contract}\n\nimport app.${contract}.*\nimport app.wire.*\nimport java.time.Instant\nimport kotlinx.serialization.json.*\nimport okio.ByteString.Companion.encodeUtf8\n\n${functions.join("\n")}`,
    );
  }
  const readme = files.get("README.md") ?? "";
  const connecting = [...readme.matchAll(/```kotlin\n(import [^]*?)\n```/g)].map(([, code = ""]) => code);
  expect(connecting).toHaveLength(2);
  connecting.forEach((code, at) => {
    files.set(
      `samples/connect${String(at)}.kt`,
      `package connect${String(at)}\n\n${code}\n\nobject session { fun token(): String = "" }\n`,
    );
  });
  const { isFine, printed } = await KotlinCompiler.shared().compile(files, { isStrict: false });
  expect(isFine ? "" : printed).toBe("");
});
