package wire

import kotlinx.coroutines.delay
import kotlinx.coroutines.sync.Mutex
import kotlinx.coroutines.sync.withLock
import okhttp3.Response
import java.io.IOException
import java.text.ParsePosition
import java.text.SimpleDateFormat
import java.util.Locale
import java.util.TimeZone
import kotlin.random.Random
import kotlin.time.Duration
import kotlin.time.Duration.Companion.milliseconds
import kotlin.time.Duration.Companion.seconds

/** Methods that change nothing on the server (RFC 9110, section 9.2.1). */
private val safeMethods = setOf("GET", "HEAD", "OPTIONS", "TRACE", "QUERY")

/** Methods that have the same effect however often they are sent (RFC 9110, section 9.2.2). */
private val idempotentMethods = safeMethods + setOf("PUT", "DELETE")

/**
 * Retries safe requests that could not be sent or whose response has the status of a temporary failure. The pause is
 * the one in the response's `Retry-After` (RFC 9110, section 10.2.3), otherwise it grows with each retry.
 *
 * @param idempotent whether PUT and DELETE are retried too; sending them twice has the same effect as sending them
 *   once
 * @param longestPause if a server requires a longer pause, there is no retry
 * @param pause the pause before the first retry, doubled for each further one, with some random variation
 * @param statuses statuses of temporary failures
 * @param times the largest number of retries
 */
public fun retrying(
    idempotent: Boolean = false,
    longestPause: Duration = 20.seconds,
    pause: Duration = 300.milliseconds,
    statuses: Set<Int> = setOf(429, 502, 503, 504),
    times: Int = 2,
): Layer {
    val methods = if (idempotent) idempotentMethods else safeMethods
    val patience = Patience(longestPause, pause, statuses, times)
    return Layer { request, next ->
        val canRepeat = request.method in methods && request.body?.isOneShot() != true
        if (canRepeat) retried(request, next, patience) else next(request)
    }
}

private class Patience(val longestPause: Duration, val pause: Duration, val statuses: Set<Int>, val times: Int)

private suspend fun retried(
    request: Outgoing,
    next: suspend (Outgoing) -> Response,
    patience: Patience,
): Response {
    var tries = 0
    while (true) {
        var wait = patience.pause * (1 shl tries) * Random.nextDouble(0.75, 1.25)
        try {
            val response = next(request)
            if (response.code !in patience.statuses || tries >= patience.times) return response
            wait = pauseOf(response) ?: wait
            if (wait > patience.longestPause) return response
            response.close()
        } catch (error: IOException) {
            if (tries >= patience.times) throw error
        }
        delay(minOf(wait, patience.longestPause))
        tries++
    }
}

/** The pause that a server requires: a number of seconds, or until a date-time. */
private fun pauseOf(response: Response): Duration? {
    val said = response.headers["retry-after"]?.trim() ?: return null
    if (said.isNotEmpty() && said.all { it in '0'..'9' }) return said.toLongOrNull()?.seconds ?: Duration.INFINITE
    val format = SimpleDateFormat("EEE, dd MMM yyyy HH:mm:ss zzz", Locale.US)
    format.timeZone = TimeZone.getTimeZone("GMT")
    val instant = format.parse(said, ParsePosition(0)) ?: return null
    return (instant.time - System.currentTimeMillis()).coerceAtLeast(0).milliseconds
}

/** Calls a function before every request and sends its result. */
public fun eachRequest(look: suspend (Outgoing) -> Outgoing): Layer = Layer { request, next -> next(look(request)) }

/** Calls a function after every response, before its body is read. To read the body, the function uses `peekBody`. */
public fun eachAnswer(look: suspend (Response, Outgoing) -> Unit): Layer =
    Layer { request, next -> next(request).also { look(it, request) } }

/** A credential that can be told that it was rejected. */
internal interface RenewableCredential : Credential {
    /** Returns whether there is another one now. */
    suspend fun renew(rejected: String): Boolean
}

/**
 * Fetches a credential when it is first needed, and again when the server rejects it with 401. It is fetched once,
 * however many calls wait for it. Each of them is then sent a second time, and never a third.
 *
 * @param get returns the credential; its argument is the one that was rejected, null for the first
 */
public fun renewable(get: suspend (rejected: String?) -> String): Credential = Renewable(get)

private class Renewable(private val get: suspend (String?) -> String) : RenewableCredential {
    private val mutex = Mutex()
    private var known: String? = null

    override suspend fun current(): String = mutex.withLock { known ?: get(null).also { known = it } }

    override suspend fun renew(rejected: String): Boolean {
        val credential = mutex.withLock {
            val current = known
            if (current != null && current != rejected) return@withLock current
            // The next call tries again to fetch a credential that could not be fetched.
            known = null
            get(rejected).also { known = it }
        }
        return credential != rejected
    }
}
