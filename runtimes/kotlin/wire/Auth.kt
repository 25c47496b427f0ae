package wire

import okhttp3.Headers
import okio.ByteString.Companion.encodeUtf8

/** The headers and query of a request while credentials are added. */
internal class Credentials(val headers: Headers.Builder, val query: MutableList<String>)

/** Adds a credential in the way that its scheme requires. */
internal fun interface Scheme {
    fun put(credential: String, into: Credentials)
}

/** `Authorization: Bearer …` (RFC 6750, section 2.1). */
internal fun bearer(): Scheme = Scheme { token, into -> into.headers["authorization"] = "Bearer $token" }

/** `Authorization: Basic …` (RFC 7617); the credential is "user:password". */
internal fun basic(): Scheme =
    Scheme { credential, into -> into.headers["authorization"] = "Basic ${credential.encodeUtf8().base64()}" }

/** Another HTTP authentication scheme (RFC 9110, section 11.6.2). */
internal fun scheme(name: String): Scheme =
    Scheme { credential, into -> into.headers["authorization"] = "$name $credential" }

internal fun keyInHeader(name: String): Scheme = Scheme { key, into -> into.headers[name] = key }

internal fun keyInQuery(name: String): Scheme = Scheme { key, into -> into.query.add("${encode(name)}=${encode(key)}") }

internal fun keyInCookie(name: String): Scheme =
    Scheme { key, into ->
        val others = into.headers["cookie"]
        into.headers["cookie"] = "${if (others == null) "" else "$others; "}$name=${encode(key)}"
    }

/** A credential that was sent, and the source it came from. */
internal class Used(val source: Credential, val credential: String)

/**
 * Adds the credentials of the first alternative that the app supplies.
 *
 * @param auth alternatives, each a list of schemes that are needed together
 */
internal suspend fun Connection.authorize(auth: List<List<String>>, into: Credentials): List<Used> {
    val chosen = auth.firstOrNull { names -> names.all { credentials[it] != null } } ?: return emptyList()
    return chosen.mapNotNull { name ->
        val source = credentials[name] ?: return@mapNotNull null
        val credential = source.current()
        try {
            schemes[name]?.put(credential, into)
        } catch (_: IllegalArgumentException) {
            // The platform's error contains the credential, so it is not passed on as the cause.
            throw Trouble("the credential `$name` is not valid in a header")
        }
        Used(source, credential)
    }
}
