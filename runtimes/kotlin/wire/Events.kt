package wire

import okio.Buffer
import okio.BufferedSource

/** One event of a `text/event-stream`. */
internal class ServerEvent(val event: String, val data: String, val id: String?)

/** The state of a stream of events. */
internal class StreamState {
    /** The id of the last event that had one; "" before that. */
    var lastId: String = ""

    /** Milliseconds that the server requires between reconnections. */
    var retryMs: Long? = null
}

/** Receives the bytes of a stream as they arrive and returns complete items. */
internal interface Cutter<out Piece : Any> {
    /** The items that are complete with these bytes. */
    fun taken(bytes: Buffer): List<Piece>

    /** The rest when the stream ends. */
    fun ended(): List<Piece>
}

private const val LINE_FEED = '\n'.code.toByte()
private const val RETURN = '\r'.code.toByte()

/**
 * The events of a `text/event-stream`, parsed by the standard (HTML, section 9.2.6). An event without a blank line
 * after it is dropped when the stream ends.
 *
 * @param withEmpty also returns events that have a name and no data, which the standard drops
 */
internal class EventCutter(private val state: StreamState, private val withEmpty: Boolean = false) : Cutter<ServerEvent> {
    private val line = Buffer()
    private var isFirstLine = true
    private var isAfterReturn = false
    private var event = ""
    private var id: String? = null
    private val data = ArrayList<String>()

    override fun taken(bytes: Buffer): List<ServerEvent> {
        val found = ArrayList<ServerEvent>()
        while (!bytes.exhausted()) {
            // The second half of a line ending whose first half already ended the line.
            if (isAfterReturn && bytes[0] == LINE_FEED) bytes.skip(1)
            isAfterReturn = false
            val end = lineEnd(bytes)
            if (end < 0) {
                line.write(bytes, bytes.size)
                break
            }
            line.write(bytes, end)
            isAfterReturn = bytes.readByte() == RETURN
            ended(line.readUtf8(), found)
        }
        return found
    }

    override fun ended(): List<ServerEvent> = emptyList()

    private fun lineEnd(bytes: Buffer): Long {
        val feed = bytes.indexOf(LINE_FEED)
        val returned = if (feed < 0) bytes.indexOf(RETURN) else bytes.indexOf(RETURN, 0, feed)
        return if (returned >= 0) returned else feed
    }

    private fun ended(text: String, found: MutableList<ServerEvent>) {
        val line = if (isFirstLine) text.removePrefix("\uFEFF") else text
        isFirstLine = false
        if (line.isEmpty()) {
            if (data.isNotEmpty() || (withEmpty && event.isNotEmpty())) {
                found.add(ServerEvent(event.ifEmpty { "message" }, data.joinToString("\n"), id))
            }
            event = ""
            id = null
            data.clear()
            return
        }
        val value = line.substringAfter(':', "").removePrefix(" ")
        when (line.substringBefore(':')) {
            "data" -> data.add(value)
            "event" -> event = value
            "id" -> if ('\u0000' !in value) {
                id = value
                state.lastId = value
            }
            "retry" -> if (value.isNotEmpty() && value.all { it in '0'..'9' }) state.retryMs = value.toLongOrNull()
        }
    }
}

/**
 * The pieces between separators. The text after the last separator is a piece too. Pieces of white space are left out.
 */
internal class PieceCutter(private val separator: Byte) : Cutter<String> {
    private val pending = Buffer()

    override fun taken(bytes: Buffer): List<String> {
        val found = ArrayList<String>()
        while (true) {
            val end = bytes.indexOf(separator)
            if (end < 0) break
            pending.write(bytes, end)
            bytes.skip(1)
            add(found)
        }
        pending.write(bytes, bytes.size)
        return found
    }

    override fun ended(): List<String> = ArrayList<String>().also(::add)

    private fun add(found: MutableList<String>) {
        val piece = pending.readUtf8()
        if (piece.isNotBlank()) found.add(piece)
    }
}

/** The largest number of bytes that is read at once. */
private const val CHUNK = 8_192L

/** The next pieces of a stream; null at its end. Blocks until there is one. */
internal fun <Piece : Any> BufferedSource.nextPieces(cutter: Cutter<Piece>): List<Piece>? {
    val bytes = Buffer()
    while (true) {
        if (read(bytes, CHUNK) < 0) return cutter.ended().ifEmpty { null }
        val found = cutter.taken(bytes)
        if (found.isNotEmpty()) return found
    }
}
