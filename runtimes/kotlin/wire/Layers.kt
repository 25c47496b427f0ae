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

/** Methods that change the same, however often they are sent (RFC 9110, section 9.2.2). */
private val idempotentMethods = safeMethods + setOf("PUT", "DELETE")

/**
 * Sends safe requests again that could not be delivered, or were answered with a status that may pass by itself, after
 * the pause that the server asks for in `Retry-After` (RFC 9110, section 10.2.3), else after growing pauses.
 *
 * @param idempotent whether PUT and DELETE are sent again too: done twice, they change no more than done once
 * @param longestPause a server that asks for a longer one gets no further try
 * @param pause before the second try, doubled before each further one, and varied
 * @param statuses statuses that may pass by themselves
 * @param times how often a request is sent again at most
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

/** What a server asks to wait: a number of seconds, or until an instant. */
private fun pauseOf(response: Response): Duration? {
    val said = response.headers["retry-after"]?.trim() ?: return null
    if (said.isNotEmpty() && said.all { it in '0'..'9' }) return said.toLongOrNull()?.seconds ?: Duration.INFINITE
    val format = SimpleDateFormat("EEE, dd MMM yyyy HH:mm:ss zzz", Locale.US)
    format.timeZone = TimeZone.getTimeZone("GMT")
    val instant = format.parse(said, ParsePosition(0)) ?: return null
    return (instant.time - System.currentTimeMillis()).coerceAtLeast(0).milliseconds
}

/** Calls back before every request, and sends what it gives. */
public fun eachRequest(look: suspend (Outgoing) -> Outgoing): Layer = Layer { request, next -> next(look(request)) }

/** Calls back after every answer, before its body is read; who wants to read it uses `peekBody`. */
public fun eachAnswer(look: suspend (Response, Outgoing) -> Unit): Layer =
    Layer { request, next -> next(request).also { look(it, request) } }

/** A credential that can be told that it was rejected. */
internal interface RenewableCredential : Credential {
    /** Whether there is another one now. */
    suspend fun renew(rejected: String): Boolean
}

/**
 * A credential that is got when it is first needed, and got anew when the server rejects it with 401: once, however
 * many calls wait for it. Each of them is then sent a second time, and never a third.
 *
 * @param get gives the credential; it is told which one was rejected, null for the first
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
            // What could not be got is asked for again by the next call.
            known = null
            get(rejected).also { known = it }
        }
        return credential != rejected
    }
}
