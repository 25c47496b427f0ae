package wire

import kotlinx.coroutines.CancellationException
import kotlinx.coroutines.withTimeoutOrNull
import okhttp3.Headers
import okhttp3.Response
import kotlin.time.Duration

/** An address without its query, which may hold a key, and without a user. */
internal fun shownAddress(url: String): String =
    url.substringBefore('#').substringBefore('?').replace(Regex("//[^/]*@"), "//")

private val withUser = Regex("^https?://[^/]*@.*", setOf(RegexOption.IGNORE_CASE, RegexOption.DOT_MATCHES_ALL))
private val withHost = Regex("^https?://.*", setOf(RegexOption.IGNORE_CASE, RegexOption.DOT_MATCHES_ALL))

/** Why nothing can be asked at an address; "" where it may be good. */
private fun addressFault(url: String): String =
    when {
        withUser.matches(url) -> "holds a user or a password; give them as a credential"
        !withHost.matches(url) -> "has to begin with https://"
        else -> ""
    }

/**
 * Headers of the connection and the call, the call's being stronger.
 *
 * @param isNamed whether the app has named the server; another gets none of the connection's that may be a credential
 */
internal suspend fun Connection.startHeaders(options: CallOptions, isNamed: Boolean = true): Headers.Builder {
    val headers = Headers.Builder()
    for ((name, value) in settings.headers?.invoke().orEmpty()) {
        if (isNamed || isHarmless(name)) setHeader(headers, name, value)
    }
    for ((name, value) in options.headers) setHeader(headers, name, value)
    return headers
}

/** @throws Trouble for what no header can carry (RFC 9110, section 5.5); the platform's error holds the value, a secret maybe */
private fun setHeader(headers: Headers.Builder, name: String, value: String) {
    try {
        headers[name] = value
    } catch (_: IllegalArgumentException) {
        throw Trouble("the header `$name` has a value that cannot stand in a header")
    }
}

/** One exchange through all layers; every error but the app's own becomes [Trouble]. */
internal suspend fun Connection.exchange(outgoing: Outgoing): Response {
    val fault = addressFault(outgoing.url)
    if (fault.isNotEmpty()) throw Trouble("the base URL of ${shownAddress(outgoing.url)} $fault")
    val innermost: suspend (Outgoing) -> Response = { fetchFollowing(it) }
    val perform = around.foldRight(innermost) { layer, next -> { request -> layer.around(request, next) } }
    return try {
        perform(outgoing)
    } catch (error: CancellationException) {
        throw error
    } catch (error: Trouble) {
        throw error
    } catch (error: CallFailure) {
        throw error
    } catch (error: BrokenOff) {
        throw brokenOff(outgoing, error.cause)
    } catch (error: Exception) {
        throw Trouble("${asked(outgoing)} could not be reached", cause = error)
    }
}

private fun asked(outgoing: Outgoing): String = "${outgoing.method} ${shownAddress(outgoing.url)}"

internal fun brokenOff(outgoing: Outgoing, cause: Throwable?): Trouble =
    Trouble("the answer to ${asked(outgoing)} broke off", cause = cause)

/** Does something within a time limit. @throws Trouble when the time is over */
internal suspend fun <T> withLimit(limit: Duration?, work: suspend () -> T): T {
    if (limit == null || !limit.isPositive() || limit.isInfinite()) return work()
    val done = withTimeoutOrNull(limit) { Done(work()) }
    return (done ?: throw Trouble("no answer within ${limit.inWholeMilliseconds} ms", Mishap.TimedOut)).value
}

private class Done<T>(val value: T)

/** An answer, and the request that it answers. */
internal class Exchanged(val outgoing: Outgoing, val response: Response)

/**
 * Sends a request with the first alternative of credentials that is supplied; once more when the server rejects one
 * that can be renewed.
 *
 * @param attempt sends the request once, and tells which credentials it used
 */
internal suspend fun authorized(
    options: CallOptions,
    canRepeat: Boolean,
    attempt: suspend (used: MutableList<Used>) -> Exchanged,
): Exchanged {
    val used = mutableListOf<Used>()
    var exchanged = attempt(used)
    try {
        if (exchanged.response.code == 401 && canRepeat) {
            val renewed = used.map { (it.source as? RenewableCredential)?.renew(it.credential) == true }
            if (true in renewed) {
                exchanged.response.close()
                exchanged = attempt(used)
            }
        }
        options.onAnswer?.invoke(exchanged.response.code, exchanged.response.headers)
        return exchanged
    } catch (error: Throwable) {
        // The app's own functions may throw.
        exchanged.response.close()
        throw error
    }
}
