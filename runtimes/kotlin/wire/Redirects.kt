package wire

import kotlinx.coroutines.suspendCancellableCoroutine
import okhttp3.Call
import okhttp3.Callback
import okhttp3.Headers
import okhttp3.HttpUrl
import okhttp3.HttpUrl.Companion.toHttpUrl
import okhttp3.MediaType
import okhttp3.Request
import okhttp3.RequestBody
import okhttp3.Response
import okhttp3.ResponseBody
import okhttp3.ResponseBody.Companion.asResponseBody
import okio.Buffer
import okio.BufferedSource
import java.io.IOException
import kotlin.coroutines.resume
import kotlin.coroutines.resumeWithException

private val redirected = setOf(301, 302, 303, 307, 308)
private const val MOST_REDIRECTS = 20

private val harmless =
    setOf("accept", "accept-language", "content-language", "content-type", "range", "user-agent")

/** Whether a header never contains a secret. Any other header may be a credential. */
internal fun isHarmless(name: String): Boolean = name.lowercase() in harmless

/**
 * Sends a request and follows redirects (Fetch standard, section 4.4). Once a redirect leads to another origin, no
 * credential is sent.
 *
 * @throws IOException if there is no response, and for a redirect that cannot be followed
 */
internal suspend fun Connection.fetchFollowing(outgoing: Outgoing): Response {
    var url = try {
        outgoing.url.toHttpUrl()
    } catch (_: IllegalArgumentException) {
        // The platform's message may contain the whole address, with a key in its query.
        throw Trouble("${shownAddress(outgoing.url)} is not a valid address")
    }
    var method = outgoing.method
    var headers = outgoing.headers
    var body = outgoing.body
    var count = 0
    while (true) {
        val response = fetch(requestOf(url, method, headers, body), outgoing.isStream)
        val location = if (response.code in redirected) response.headers["location"] else null
        if (location == null) return response
        response.close()
        if (count++ == MOST_REDIRECTS) throw Trouble("the server redirects more than $MOST_REDIRECTS times")
        // A user in an address would be sent as a credential.
        val to = url.resolve(location)?.newBuilder()?.username("")?.password("")?.build()
            ?: throw Trouble("the server redirects to an address that is not valid")
        val becomesGet = if (response.code == 303) method != "HEAD" else response.code < 303 && method == "POST"
        if (body?.isOneShot() == true && !becomesGet) {
            throw Trouble("the server redirects, and a stream cannot be sent twice")
        }
        if (!isSameOrigin(url, to)) headers = headers.only(::isHarmless)
        if (becomesGet) {
            method = "GET"
            body = null
            headers = headers.newBuilder().removeAll("content-type").build()
        }
        url = to
    }
}

private fun Headers.only(keeps: (String) -> Boolean): Headers {
    val kept = Headers.Builder()
    for ((name, value) in this) if (keeps(name)) kept.addUnsafeNonAscii(name, value)
    return kept.build()
}

internal fun isSameOrigin(one: HttpUrl, other: HttpUrl): Boolean =
    one.scheme == other.scheme && one.host == other.host && one.port == other.port

private val needsBody = setOf("POST", "PUT", "PATCH")

private fun requestOf(url: HttpUrl, method: String, headers: Headers, body: RequestBody?): Request {
    val content = body ?: if (method in needsBody) TextContent("") else null
    return try {
        Request.Builder().url(url).headers(headers).method(method, content).build()
    } catch (error: IllegalArgumentException) {
        throw Trouble("$method cannot be sent${if (body == null) "" else " with a body"}", cause = error)
    }
}

/**
 * Sends a request once. The caller reads the body of a stream. Any other body is read by the thread that received it.
 */
private suspend fun Connection.fetch(request: Request, isStream: Boolean): Response {
    val call = client.newCall(request)
    // The client allows five asynchronous calls to a host at a time. A call that waits for its stream would be one of
    // them, so it runs synchronously.
    if (isStream) return blocking(call::cancel) { call.execute() }.endedBy(call)
    return suspendCancellableCoroutine { waiting ->
        waiting.invokeOnCancellation { call.cancel() }
        call.enqueue(
            object : Callback {
                override fun onFailure(call: Call, e: IOException) {
                    waiting.resumeWithException(e)
                }

                override fun onResponse(call: Call, response: Response) {
                    val whole = try {
                        response.inMemory()
                    } catch (error: IOException) {
                        waiting.resumeWithException(BrokenOff(error))
                        return
                    }
                    waiting.resume(whole)
                }
            },
        )
    }
}

/** Older versions of the client have responses without a body. */
internal fun bodyOf(response: Response): ResponseBody? = response.body

/** A response whose reading ends at once when it is closed, whichever thread reads it. */
private fun Response.endedBy(call: Call): Response {
    val body = bodyOf(this) ?: return this
    return newBuilder().body(EndingBody(call, body)).build()
}

private class EndingBody(private val call: Call, private val body: ResponseBody) : ResponseBody() {
    override fun contentType(): MediaType? = body.contentType()

    override fun contentLength(): Long = body.contentLength()

    override fun source(): BufferedSource = body.source()

    override fun close() {
        call.cancel()
        body.close()
    }
}

/** The response had begun. */
internal class BrokenOff(cause: IOException) : IOException(cause)

private fun Response.inMemory(): Response {
    val body = bodyOf(this) ?: return this
    val bytes = Buffer()
    body.use { it.source().readAll(bytes) }
    return newBuilder().body(bytes.asResponseBody(body.contentType(), bytes.size)).build()
}
