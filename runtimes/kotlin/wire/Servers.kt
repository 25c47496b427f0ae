package wire

import okhttp3.HttpUrl.Companion.toHttpUrlOrNull

/** The server of a call that does not use the connection's server. */
internal class OwnServer(
    val url: String,
    /** Whether the app has chosen it, or another address of its origin. Only then it gets credentials. */
    val isNamed: Boolean,
)

private val variable = Regex("\\{([^{}]+)\\}")

/** An address with its variables filled in. */
internal fun serverUrl(template: String, variables: Map<String, String>): String =
    variable.replace(template) { variables[it.groupValues[1]] ?: it.value }

private val hasHost = Regex("^(?:[a-z][a-z0-9+.-]*:)?[\\\\/]{2}.*", setOf(RegexOption.IGNORE_CASE, RegexOption.DOT_MATCHES_ALL))

/**
 * The server of a call that has one of its own: the app's choice, otherwise the contract's. It gets credentials only if
 * the app has chosen it, or if its origin gets them anyway.
 */
internal suspend fun Connection.ownServer(server: String): OwnServer {
    servers[server]?.let { return OwnServer(it, isNamed = true) }
    val base = address()
    if (!hasHost.matches(server)) {
        val url = "${base.trimEnd('/')}/".toHttpUrlOrNull()?.resolve(server)?.toString() ?: (base + server)
        return OwnServer(url, isNamed = true)
    }
    val isPlain = base.startsWith("http:", ignoreCase = true)
    val url = if (server.first().isLetter()) server else "${if (isPlain) "http" else "https"}:$server"
    val origin = url.toHttpUrlOrNull()
    // An address that a function returns has no known origin.
    val fixed = if (settings.baseUrl == null) base else null
    val named = (listOf(fixed, contractUrl) + servers.values).mapNotNull { it?.toHttpUrlOrNull() }
    return OwnServer(url, isNamed = origin != null && named.any { isSameOrigin(it, origin) })
}

