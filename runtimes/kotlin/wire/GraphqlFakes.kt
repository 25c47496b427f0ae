package wire

import kotlinx.serialization.json.JsonArray
import kotlinx.serialization.json.JsonElement
import kotlinx.serialization.json.JsonNull
import kotlinx.serialization.json.JsonObject
import kotlinx.serialization.json.JsonPrimitive
import okio.ByteString.Companion.encodeUtf8

/** A result without errors. */
internal fun fakeData(data: JsonElement): FakeReply =
    fakeJson(200, "application/json", JsonObject(mapOf("data" to data)))

/** Results of a subscription, in order. */
internal fun fakeResults(results: List<JsonElement>): FakeReply {
    val events = results.joinToString("") { "event: next\ndata: ${jsonText(JsonObject(mapOf("data" to it)))}\n\n" }
    return FakeReply(200, "text/event-stream", (events + "event: complete\n\n").encodeUtf8())
}

/** A result with errors and partial data. */
internal fun fakeErrors(messages: List<String>, data: JsonElement?): FakeReply {
    val errors = JsonArray(messages.map { JsonObject(mapOf("message" to JsonPrimitive(it))) })
    return fakeJson(200, "application/json", JsonObject(mapOf("errors" to errors, "data" to (data ?: JsonNull))))
}
