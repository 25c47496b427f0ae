package wire

import kotlinx.serialization.ExperimentalSerializationApi
import kotlinx.serialization.json.JsonArray
import kotlinx.serialization.json.JsonElement
import kotlinx.serialization.json.JsonNull
import kotlinx.serialization.json.JsonObject
import kotlinx.serialization.json.JsonPrimitive
import kotlinx.serialization.json.JsonUnquotedLiteral
import java.math.BigDecimal
import java.math.MathContext
import java.math.RoundingMode

/** A text that is no JSON; [message] says where. */
internal class NoJson(message: String) : Exception(message)

/**
 * Parses a JSON text (RFC 8259). Numbers keep all their digits; of a key that comes twice the last one counts.
 *
 * @throws NoJson for anything else
 */
internal fun parseJson(text: String): JsonElement = JsonParser(text).whole()

/** Nesting that is deeper is refused, before the stack of a small thread overflows. */
private const val DEEPEST = 500

private class JsonParser(private val text: String) {
    private var at = 0
    private var depth = 0

    fun whole(): JsonElement {
        // A byte order mark is no part of the text (RFC 8259, section 8.1).
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
            '"' -> JsonPrimitive(string())
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
        val fields = LinkedHashMap<String, JsonElement>()
        skipSpace()
        if (skip('}')) return JsonObject(fields)
        while (true) {
            skipSpace()
            if (at >= text.length || text[at] != '"') throw unexpected()
            val name = string()
            skipSpace()
            if (!skip(':')) throw unexpected()
            fields[name] = value()
            skipSpace()
            if (skip('}')) return JsonObject(fields)
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

    @OptIn(ExperimentalSerializationApi::class)
    private fun number(): JsonElement {
        val from = at
        skip('-')
        if (!skip('0')) digits()
        if (skip('.')) digits()
        if (skip('e') || skip('E')) {
            if (!skip('+')) skip('-')
            digits()
        }
        return JsonUnquotedLiteral(text.substring(from, at))
    }

    private fun digits() {
        val from = at
        while (at < text.length && text[at] in '0'..'9') at++
        if (at == from) throw unexpected()
    }

    private fun string(): String {
        val from = ++at
        while (at < text.length) {
            val character = text[at]
            if (character == '"') return text.substring(from, at++)
            if (character == '\\') return escaped(from)
            if (character < ' ') throw unexpected()
            at++
        }
        throw unexpected()
    }

    /** The rest of a string in which something is escaped. */
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
    }
}

/** A value as JSON: in its own order, without spaces, numbers as ECMAScript writes them. */
internal fun jsonText(value: JsonElement): String = StringBuilder().also { write(value, it) }.toString()

private fun write(value: JsonElement, into: StringBuilder) {
    when (value) {
        is JsonObject -> {
            into.append('{')
            var isFirst = true
            for ((name, each) in value) {
                if (!isFirst) into.append(',')
                isFirst = false
                writeText(name, into)
                into.append(':')
                write(each, into)
            }
            into.append('}')
        }
        is JsonArray -> {
            into.append('[')
            for (at in value.indices) {
                if (at > 0) into.append(',')
                write(value[at], into)
            }
            into.append(']')
        }
        is JsonNull -> into.append("null")
        is JsonPrimitive -> if (value.isString) writeText(value.content, into) else into.append(plainText(value))
    }
}

private const val HEX = "0123456789abcdef"

private fun writeText(text: String, into: StringBuilder) {
    into.append('"')
    for (at in text.indices) {
        val character = text[at]
        when {
            character == '"' -> into.append("\\\"")
            character == '\\' -> into.append("\\\\")
            character == '\n' -> into.append("\\n")
            character == '\r' -> into.append("\\r")
            character == '\t' -> into.append("\\t")
            character == '\b' -> into.append("\\b")
            character == '\u000C' -> into.append("\\f")
            character < ' ' || isHalf(text, at) -> {
                val code = character.code
                into.append("\\u").append(HEX[code shr 12]).append(HEX[code shr 8 and 15])
                    .append(HEX[code shr 4 and 15]).append(HEX[code and 15])
            }
            else -> into.append(character)
        }
    }
    into.append('"')
}

/** Whether a half of a character stands alone; UTF-8 has no bytes for it. */
internal fun isHalf(text: String, at: Int): Boolean {
    val character = text[at]
    if (!character.isSurrogate()) return false
    return if (character.isHighSurrogate()) {
        at + 1 >= text.length || !text[at + 1].isLowSurrogate()
    } else {
        at == 0 || !text[at - 1].isHighSurrogate()
    }
}

/** A number, true, false or null as text; what came from a double is written as ECMAScript writes it. */
internal fun plainText(value: JsonPrimitive): String {
    val content = value.content
    if (content.none { it == '.' || it == 'E' || it == 'e' || it == 'N' || it == 'I' }) return content
    val number = content.toDoubleOrNull() ?: return content
    return if (number.toString() == content || content == "-0.0") numberText(number) else content
}

/**
 * A double as ECMAScript writes it (ECMA-262, Number::toString): the fewest digits that give the same double again.
 * What is no number is null, as in JSON.
 */
internal fun numberText(value: Double): String {
    if (value.isNaN() || value.isInfinite()) return "null"
    if (value == 0.0) return "0"
    val whole = value.toLong()
    if (whole.toDouble() == value && whole > -1_000_000_000_000_000 && whole < 1_000_000_000_000_000) {
        return whole.toString()
    }
    val shortest = shortestDecimal(value)
    val digits = shortest.unscaledValue().abs().toString()
    // The value is 0.digits times ten to this power.
    val point = digits.length - shortest.scale()
    val sign = if (value < 0) "-" else ""
    return sign + when {
        point in 1..21 ->
            if (digits.length <= point) digits.padEnd(point, '0')
            else digits.substring(0, point) + "." + digits.substring(point)
        point in -5..0 -> "0." + "0".repeat(-point) + digits
        else -> {
            val exponent = point - 1
            val fraction = if (digits.length > 1) "." + digits.substring(1) else ""
            digits.substring(0, 1) + fraction + "e" + (if (exponent < 0) "-" else "+") + Math.abs(exponent)
        }
    }
}

/** The platform's own text of a double may have a digit more than is needed. */
private fun shortestDecimal(value: Double): BigDecimal {
    val exact = BigDecimal(value)
    var found = BigDecimal(value.toString()).stripTrailingZeros()
    while (found.precision() > 1) {
        val shorter = exact.round(MathContext(found.precision() - 1, RoundingMode.HALF_EVEN)).stripTrailingZeros()
        if (shorter.toDouble() != value) break
        found = shorter
    }
    return found
}
