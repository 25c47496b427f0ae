package wire

import kotlinx.serialization.json.JsonArray
import kotlinx.serialization.json.JsonElement
import kotlinx.serialization.json.JsonNull
import kotlinx.serialization.json.JsonObject
import kotlinx.serialization.json.JsonPrimitive
import java.math.BigDecimal
import java.math.MathContext
import java.math.RoundingMode

/** A value as JSON, in its own order and without spaces. Numbers are written as ECMAScript writes them. */
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

/** Whether half of a character stands alone; UTF-8 has no bytes for it. */
internal fun isHalf(text: String, at: Int): Boolean {
    val character = text[at]
    if (!character.isSurrogate()) return false
    return if (character.isHighSurrogate()) {
        at + 1 >= text.length || !text[at + 1].isLowSurrogate()
    } else {
        at == 0 || !text[at - 1].isHighSurrogate()
    }
}

/** A number, true, false or null as text. A double is written as ECMAScript writes it. */
internal fun plainText(value: JsonPrimitive): String {
    val content = value.content
    if (content.none { it == '.' || it == 'E' || it == 'e' || it == 'N' || it == 'I' }) return content
    val number = content.toDoubleOrNull() ?: return content
    return if (number.toString() == content || content == "-0.0") numberText(number) else content
}

/**
 * A double as ECMAScript writes it (ECMA-262, Number::toString): the fewest digits that give the same double again. A
 * double that is not a number is null, as in JSON.
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

/** The platform's own text of a double may have one digit more than needed. */
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
