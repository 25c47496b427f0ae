package wire

import kotlinx.serialization.json.JsonArray
import kotlinx.serialization.json.JsonElement
import kotlinx.serialization.json.JsonNull
import kotlinx.serialization.json.JsonObject
import kotlinx.serialization.json.JsonPrimitive

/** Marks a character that cannot be part of an address. A request with this mark is refused. */
internal const val UNSENDABLE: Char = '\u0000'

private const val HEX = "0123456789ABCDEF"
private const val UNRESERVED = "-_.!~*'()"

/** A string as a part of an address, percent-encoded in UTF-8. */
internal fun encode(text: String): String {
    if (text.indices.any { isHalf(text, it) }) return UNSENDABLE.toString()
    val written = StringBuilder(text.length + 8)
    for (byte in text.toByteArray(Charsets.UTF_8)) {
        val character = byte.toInt().toChar()
        if (character in 'a'..'z' || character in 'A'..'Z' || character in '0'..'9' || character in UNRESERVED) {
            written.append(character)
        } else {
            written.append('%').append(HEX[byte.toInt() shr 4 and 15]).append(HEX[byte.toInt() and 15])
        }
    }
    return written.toString()
}

/** A single value as text. An object or list inside a value becomes JSON. */
internal fun text(value: JsonElement): String =
    when {
        value is JsonNull -> "null"
        value is JsonPrimitive -> if (value.isString) value.content else plainText(value)
        else -> jsonText(value)
    }

/**
 * Path style "simple" (RFC 6570, section 3.2.2): `a`, `a,b`, or for an object `k,v` (`k=v` if exploded).
 *
 * @param name the argument, for the failure if it cannot be sent
 */
internal fun segment(name: String, value: JsonElement, explode: Boolean = false): String {
    val written = simple(value, explode)
    // Without it, the path would be another one.
    return if (written.isEmpty() || UNSENDABLE in written) "$UNSENDABLE$name$UNSENDABLE" else written
}

/** Style "simple" (RFC 6570, section 3.2.2), also as a part of other styles. */
internal fun simple(value: JsonElement, explode: Boolean = false): String =
    when (value) {
        is JsonArray -> value.joinToString(",") { encode(text(it)) }
        is JsonObject ->
            value.entries.joinToString(",") { (key, each) ->
                encode(key) + (if (explode) "=" else ",") + encode(text(each))
            }
        else -> encode(text(value))
    }

/** Header style "simple": like a path segment, without percent-encoding; null if the value is absent. */
internal fun header(value: JsonElement?, explode: Boolean = false): String? =
    when (value) {
        null -> null
        is JsonArray -> value.joinToString(",", transform = ::text)
        is JsonObject ->
            value.entries.joinToString(",") { (key, each) -> key + (if (explode) "=" else ",") + text(each) }
        else -> text(value)
    }

/**
 * Query style "form": `name=a&name=b` if exploded (the default), otherwise `name=a,b`; "" if the value is absent.
 *
 * @param name null if the fields of the value are the whole query
 */
internal fun form(
    name: String?,
    value: JsonElement?,
    explode: Boolean = true,
    encodeValue: (String) -> String = ::encode,
): String {
    val key = encode(name.orEmpty())
    return when (value) {
        null -> ""
        is JsonArray -> {
            val parts = value.map { encodeValue(text(it)) }
            when {
                parts.isEmpty() -> ""
                explode -> parts.joinToString("&") { "$key=$it" }
                else -> "$key=${parts.joinToString(",")}"
            }
        }
        is JsonObject ->
            if (explode) value.entries.joinToString("&") { (field, each) -> "${encode(field)}=${encodeValue(text(each))}" }
            else "$key=" + value.entries.joinToString(",") { (field, each) -> "${encode(field)},${encodeValue(text(each))}" }
        else -> "$key=${encodeValue(text(value))}"
    }
}
