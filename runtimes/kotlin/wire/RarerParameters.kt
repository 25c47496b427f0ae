package wire

import kotlinx.serialization.json.JsonArray
import kotlinx.serialization.json.JsonElement
import kotlinx.serialization.json.JsonObject
import kotlinx.serialization.json.JsonPrimitive

/** Items, or the keys and values of an object in turn, with a separator between them. */
private fun separated(name: String?, value: JsonElement?, separator: String): String {
    val items = when (value) {
        is JsonArray -> value
        is JsonObject -> value.entries.flatMap { (key, each) -> listOf(JsonPrimitive(key), each) }
        else -> return form(name, value, explode = false)
    }
    if (items.isEmpty()) return ""
    return "${encode(name.orEmpty())}=" + items.joinToString(separator) { encode(text(it)) }
}

/** Query style "spaceDelimited" (OpenAPI 3.1, section 4.8.12.6): `name=a%20b`, or for an object `name=k%20v`. */
internal fun spaced(name: String?, value: JsonElement?): String = separated(name, value, "%20")

/** Query style "pipeDelimited": `name=a%7Cb`, or for an object `name=k%7Cv`. */
internal fun piped(name: String?, value: JsonElement?): String = separated(name, value, "%7C")

/** Tab-separated values (OpenAPI 2.0, `tsv`): `name=a%09b`. */
internal fun tabbed(name: String?, value: JsonElement?): String = separated(name, value, "%09")

/** Query style "form" that does not encode the reserved characters of a URL (`allowReserved`). */
internal fun reserved(name: String?, value: JsonElement?, explode: Boolean = true): String =
    form(name, value, explode, ::encodeAllowed)

private val allowed = Regex("%(?:3A|2F|3F|5B|5D|40|21|24|28|29|2A|2C|3B)")

/**
 * Percent-encodes all characters except those that RFC 3986 reserves. It does encode those that would end the value or
 * the query, and the apostrophe, which platforms encode anyway.
 */
private fun encodeAllowed(value: String): String =
    allowed.replace(encode(value).replace("'", "%27")) { it.value.substring(1).toInt(16).toChar().toString() }

/** Query style "deepObject": `name[key]=value`, also for nested objects and lists. */
internal fun deepObject(name: String?, value: JsonElement?): String = deepPairs(name.orEmpty(), value).joinToString("&")

private fun deepPairs(name: String, value: JsonElement?): List<String> =
    when (value) {
        null -> emptyList()
        is JsonArray -> value.flatMap { deepPairs(name, it) }
        is JsonObject -> value.entries.flatMap { (key, each) -> deepPairs("$name[$key]", each) }
        else -> listOf("${encode(name)}=${encode(text(value))}")
    }

/** A query parameter whose value is JSON, or the whole query as JSON. */
internal fun jsonQuery(name: String?, value: JsonElement?): String =
    when {
        value == null -> ""
        name == null -> encode(jsonText(value))
        else -> "${encode(name)}=${encode(jsonText(value))}"
    }

/** JSON in a path. */
internal fun jsonSegment(value: JsonElement): String = encode(jsonText(value))

/** JSON in a header, which is not percent-encoded; null if the value is absent. */
internal fun jsonHeader(value: JsonElement?): String? = value?.let(::jsonText)

/** Path style "label": `.a,b`, or `.a.b` if exploded. */
internal fun label(value: JsonElement, explode: Boolean = false): String {
    val written = simple(value, explode)
    return "." + if (explode) written.replace(",", ".") else written
}

/** Path style "matrix": `;name=a,b`, or `;name=a;name=b` if exploded. */
internal fun matrix(name: String, value: JsonElement, explode: Boolean = false): String {
    val key = encode(name)
    return when {
        !explode -> ";$key=${simple(value)}"
        value is JsonArray -> value.joinToString("") { ";$key=${simple(it)}" }
        value is JsonObject -> ";" + simple(value, explode = true).replace(",", ";")
        else -> ";$key=${simple(value)}"
    }
}
