package wire

/** The cookie header for pairs that are already encoded; null when there are none. */
internal fun cookies(vararg pairs: String?): String? =
    pairs.filter { !it.isNullOrEmpty() }.joinToString("; ").ifEmpty { null }
