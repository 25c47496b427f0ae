package wire

import kotlinx.coroutines.Dispatchers
import kotlinx.coroutines.withContext
import kotlinx.serialization.json.JsonPrimitive
import okhttp3.Response
import okio.ByteString
import okio.IOException

/** One REST call, as generated code describes it. */
internal class RestRequest(
    /** "contract.call", for failures. */
    val call: String,
    val method: String,
    /** The path, with its parameters filled in. */
    val path: String,
    /** The address of this call, if it has a server of its own. */
    val server: String? = null,
    /** Encoded pairs for the URL. Empty ones are left out. */
    val query: List<String> = emptyList(),
    val headers: List<Pair<String, String?>> = emptyList(),
    val body: Body? = null,
    val accept: String? = null,
    /** Alternatives, each a list of schemes that are needed together. */
    val auth: List<List<String>> = emptyList(),
)

/** The body of a response before it is converted. */
internal class Received(val response: Response, val outgoing: Outgoing) {
    val text: String by lazy { decodedText(bytes) }

    val bytes: ByteString by lazy {
        try {
            bodyOf(response)?.use { it.source().readByteString() } ?: ByteString.EMPTY
        } catch (error: IOException) {
            throw brokenOff(outgoing, error)
        }
    }
}

/** A text as the Encoding standard decodes UTF-8: without a byte order mark. */
private fun decodedText(bytes: ByteString): String = bytes.utf8().removePrefix("\uFEFF")

/** How a body is read. */
internal sealed class BodyForm<out T> {
    /** A body that is ignored. */
    object None : BodyForm<Nothing>()

    class Text<out T>(val reader: Reader<T>) : BodyForm<T>()

    object Bytes : BodyForm<ByteString>()

    class Json<out T>(val reader: Reader<T>) : BodyForm<T>()

    /** Items that arrive one after the other. */
    class Items<out T>(val kind: ItemKind, val reader: Reader<T>) : BodyForm<T>()
}

internal enum class ItemKind { Lines, Sequence, Events, EventTexts, EventRecords }

/** How a declared success is read; [status] is "200", "2XX" or "default". */
internal class AnswerRule<out Answer>(
    val status: String,
    val form: BodyForm<*>,
    /** Creates the response from the value that was read; null if there was nothing to read. */
    val answer: (Any?) -> Answer,
)

/** How a declared failure is read, and the failure that is created from it. */
internal class FailureRule(val status: String, val form: BodyForm<*>, val failure: (Report, Any?) -> CallFailure)

/** How the response of a call is read. */
internal open class Reading<out Answer>(
    val answers: List<AnswerRule<Answer>>,
    val failures: List<FailureRule>,
    val other: OtherFailure,
)

/** A response with a body. */
@Suppress("UNCHECKED_CAST")
internal fun <T : Any> answer(status: String, form: BodyForm<T>): AnswerRule<T> =
    AnswerRule(status, form) { it as T? ?: throw Mismatch("something") }

/** A response with a body that may be null or missing. */
@Suppress("UNCHECKED_CAST")
internal fun <T : Any> answerOrNull(status: String, form: BodyForm<T?>): AnswerRule<T?> =
    AnswerRule(status, form) { it as T? }

/** A response with one of several types. */
@Suppress("UNCHECKED_CAST")
internal fun <T, Answer> answer(status: String, form: BodyForm<T>, make: (T) -> Answer): AnswerRule<Answer> =
    AnswerRule(status, form) { make(it as T) }

/** A response without a body. */
internal fun <Answer> nothing(status: String, answer: Answer): AnswerRule<Answer> =
    AnswerRule(status, BodyForm.None) { answer }

@Suppress("UNCHECKED_CAST")
internal fun <T> failed(status: String, form: BodyForm<T>, make: (Report, T?) -> CallFailure): FailureRule =
    FailureRule(status, form) { report, body -> make(report, body as T?) }

private fun read(form: BodyForm<*>, received: Received): Any? =
    when (form) {
        is BodyForm.None -> null
        is BodyForm.Text -> form.reader.read(JsonPrimitive(received.text))
        is BodyForm.Bytes -> received.bytes
        is BodyForm.Json -> form.reader.read(parseJson(received.text))
        is BodyForm.Items -> received.text
    }

/** Performs one REST call. Returns the declared response, or throws a failure. */
internal suspend fun <Answer> Connection.send(
    request: RestRequest,
    options: CallOptions,
    reading: Reading<Answer>,
): Answer =
    // Decoding continues on the thread that read the response, never on the app's main thread.
    withContext(Dispatchers.Unconfined) {
        told(request.call, reading.other) {
            withLimit(options.timeout ?: settings.timeout) {
                val exchanged = begin(request, options, isStream = false)
                exchanged.response.use { readAnswer(exchanged, reading, request.call) }
            }
        }
    }

/** Runs a part of a call. Turns errors into the call's failure, and reports that to the app. */
internal suspend fun <T> Connection.told(call: String, other: OtherFailure, work: suspend () -> T): T =
    try {
        work()
    } catch (error: Exception) {
        val failure = failureOf(call, error, other) ?: throw error
        settings.onFailure?.invoke(failure)
        throw failure
    }

/** Sends a request with its credentials. Returns the response before its body is read. */
internal suspend fun Connection.begin(request: RestRequest, options: CallOptions, isStream: Boolean): Exchanged =
    authorized(options, canRepeat = request.body?.content?.isOneShot() != true) { used ->
        sendOnce(request, options, isStream, used)
    }

private val dotSegment = Regex("/(\\.|%2e){1,2}(?=[/?]|$)", RegexOption.IGNORE_CASE)

private suspend fun Connection.sendOnce(
    request: RestRequest,
    options: CallOptions,
    isStream: Boolean,
    used: MutableList<Used>,
): Exchanged {
    refuseUnsendable(request)
    val server = request.server?.let { ownServer(it) } ?: OwnServer(address(), isNamed = true)
    val headers = startHeaders(options, server.isNamed)
    try {
        for ((name, value) in request.headers) if (value != null) headers[name] = value
    } catch (_: IllegalArgumentException) {
        // Line endings, and characters that are not valid in a header (RFC 9110, section 5.5).
        throw Trouble("an argument is not valid in a header")
    }
    if (request.accept != null && headers["accept"] == null) headers["accept"] = request.accept
    request.body?.let { headers["content-type"] = it.type }
    val query = request.query.filterTo(mutableListOf()) { it.isNotEmpty() }
    if (server.isNamed) used += authorize(request.auth, Credentials(headers, query))
    // Some contracts write a fixed query into the path.
    val joint = if ('?' in request.path) "&" else "?"
    val url = server.url.trimEnd('/') + request.path + if (query.isEmpty()) "" else query.joinToString("&", joint)
    val whole = options.address?.invoke(url) ?: url
    val outgoing = Outgoing(request.call, request.method, whole, headers.build(), request.body?.content, isStream)
    return Exchanged(outgoing, exchange(outgoing))
}

private fun refuseUnsendable(request: RestRequest) {
    // Platforms resolve such segments, encoded or not (WHATWG URL, section 4.4), and would request another path.
    if (dotSegment.containsMatchIn(request.path)) {
        throw Trouble("an argument `.` or `..` would change the path")
    }
    val lacking = (listOf(request.path) + request.query).firstOrNull { UNSENDABLE in it } ?: return
    // In a path, the mark is followed by the name. In a query, the name comes before it.
    val name =
        if (lacking === request.path) lacking.split(UNSENDABLE)[1]
        else lacking.substringBefore(UNSENDABLE).substringBefore('=')
    val what = if (name.isEmpty()) "an argument" else "the argument `$name`"
    throw Trouble("$what is empty or contains half a character")
}

/** The response of a call. Throws the failure of every other status. */
internal fun <Answer> readAnswer(exchanged: Exchanged, reading: Reading<Answer>, call: String): Answer {
    val received = Received(exchanged.response, exchanged.outgoing)
    val rule = success(received, reading, call)
    // A 204 has no body, whatever the contract declares (RFC 9110, section 15.3.5).
    val isEmpty = exchanged.response.code == 204
    return readable(received) { rule.answer(if (isEmpty) null else read(rule.form, received)) }
}

/** The rule of a declared success. Throws the failure of every other status. */
internal fun <Answer> success(received: Received, reading: Reading<Answer>, call: String): AnswerRule<Answer> {
    val status = received.response.code
    if (received.response.isSuccessful) {
        // An undeclared success is read like the only declared one.
        val rule = declared(reading.answers, status) { it.status } ?: reading.answers.singleOrNull()
        if (rule != null) return rule
    }
    val failed = declared(reading.failures, status) { it.status }
    val message = "the server responded with $status"
    val headers = received.response.headers
    if (failed == null) {
        val text = received.text
        val words = wordsOf(parsed(text)).ifEmpty { ": " + excerpt(headers["content-type"], text) }
        throw Trouble(
            "$message, which the contract does not declare$words",
            Mishap.Unexpected(status),
            answer = FailedAnswer(status, headers, text),
        )
    }
    throw declaredFailure(received, failed, call, message)
}

/** A declared failure. If its body is not JSON but should be, the failure keeps its status and the text. */
private fun declaredFailure(received: Received, rule: FailureRule, call: String, message: String): CallFailure {
    val response = received.response
    var cause: Throwable? = null
    val body = readable(received) {
        try {
            if (response.code == 204) null else read(rule.form, received)
        } catch (error: NoJson) {
            cause = error
            null
        }
    }
    val text = if (rule.form is BodyForm.Bytes) "" else received.text
    val words = when {
        cause != null -> ": " + excerpt(response.headers["content-type"], text)
        rule.form is BodyForm.Json -> wordsOf(parsed(text))
        else -> ""
    }
    return rule.failure(Report(call, message + words, cause, FailedAnswer(response.code, response.headers, text)), body)
}

/** Reads a body. @throws Trouble if it does not match the contract */
internal fun <T> readable(received: Received, read: () -> T): T =
    try {
        read()
    } catch (error: Mismatch) {
        throw unreadable(received, ": ${error.message}", error.path, error)
    } catch (error: NoJson) {
        val told = excerpt(received.response.headers["content-type"], received.text)
        throw unreadable(received, " as JSON: $told", null, error)
    }

private fun unreadable(received: Received, why: String, path: String?, cause: Exception): Trouble {
    val status = received.response.code
    return Trouble(
        "the response ($status) cannot be read$why",
        Mishap.Malformed(path),
        cause,
        FailedAnswer(status, received.response.headers, received.text),
    )
}

/** The rule for a status: its own, that of its range, or the default. */
private fun <Rule> declared(rules: List<Rule>, status: Int, keyOf: (Rule) -> String): Rule? {
    for (key in arrayOf(status.toString(), "${status / 100}XX", "default")) {
        rules.firstOrNull { keyOf(it) == key }?.let { return it }
    }
    return null
}

