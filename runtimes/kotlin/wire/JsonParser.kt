package wire

import kotlinx.serialization.ExperimentalSerializationApi
import kotlinx.serialization.json.JsonArray
import kotlinx.serialization.json.JsonElement
import kotlinx.serialization.json.JsonNull
import kotlinx.serialization.json.JsonObject
import kotlinx.serialization.json.JsonPrimitive
import kotlinx.serialization.json.JsonUnquotedLiteral

/** A text that is not valid JSON; [message] gives the place. */
internal class NoJson(message: String) : Exception(message)

/**
 * Parses a JSON text (RFC 8259). Numbers keep all their digits. Of repeated keys, the last one counts.
 *
 * @throws NoJson for anything else
 */
internal fun parseJson(text: String): JsonElement = JsonParser(text).whole()

/** Strings of at most this many characters are cached, because they may come again. */
private const val SHORT = 24

/** Deeper nesting is refused before the stack of a small thread overflows. */
private const val DEEPEST = 500

private class JsonParser(private val text: String) {
    private var at = 0
    private var depth = 0
    private val names = Seen(::JsonPrimitive)
    private val values = Seen(::JsonPrimitive)
    private val numbers = Seen(::numberOf)

    fun whole(): JsonElement {
        // A byte order mark is not part of the text (RFC 8259, section 8.1).
        if (text.startsWith('\uFEFF')) at = 1
        val value = value()
        skipSpace()
        if (at < text.length) throw unexpected()
        return value
    }

    private fun value(): JsonElement {
        skipSpace()
        if (at >= text.length) throw unexpected()
        return when (text[at]) {
            '{' -> nested { record() }
            '[' -> nested { list() }
            '"' -> text(values)
            't' -> word("true", yes)
            'f' -> word("false", no)
            'n' -> word("null", JsonNull)
            else -> number()
        }
    }

    private inline fun nested(read: () -> JsonElement): JsonElement {
        if (++depth > DEEPEST) throw NoJson("it is nested more than $DEEPEST deep")
        at++
        val value = read()
        depth--
        return value
    }

    private fun record(): JsonElement {
        val fields = JsonFields()
        skipSpace()
        if (skip('}')) return JsonObject(fields.asMap())
        while (true) {
            skipSpace()
            if (at >= text.length || text[at] != '"') throw unexpected()
            val name = text(names).content
            skipSpace()
            if (!skip(':')) throw unexpected()
            fields.put(name, value())
            skipSpace()
            if (skip('}')) return JsonObject(fields.asMap())
            if (!skip(',')) throw unexpected()
        }
    }

    private fun list(): JsonElement {
        val items = ArrayList<JsonElement>()
        skipSpace()
        if (skip(']')) return JsonArray(items)
        while (true) {
            items.add(value())
            skipSpace()
            if (skip(']')) return JsonArray(items)
            if (!skip(',')) throw unexpected()
        }
    }

    private fun word(word: String, value: JsonElement): JsonElement {
        if (!text.startsWith(word, at)) throw unexpected()
        at += word.length
        return value
    }

    private fun number(): JsonElement {
        val from = at
        skip('-')
        if (!skip('0')) digits()
        if (skip('.')) digits()
        if (skip('e') || skip('E')) {
            if (!skip('+')) skip('-')
            digits()
        }
        return numbers.of(from, at, hashOf(from, at))
    }

    private fun digits() {
        val from = at
        while (at < text.length && text[at] in '0'..'9') at++
        if (at == from) throw unexpected()
    }

    /** A string. A short one is taken from the cache. Each character is read once. */
    private fun text(seen: Seen): JsonPrimitive {
        val from = ++at
        val last = minOf(text.length, from + SHORT)
        var hash = 0
        while (at < last) {
            val character = text[at]
            if (character == '"') return seen.of(from, at++, hash)
            if (character == '\\' || character < ' ') break
            hash = 31 * hash + character.code
            at++
        }
        return JsonPrimitive(string(from))
    }

    /** The rest of a string that begins at a position. */
    private fun string(from: Int): String {
        while (at < text.length) {
            val character = text[at]
            if (character == '"') return text.substring(from, at++)
            if (character == '\\') return escaped(from)
            if (character < ' ') throw unexpected()
            at++
        }
        throw unexpected()
    }

    /** The rest of a string that contains escapes. */
    private fun escaped(from: Int): String {
        val found = StringBuilder(text.length.coerceAtMost(at - from + 64)).append(text, from, at)
        while (at < text.length) {
            val character = text[at++]
            when {
                character == '"' -> return found.toString()
                character == '\\' -> found.append(escape())
                character < ' ' -> {
                    at--
                    throw unexpected()
                }
                else -> found.append(character)
            }
        }
        throw unexpected()
    }

    private fun escape(): Char {
        if (at >= text.length) throw unexpected()
        return when (text[at++]) {
            '"' -> '"'
            '\\' -> '\\'
            '/' -> '/'
            'b' -> '\b'
            'f' -> '\u000C'
            'n' -> '\n'
            'r' -> '\r'
            't' -> '\t'
            'u' -> unit()
            else -> {
                at--
                throw unexpected()
            }
        }
    }

    private fun unit(): Char {
        var unit = 0
        repeat(4) {
            val digit = if (at < text.length) Character.digit(text[at], 16) else -1
            if (digit < 0 || text[at] > 'f') throw unexpected()
            unit = unit * 16 + digit
            at++
        }
        return unit.toChar()
    }

    private fun hashOf(from: Int, end: Int): Int {
        var hash = 0
        for (place in from until end) hash = 31 * hash + text[place].code
        return hash
    }

    /**
     * The short strings so far. A response repeats its names and many of its values. A shared value needs neither
     * memory nor the time to create it.
     */
    private inner class Seen(private val make: (String) -> JsonPrimitive) {
        // A small response repeats little.
        private val places = arrayOfNulls<JsonPrimitive>(if (text.length < 10_000) 16 else 512)

        /** The value that is written from one position to another. */
        fun of(from: Int, end: Int, hash: Int): JsonPrimitive {
            val length = end - from
            if (length > SHORT) return make(text.substring(from, end))
            val place = (hash xor (hash ushr 9)) and (places.size - 1)
            val known = places[place]
            if (known != null && known.content.length == length && text.startsWith(known.content, from)) return known
            return make(text.substring(from, end)).also { places[place] = it }
        }
    }

    private fun skip(character: Char): Boolean {
        if (at >= text.length || text[at] != character) return false
        at++
        return true
    }

    private fun skipSpace() {
        while (at < text.length) {
            when (text[at]) {
                ' ', '\n', '\r', '\t' -> at++
                else -> return
            }
        }
    }

    private fun unexpected(): NoJson =
        NoJson(if (at >= text.length) "it ends too early" else "it has an unexpected character at position $at")

    private companion object {
        private val yes = JsonPrimitive(true)
        private val no = JsonPrimitive(false)

        @OptIn(ExperimentalSerializationApi::class)
        private fun numberOf(text: String): JsonPrimitive = JsonUnquotedLiteral(text)
    }
}
