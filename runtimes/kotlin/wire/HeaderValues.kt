package wire

import okhttp3.Headers

/** All values of a header, joined into one (RFC 9110, section 5.3); null if it is absent. */
internal fun Headers.joined(name: String): String? = values(name).takeIf { it.isNotEmpty() }?.joinToString(", ")

/** One header; null if its value does not have the right type. */
internal fun <T> Headers.read(name: String, read: (String) -> T?): T? = joined(name)?.let(read)

/** A header that is a comma-separated list. */
internal fun <T : Any> Headers.readAll(name: String, read: (String) -> T?): List<T>? {
    val text = joined(name) ?: return null
    return if (text.isEmpty()) emptyList() else text.split(',').mapNotNull { read(it.trim()) }
}

internal fun asNumber(text: String): Double? = text.trim().toDoubleOrNull()?.takeUnless { it.isNaN() }

internal fun asWhole(text: String): Long? {
    val number = asNumber(text)?.takeIf { it == Math.rint(it) } ?: return null
    return text.trim().toLongOrNull() ?: number.toLong()
}

internal fun asTruth(text: String): Boolean? =
    when (text) {
        "true" -> true
        "false" -> false
        else -> null
    }
