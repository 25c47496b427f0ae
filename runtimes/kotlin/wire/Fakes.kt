package wire

import kotlinx.serialization.json.JsonElement
import kotlinx.serialization.json.JsonObject
import kotlinx.serialization.json.JsonPrimitive
import okhttp3.Headers
import okhttp3.MediaType.Companion.toMediaType
import okhttp3.Protocol
import okhttp3.Request
import okhttp3.Response
import okhttp3.ResponseBody.Companion.toResponseBody
import okio.Buffer
import okio.ByteString
import okio.ByteString.Companion.encodeUtf8

/** One request to a fake connection. */
public class FakeRequest internal constructor(
    /** The name of the call, without the name of the contract. */
    public val call: String,
    public val method: String,
    public val url: String,
    public val headers: Headers,
    /** The body as it was sent; null if there was none. */
    public val body: ByteString?,
) {
    override fun toString(): String = "$method $call"
}

/** A connection without a server, with a record of its requests. */
public class FakeConnection<out Own : Connection> internal constructor(
    public val connection: Own,
    private val server: FakeServer,
) {
    /** All requests so far, in order. */
    public val requests: List<FakeRequest>
        get() = server.asked()
}

/** Makes a fake call fail as if there were no network. */
public fun unreachable(): Nothing = throw FakeFailure(null)

/** The replies of a fake connection. */
internal class FakeReply(val status: Int, val type: String, val body: ByteString)

/** Thrown in place of a response. A call without a reply fails as if there were no network. */
internal class FakeFailure(val reply: FakeReply?) : Exception()

/** The reply to one call. */
internal fun interface FakeCall {
    suspend fun reply(request: FakeRequest): FakeReply
}

/** Responds in place of a server and records all requests. */
internal class FakeServer(private val calls: Map<String, FakeCall?>) : Layer {
    private val requests = mutableListOf<FakeRequest>()

    fun asked(): List<FakeRequest> = synchronized(requests) { requests.toList() }

    override suspend fun around(request: Outgoing, next: suspend (Outgoing) -> Response): Response {
        val name = request.call.substringAfter('.')
        val body = request.body?.let { Buffer().also(it::writeTo).readByteString() }
        val asked = FakeRequest(name, request.method, request.url, request.headers, body)
        synchronized(requests) { requests.add(asked) }
        val call = calls[name] ?: throw Trouble("the fake connection has no response for `$name`", Mishap.Unreachable)
        val reply = try {
            call.reply(asked)
        } catch (failure: FakeFailure) {
            failure.reply ?: throw Trouble("the fake connection has no network", Mishap.Unreachable)
        }
        return Response.Builder()
            .request(Request.Builder().url(request.url).build())
            .protocol(Protocol.HTTP_1_1)
            .code(reply.status)
            .message("")
            .header("content-type", reply.type)
            .body(reply.body.toResponseBody(reply.type.toMediaType()))
            .build()
    }
}

/** The same options with a layer inside all others. */
internal fun ConnectionSettings.answeredBy(layer: Layer): ConnectionSettings =
    ConnectionSettings(around + layer, null, client, headers, onFailure, streamEnd, timeout)

internal fun fakeNothing(status: Int): FakeReply = FakeReply(status, "application/json", ByteString.EMPTY)

internal fun fakeJson(status: Int, type: String, value: JsonElement): FakeReply =
    FakeReply(status, type, jsonText(value).encodeUtf8())

internal fun fakeText(status: Int, type: String, value: JsonElement): FakeReply =
    FakeReply(status, type, text(value).encodeUtf8())

internal fun fakeBytes(status: Int, type: String, value: ByteString): FakeReply = FakeReply(status, type, value)

internal fun fakeItems(status: Int, type: String, kind: String, items: List<JsonElement>): FakeReply {
    val text = items.joinToString("") {
        when (kind) {
            "lines" -> jsonText(it) + "\n"
            "sequence" -> "\u001e" + jsonText(it) + "\n"
            "eventTexts" -> dataLines(text(it)) + "\n"
            "eventRecords" -> (it as JsonObject).entries.joinToString("") { (name, value) -> eventLine(name, value) } + "\n"
            else -> "data: " + jsonText(it) + "\n\n"
        }
    }
    return FakeReply(status, type, text.encodeUtf8())
}

private fun eventLine(name: String, value: JsonElement): String =
    if (name == "data") dataLines(text(value)) else "$name: ${text(value)}\n"

private fun dataLines(text: String): String = text.split('\n').joinToString("") { "data: $it\n" }
