package wire

/** The cookie header of pairs as they stand in it; null when there are none. */
internal fun cookies(vararg pairs: String?): String? =
    pairs.filter { !it.isNullOrEmpty() }.joinToString("; ").ifEmpty { null }
