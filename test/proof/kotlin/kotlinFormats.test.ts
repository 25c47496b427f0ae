import { expect, it } from "vitest";
import { language } from "../../../src/core/languages/kotlin/language.js";
import { printSdk } from "../../../src/core/languages/printSdk.js";
import { canCompileKotlin, KotlinCompiler } from "../../support/kotlin/kotlinCompiler.js";
import { kotlinRuntime } from "../../support/kotlin/kotlinRuntime.js";
import { formatsContract, movedText } from "../formatsContract.js";
import { plannedRest } from "../plannedContracts.js";

const own = `
package harbour.own

public data class Mooring(val quay: String, val place: Int)

public fun mooring(text: String): Mooring {
    val (quay, place) = text.split("-")
    return Mooring(quay, place.toInt())
}

public fun text(mooring: Mooring): String = "\${mooring.quay}-\${mooring.place + 10}"
`;

const program = `
import app.quay.MovedWebhook
import app.quay.QuayConnection
import app.quay.getMooring
import app.wire.UnreadableWebhook
import harbour.own.Mooring

fun main() {
    val moved = MovedWebhook.read("""${movedText}""")
    val at: Mooring = moved.at
    println("\${at.quay} \${at.place} \${moved.many.map { it.place }} \${moved.named?.get("home")?.quay}")
    println(MovedWebhook.reply(moved))
    try {
        MovedWebhook.read("""{"at":"N-07","many":["nowhere"]}""")
    } catch (error: UnreadableWebhook) {
        println(error.path)
    }
}

suspend fun ask(api: QuayConnection, at: Mooring): Mooring = api.getMooring(at = at, near = listOf(at), xFrom = at)
`;

it("formats have the app's own types in Kotlin, whatever names the contract has", async () => {
  if (!canCompileKotlin("formats of the app's own in Kotlin")) return;
  const format = { type: "harbour.own.Mooring", decode: "harbour.own.mooring", encode: "harbour.own.text" };
  const files = printSdk(
    language,
    { name: "app", contracts: [plannedRest("quay", formatsContract)] },
    {
      runtime: kotlinRuntime,
      scalars: new Map(),
      settings: { testing: true, formats: { "mooring-code": format, "mooring.code": format } },
    },
  );
  const compiler = KotlinCompiler.shared();
  const sdk = await compiler.compile(new Map([...files, ["Own.kt", own]]));
  expect(sdk.isFine ? "" : sdk.printed).toBe("");
  const app = await compiler.compile(new Map([["Program.kt", program]]), { libraries: [sdk.classes], isStrict: false });
  expect(app.printed).toBe("");
  const { printed } = await compiler.run("ProgramKt", [app.classes, sdk.classes]);
  expect(printed.trim().split("\n")).toEqual([
    "N 7 [1, 2] E",
    '{"at":"N-17","before":null,"many":["S-11","S-12"],"named":{"home":"E-13"}}',
    "/many/0",
  ]);
});
