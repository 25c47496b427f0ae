import { expect, it } from "vitest";
import { canCompileKotlin, KotlinCompiler } from "../../support/kotlin/kotlinCompiler.js";
import { compiledInKotlin } from "./compiledInKotlin.js";
import { plannedRest } from "../plannedContracts.js";
import { webhookContract } from "../webhookContract.js";

const program = `
import app.quay.FreedWebhook
import app.quay.HeadersShape
import app.quay.Query
import app.wire.UnreadableWebhook

fun main() {
    val query: Query = FreedWebhook.read("{\\"berth\\":\\"N-07\\",\\"length\\":8}")
    println("\${FreedWebhook.method} \${query.berth} \${query.length}")
    println(FreedWebhook.reply(HeadersShape(taken = true)))
    println(listOf(FreedWebhook.Headers.xSignature, FreedWebhook.Query.since))
    for (body in listOf("{\\"berth\\":7}", "{", "[]"))
        try {
            FreedWebhook.read(body)
        } catch (error: UnreadableWebhook) {
            println("\${error.path} \${error.message}")
        }
}
`;

it("a webhook is read and replied to in Kotlin, and its names are available", async () => {
  if (!canCompileKotlin("webhooks in Kotlin")) return;
  const { complaints, classes } = await compiledInKotlin([plannedRest("quay", webhookContract)], {});
  expect(complaints).toEqual([]);
  const compiler = KotlinCompiler.shared();
  const app = await compiler.compile(new Map([["Program.kt", program]]), { libraries: [classes], isStrict: false });
  expect(app.printed).toBe("");
  const { printed } = await compiler.run("ProgramKt", [app.classes, classes]);
  expect(printed.trim().split("\n")).toEqual([
    "POST N-07 8.0",
    '{"taken":true}',
    "[X-Signature, since]",
    "/berth /berth must be a string",
    expect.stringMatching(/^null the body is not JSON: /),
    " the body must be an object",
  ]);
});
