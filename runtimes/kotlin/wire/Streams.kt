package wire

import kotlinx.coroutines.coroutineScope
import kotlinx.coroutines.delay
import kotlinx.coroutines.flow.Flow
import kotlinx.coroutines.flow.FlowCollector
import kotlinx.coroutines.flow.flow
import kotlinx.coroutines.launch
import kotlinx.serialization.json.JsonElement
import kotlinx.serialization.json.JsonObject
import kotlinx.serialization.json.JsonPrimitive
import java.io.IOException
import kotlin.time.Duration

/** The usual pause of clients if the server gives none. */
private const val USUAL_RETRY_MS = 3_000L

/** The text that ends a stream of JSON events, if the app gives no other. */
private const val USUAL_END = "[DONE]"

/** Performs a call that responds item by item. A failure is thrown where the items are collected. */
internal fun <Item> Connection.receive(
    request: RestRequest,
    options: CallOptions,
    reading: Reading<Item>,
): Flow<Item> = flow {
    val receiving = Receiving(this@receive, request, options, reading)
    toldItems(this@receive, request.call, reading.other) { receiving.collectAll(it) }
}

/** Runs a part of a stream and turns errors into a failure. Errors of the collector stay as they are. */
internal suspend fun <Item> FlowCollector<Item>.toldItems(
    connection: Connection,
    call: String,
    other: OtherFailure,
    work: suspend (FlowCollector<Item>) -> Unit,
) {
    var thrown: Throwable? = null
    val guarded = FlowCollector<Item> { item ->
        try {
            emit(item)
        } catch (error: Throwable) {
            thrown = error
            throw error
        }
    }
    try {
        work(guarded)
    } catch (error: Exception) {
        val failure = if (error === thrown) null else failureOf(call, error, other)
        if (failure == null) throw error
        connection.settings.onFailure?.invoke(failure)
        throw failure
    }
}

private class Receiving<Item>(
    private val connection: Connection,
    private val request: RestRequest,
    private val options: CallOptions,
    private val reading: Reading<Item>,
) {
    private val state = StreamState()

    suspend fun collectAll(into: FlowCollector<Item>) {
        var options = options
        while (true) {
            try {
                collectOnce(options, into)
            } catch (error: Trouble) {
                if (error.mishap != Mishap.Unreachable || !canReconnect()) throw error
            }
            if (!canReconnect()) return
            delay(state.retryMs ?: USUAL_RETRY_MS)
            options = this.options.withHeader("Last-Event-ID", state.lastId)
        }
    }

    /** Whether a stream can be continued. A stream that the server has ended has no last id. */
    private fun canReconnect(): Boolean = options.reconnects && request.method == "GET" && state.lastId.isNotEmpty()

    private suspend fun collectOnce(options: CallOptions, into: FlowCollector<Item>) {
        val exchanged = withLimit(options.timeout ?: connection.settings.timeout) {
            connection.begin(request, options, isStream = true)
        }
        exchanged.response.use { response ->
            val received = Received(response, exchanged.outgoing)
            val rule = blocking(response::close) { success(received, reading, request.call) }
            // The server has ended the stream (HTML, section 9.2.2).
            if (response.code == 204) {
                state.lastId = ""
                return
            }
            val form = rule.form as? BodyForm.Items<*>
            if (form == null) into.emit(blocking(response::close) { readAnswer(exchanged, reading, request.call) })
            else collectItems(form, rule, received, into)
        }
    }

    private suspend fun collectItems(
        form: BodyForm.Items<*>,
        rule: AnswerRule<Item>,
        received: Received,
        into: FlowCollector<Item>,
    ) {
        when (form.kind) {
            ItemKind.Lines, ItemKind.Sequence -> {
                // Each text of a sequence begins with a record separator (RFC 7464).
                val cutter = PieceCutter(if (form.kind == ItemKind.Lines) '\n'.code.toByte() else 0x1e)
                val item = { text: String -> rule.answer(itemOf(form.reader, text, received)) }
                while (true) {
                    val items = next(received, cutter, item) ?: return
                    for (each in items) into.emit(each.getOrThrow())
                }
            }
            else -> collectEvents(form, rule, received, into)
        }
    }

    private suspend fun collectEvents(
        form: BodyForm.Items<*>,
        rule: AnswerRule<Item>,
        received: Received,
        into: FlowCollector<Item>,
    ) {
        val end = connection.settings.streamEnd ?: USUAL_END
        val hasEnd = form.kind == ItemKind.Events || connection.settings.streamEnd != null
        val item = { event: ServerEvent ->
            if (hasEnd && event.data == end) event to null
            else event to rule.answer(eventOf(form, event, received))
        }
        val cutter = EventCutter(state)
        while (true) {
            for (each in next(received, cutter, item) ?: return) {
                val (event, value) = each.getOrThrow()
                if (hasEnd && event.data == end) {
                    state.lastId = ""
                    return
                }
                options.onEvent?.invoke(event.event, event.id)
                @Suppress("UNCHECKED_CAST")
                into.emit(value as Item)
            }
        }
    }

    /**
     * The next item, read on a thread that may block; null at the end. An error is thrown when its item is requested.
     */
    private suspend fun <Piece : Any, T> next(
        received: Received,
        cutter: Cutter<Piece>,
        read: (Piece) -> T,
    ): List<Result<T>>? =
        waited(received, options.idle) { source -> source.nextPieces(cutter)?.map { runCatching { read(it) } } }
}

/** Reads from a stream, for as long as it may be silent. @throws Trouble if it is disconnected or silent too long */
internal suspend fun <T> waited(received: Received, idle: Duration?, read: (okio.BufferedSource) -> T?): T? {
    val source = bodyOf(received.response)?.source() ?: return null
    var isOver = false
    return coroutineScope {
        val timer = if (idle == null || idle.isInfinite()) null else launch {
            delay(idle)
            isOver = true
            received.response.close()
        }
        try {
            blocking(received.response::close) { read(source) }
        } catch (error: IOException) {
            if (error is Trouble) throw error
            if (isOver) throw Trouble("no response within ${idle?.inWholeMilliseconds} ms", Mishap.TimedOut, error)
            throw brokenOff(received.outgoing, error)
        } finally {
            timer?.cancel()
        }
    }
}

private fun eventOf(form: BodyForm.Items<*>, event: ServerEvent, received: Received): Any? =
    when (form.kind) {
        ItemKind.Events -> itemOf(form.reader, event.data, received)
        ItemKind.EventTexts -> form.reader.read(JsonPrimitive(event.data))
        else -> {
            val fields = LinkedHashMap<String, JsonElement>()
            for ((name, text) in listOf("event" to event.event, "data" to event.data, "id" to event.id)) {
                if (text != null) fields[name] = JsonPrimitive(text)
            }
            form.reader.read(JsonObject(fields))
        }
    }

private fun itemOf(reader: Reader<*>, text: String, received: Received): Any? =
    try {
        reader.read(parseJson(text))
    } catch (error: Mismatch) {
        throw unreadableItem(text, received, error, error.path)
    } catch (error: NoJson) {
        throw unreadableItem(text, received, error, null)
    }

private fun unreadableItem(text: String, received: Received, cause: Exception, path: String?): Trouble {
    val answer = FailedAnswer(received.response.code, received.response.headers, text)
    return Trouble("an item of the stream cannot be read: ${cause.message}", Mishap.Malformed(path), cause, answer)
}

/** A body of items: one for each line, record separator or event. */
internal fun itemsBody(items: List<JsonElement>?, kind: ItemKind, type: String): Body? {
    if (items == null) return null
    val (before, after) = when (kind) {
        ItemKind.Lines -> "" to "\n"
        ItemKind.Sequence -> "\u001e" to "\n"
        else -> "data: " to "\n\n"
    }
    return textBody(items.joinToString("") { before + jsonText(it) + after }, type)
}
