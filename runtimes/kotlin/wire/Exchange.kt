package wire

import kotlinx.coroutines.CancellationException
import kotlinx.coroutines.withTimeoutOrNull
import okhttp3.Headers
import okhttp3.Response
import kotlin.time.Duration

/** An address without its query, which may contain a key, and without a user. */
internal fun shownAddress(url: String): String =
    url.substringBefore('#').substringBefore('?').replace(Regex("//[^/]*@"), "//")

private val withUser = Regex("^https?://[^/]*@.*", setOf(RegexOption.IGNORE_CASE, RegexOption.DOT_MATCHES_ALL))
private val withHost = Regex("^https?://.*", setOf(RegexOption.IGNORE_CASE, RegexOption.DOT_MATCHES_ALL))

/** Why an address is not valid; "" if it may be valid. */
private fun addressFault(url: String): String =
    when {
        withUser.matches(url) -> "contains a user or a password; use a credential instead"
        !withHost.matches(url) -> "must begin with https://"
        else -> ""
    }

/**
 * The headers of the connection and of the call. The call's headers override.
 *
 * @param isNamed whether the app has chosen the server. Another server gets no header of the connection that may be a
 *   credential
 */
internal suspend fun Connection.startHeaders(options: CallOptions, isNamed: Boolean = true): Headers.Builder {
    val headers = Headers.Builder()
    for ((name, value) in settings.headers?.invoke().orEmpty()) {
        if (isNamed || isHarmless(name)) setHeader(headers, name, value)
    }
    for ((name, value) in options.headers) setHeader(headers, name, value)
    return headers
}

/**
 * @throws Trouble for a value that is not valid in a header (RFC 9110, section 5.5). The platform's error contains
 *   the value, which may be a secret
 */
private fun setHeader(headers: Headers.Builder, name: String, value: String) {
    try {
        headers[name] = value
    } catch (_: IllegalArgumentException) {
        throw Trouble("the value of the header `$name` is not valid")
    }
}

/** One request through all layers. Every error except the app's own becomes [Trouble]. */
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
    Trouble("the response to ${asked(outgoing)} was cut off", cause = cause)

/** Runs a function within a time limit. @throws Trouble when the limit is reached */
internal suspend fun <T> withLimit(limit: Duration?, work: suspend () -> T): T {
    if (limit == null || !limit.isPositive() || limit.isInfinite()) return work()
    val done = withTimeoutOrNull(limit) { Done(work()) }
    return (done ?: throw Trouble("no response within ${limit.inWholeMilliseconds} ms", Mishap.TimedOut)).value
}

private class Done<T>(val value: T)

/** A response, and its request. */
internal class Exchanged(val outgoing: Outgoing, val response: Response)

/**
 * Sends a request with the first alternative of credentials that the app supplies. If the server rejects a credential
 * that can be renewed, the request is sent once more.
 *
 * @param attempt sends the request once and reports which credentials it used
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
        // The functions of the app can throw.
        exchanged.response.close()
        throw error
    }
}
