package wire

import kotlinx.coroutines.channels.Channel
import kotlinx.coroutines.withTimeoutOrNull
import kotlinx.serialization.json.JsonArray
import kotlinx.serialization.json.JsonElement
import kotlinx.serialization.json.JsonObject
import kotlinx.serialization.json.JsonPrimitive
import okhttp3.Headers
import okhttp3.Request
import okhttp3.Response
import okhttp3.WebSocket
import okhttp3.WebSocketListener
import kotlin.time.Duration
import kotlin.time.Duration.Companion.seconds

/**
 * Subscriptions over WebSocket by the protocol `graphql-transport-ws`, each on a socket of its own.
 *
 * @param accept the time until the server must accept a socket
 * @param opening returns the payload that is sent once when a socket opens, before any subscription. It usually
 *   contains credentials. Default: `{ authorization }` with the connection's header of that name, or nothing if there
 *   is none
 * @param reconnecting how a subscription reconnects after it was disconnected
 * @param url the address for subscriptions. Default: the connection's address with ws: in place of http:
 */
public fun overWebSocket(
    accept: Duration = 10.seconds,
    opening: (suspend () -> JsonElement?)? = null,
    reconnecting: Reconnecting = Reconnecting(),
    url: (suspend () -> String)? = null,
): Subscriptions =
    Subscriptions({ subscribed, begun, give -> Conversation(subscribed, accept, begun).hold(opening, url, give) }, reconnecting)

/** Close codes after which another attempt is useless (4400 to 4499, except too many requests). */
private fun isFinal(code: Int): Boolean = code in 4400..4499 && code != 4408 && code != 4429

private const val NORMAL = 1000
private const val SWITCHING = 101

/** The events of a socket. */
private sealed interface Heard {
    object Open : Heard

    class Text(val text: String) : Heard

    class Closed(val code: Int, val reason: String) : Heard

    class Broken(val cause: Throwable) : Heard
}

private class Conversation(
    private val subscribed: Subscribed,
    private val accept: Duration,
    private val begun: () -> Unit,
) {
    private val heard = Channel<Heard>(Channel.UNLIMITED)
    private var shown = ""
    private var isAccepted = false
    private var isComplete = false

    private val listener = object : WebSocketListener() {
        override fun onOpen(webSocket: WebSocket, response: Response) {
            heard.trySend(Heard.Open)
        }

        override fun onMessage(webSocket: WebSocket, text: String) {
            heard.trySend(Heard.Text(text))
        }

        override fun onClosing(webSocket: WebSocket, code: Int, reason: String) {
            webSocket.close(code.takeIf { it in NORMAL..4999 && it != 1005 && it != 1006 } ?: NORMAL, null)
            heard.trySend(Heard.Closed(code, reason))
        }

        override fun onFailure(webSocket: WebSocket, t: Throwable, response: Response?) {
            heard.trySend(Heard.Broken(t))
        }
    }

    suspend fun hold(
        opening: (suspend () -> JsonElement?)?,
        url: (suspend () -> String)?,
        give: suspend (GraphqlResult) -> Unit,
    ) {
        val connection = subscribed.connection
        val address = url?.invoke() ?: connection.address()
        shown = shownAddress(address.replace(Regex("^http"), "ws"))
        val initial = if (opening == null) authorization() else opening()
        val socket = connection.client.newWebSocket(requestOf(address), listener)
        try {
            accepted(socket, initial)
            isAccepted = true
            begun()
            val payload = connection.payloadOf(subscribed.operation, subscribed.variables.fields)
            socket.tell("subscribe", payload, hasId = true)
            while (true) {
                val message = next(subscribed.options.idle, "no result within")
                when (message.type) {
                    "next" -> give(resultOf(message.payload) ?: throw foreign(message.text))
                    "complete" -> {
                        isComplete = true
                        return
                    }
                    // The end of the whole subscription.
                    "error" -> {
                        val said = message.payload as? JsonArray ?: JsonArray(emptyList())
                        throw errorsOf(subscribed.operation, errorsIn(said), null)
                    }
                    "ping" -> socket.tell("pong", null)
                    "pong" -> Unit
                    else -> throw foreign(message.text)
                }
            }
        } finally {
            if (!isAccepted) socket.cancel()
            if (!isComplete) socket.tell("complete", null, hasId = true)
            socket.close(NORMAL, null)
        }
    }

    private fun requestOf(address: String): Request =
        try {
            // The client opens a socket at an HTTP address.
            val http = address.replace(Regex("^ws", RegexOption.IGNORE_CASE), "http")
            Request.Builder().url(http).header("Sec-WebSocket-Protocol", "graphql-transport-ws").build()
        } catch (_: IllegalArgumentException) {
            throw Trouble("no socket can be opened at $shown")
        }

    private suspend fun accepted(socket: WebSocket, initial: JsonElement?) {
        val done = withTimeoutOrNull(accept) {
            while (true) {
                val message = next(null, "") { socket.tell("connection_init", initial) }
                when (message.type) {
                    "connection_ack" -> break
                    "ping" -> socket.tell("pong", null)
                    "pong" -> Unit
                    else -> throw foreign(message.text)
                }
            }
            true
        }
        if (done == null) {
            throw Trouble("the server at $shown did not accept the socket within ${accept.inWholeMilliseconds} ms")
        }
    }

    private class Message(val type: String?, val payload: JsonElement?, val text: String)

    /** The next message. An error that ends the socket is thrown. */
    private suspend fun next(idle: Duration?, silence: String, onOpen: () -> Unit = {}): Message {
        while (true) {
            val found = if (idle == null || idle.isInfinite()) heard.receive() else withSilence(idle, silence)
            when (found) {
                is Heard.Open -> onOpen()
                is Heard.Text -> {
                    val fields = parsed(found.text) as? JsonObject
                    val type = (fields?.get("type") as? JsonPrimitive)?.takeIf { it.isString }?.content
                    return Message(type, fields?.get("payload"), found.text)
                }
                is Heard.Broken -> throw Trouble("the socket at $shown was disconnected: ${found.cause.message}", cause = found.cause)
                is Heard.Closed -> throw closed(found)
            }
        }
    }

    private suspend fun withSilence(idle: Duration, silence: String): Heard =
        withTimeoutOrNull(idle) { heard.receive() }
            ?: throw Trouble("$silence ${idle.inWholeMilliseconds} ms", Mishap.TimedOut)

    private fun closed(heard: Heard.Closed): Trouble {
        val reason = if (heard.reason.isEmpty()) "" else ": ${heard.reason}"
        val words = "the server closed the socket at $shown (${heard.code}$reason)"
        if (!isFinal(heard.code)) return Trouble(words)
        val answer = FailedAnswer(heard.code, Headers.Builder().build(), heard.reason)
        return Trouble(words, Mishap.Unexpected(heard.code), answer = answer)
    }

    private fun foreign(text: String): Trouble {
        val answer = FailedAnswer(SWITCHING, Headers.Builder().build(), text)
        return Trouble("a message does not follow the protocol", Mishap.Malformed(null), answer = answer)
    }

    private fun WebSocket.tell(type: String, payload: JsonElement?, hasId: Boolean = false) {
        val fields = LinkedHashMap<String, JsonElement>()
        if (hasId) fields["id"] = JsonPrimitive("1")
        fields["type"] = JsonPrimitive(type)
        if (payload != null) fields["payload"] = payload
        // A socket that is no longer open accepts no message, and needs none.
        send(jsonText(JsonObject(fields)))
    }

    /** The authorization that the connection sends with requests. */
    private suspend fun authorization(): JsonElement? {
        val connection = subscribed.connection
        val headers = connection.startHeaders(subscribed.options)
        connection.authorize(graphqlAuth, Credentials(headers, mutableListOf()))
        return headers["authorization"]?.let { JsonObject(mapOf("authorization" to JsonPrimitive(it))) }
    }
}
