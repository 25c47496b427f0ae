package wire

import okhttp3.Headers

/** Every value of a header, joined as one (RFC 9110, section 5.3); null when it is absent. */
internal fun Headers.joined(name: String): String? = values(name).takeIf { it.isNotEmpty() }?.joinToString(", ")

/** One header; what does not read as its type is absent. */
internal fun <T> Headers.read(name: String, read: (String) -> T?): T? = joined(name)?.let(read)

/** A header that is a list, separated by commas. */
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
