package wire

import kotlinx.coroutines.Dispatchers
import kotlinx.coroutines.withContext
import kotlinx.serialization.json.JsonArray
import kotlinx.serialization.json.JsonElement
import kotlinx.serialization.json.JsonNull
import kotlinx.serialization.json.JsonObject
import kotlinx.serialization.json.JsonPrimitive
import okhttp3.Response

/** One entry of `errors` in a GraphQL response (GraphQL specification, section 7.1.2). */
public class GraphqlError internal constructor(
    public val message: String,
    /** Names of fields and positions in lists; empty if the server gives none. */
    public val path: List<String>,
    public val locations: List<Location>,
    public val extensions: Map<String, JsonElement>,
) {
    /** A position in the text of the operation. */
    public class Location internal constructor(public val line: Int, public val column: Int)

    override fun toString(): String = message
}

/** How queries are sent. */
public enum class QueriesBy {
    Post,

    /** Lets caches between app and server store responses. Mutations always use POST. */
    Get,
}

/** What is sent for an operation. */
public enum class Sends {
    Text,

    /** Its id, if it has one. For ids, the server needs the manifest. */
    Id,
}

/** The options of a GraphQL connection besides those of every connection. */
public class GraphqlSettings(
    internal val queriesBy: QueriesBy = QueriesBy.Post,
    internal val sends: Sends = Sends.Text,
    internal val subscriptions: Subscriptions? = null,
)

/** A connection to a GraphQL endpoint. */
public open class GraphqlConnection internal constructor(
    contract: String,
    url: String,
    settings: ConnectionSettings,
    bearer: Credential?,
    internal val graphql: GraphqlSettings,
) : Connection(
        contract = contract,
        base = url,
        settings = settings,
        credentials = mapOf(BEARER to bearer),
        schemes = mapOf(BEARER to bearer()),
    )

private const val BEARER = "bearer"

/** Every call uses the same credential. */
internal val graphqlAuth: List<List<String>> = listOf(listOf(BEARER))

internal enum class OperationKind { Query, Mutation, Subscription }

/** One GraphQL operation: its text, and how its response is read. */
internal open class Operation<Answer>(
    val kind: OperationKind,
    val name: String,
    /** "contract.call", for failures. */
    val call: String,
    val text: String,
    /** The id of the text in the manifest. */
    val id: String? = null,
    val answer: Reader<Answer>,
    /** Creates the failure of a result with errors, from its partial data. */
    val errors: (Report, List<GraphqlError>, Answer?) -> CallFailure,
    val other: OtherFailure,
)

/** The variables of an operation, and the files among them by their paths. */
internal class Variables(val fields: JsonElement, val files: Files = emptyMap())

/** The JSON of a response (GraphQL specification, section 7.1). */
internal class GraphqlResult(val data: JsonElement?, val errors: List<GraphqlError>?)

/** Sends a query or mutation. Returns its data, or throws its failure. */
internal suspend fun <Answer : Any> GraphqlConnection.execute(
    operation: Operation<Answer>,
    variables: Variables,
    options: CallOptions,
): Answer =
    // Decoding continues on the thread that read the response, never on the app's main thread.
    withContext(Dispatchers.Unconfined) {
        told(operation.call, operation.other) {
            withLimit(options.timeout ?: settings.timeout) {
                val byGet = operation.kind == OperationKind.Query && graphql.queriesBy == QueriesBy.Get
                val accept = "application/graphql-response+json, application/json;q=0.9"
                val exchanged = request(operation, variables, options, Asking(accept, byGet))
                exchanged.response.use { dataOf(operation, readResult(exchanged), exchanged.response.code) }
            }
        }
    }

/** The HTTP request of an operation. */
internal class Asking(val accept: String, val byGet: Boolean = false, val isStream: Boolean = false)

/** The JSON that is sent for an operation (GraphQL over HTTP, section 5.1). */
internal fun GraphqlConnection.payloadOf(operation: Operation<*>, variables: JsonElement): JsonObject {
    val id = operation.id?.takeIf { graphql.sends == Sends.Id }
    val document = if (id == null) "query" to JsonPrimitive(operation.text) else "documentId" to JsonPrimitive(id)
    return JsonObject(mapOf(document, "operationName" to JsonPrimitive(operation.name), "variables" to variables))
}

/** Sends a request (GraphQL over HTTP, sections 5.3 and 5.4; files as a multipart form). */
internal suspend fun GraphqlConnection.request(
    operation: Operation<*>,
    variables: Variables,
    options: CallOptions,
    asking: Asking,
): Exchanged {
    val payload = payloadOf(operation, variables.fields)
    val body = if (asking.byGet) null else bodyOf(payload, variables.files)
    return authorized(options, canRepeat = body?.content?.isOneShot() != true) { used ->
        val url = address()
        val headers = startHeaders(options)
        headers["accept"] = asking.accept
        used += authorize(graphqlAuth, Credentials(headers, mutableListOf()))
        val whole = if (asking.byGet) url + (if ('?' in url) "&" else "?") + pairsOf(payload) else url
        if (body != null) headers["content-type"] = body.type
        // Servers refuse forms that another website could send. This header shows that the form is not one of them.
        if (variables.files.isNotEmpty()) headers["graphql-require-preflight"] = "1"
        val method = if (asking.byGet) "GET" else "POST"
        val outgoing = Outgoing(operation.call, method, whole, headers.build(), body?.content, asking.isStream)
        Exchanged(outgoing, exchange(outgoing))
    }
}

private fun pairsOf(payload: JsonObject): String =
    payload.entries.joinToString("&") { (name, value) ->
        val text = if (value is JsonPrimitive && value.isString) value.content else jsonText(value)
        "$name=${encode(text)}"
    }

/**
 * A request whose variables contain files is a multipart form: the request with null in place of the files, a map from
 * parts to places, then the files (the community's specification for GraphQL multipart requests).
 */
private fun bodyOf(payload: JsonObject, files: Files): Body {
    if (files.isEmpty()) return textBody(jsonText(payload), "application/json") ?: error("There is a text.")
    val places = LinkedHashMap<Upload, MutableList<String>>()
    for ((path, file) in files) places.getOrPut(file) { mutableListOf() }.add("variables.$path")
    val map = places.values.withIndex().associate { (at, paths) -> at.toString() to JsonArray(paths.map(::JsonPrimitive)) }
    val parts = listOf(
        Part("operations", JsonPrimitive(jsonText(payload)), null, null),
        Part("map", JsonPrimitive(jsonText(JsonObject(map))), null, null),
    )
    return multipartOf(parts + places.keys.mapIndexed { at, file -> Part(at.toString(), JsonNull, file, null) })
}

/** The data of a result without errors. Throws the failure of a result with errors. */
internal fun <Answer : Any> dataOf(operation: Operation<Answer>, result: GraphqlResult, status: Int): Answer {
    val data = result.data
    val read = if (data == null || data is JsonNull) null else readData(operation, data, status)
    if (result.errors == null && read != null) return read
    throw errorsOf(operation, result.errors.orEmpty(), read)
}

private fun <Answer> readData(operation: Operation<Answer>, data: JsonElement, status: Int): Answer =
    try {
        operation.answer.read(data)
    } catch (error: Mismatch) {
        val answer = FailedAnswer(status, okhttp3.Headers.Builder().build(), jsonText(data))
        throw Trouble("the response ($status) cannot be read: ${error.message}", Mishap.Malformed(error.path), error, answer)
    }

/** The failure of a result with errors. */
internal fun <Answer> errorsOf(operation: Operation<Answer>, errors: List<GraphqlError>, data: Answer?): CallFailure {
    val message = errors.firstOrNull()?.message ?: "the response has no data"
    return operation.errors(Report(operation.call, message, null, null), errors, data)
}

private fun readResult(exchanged: Exchanged): GraphqlResult {
    val response = exchanged.response
    val type = response.header("content-type")
    if (type?.startsWith("multipart/mixed", ignoreCase = true) == true) throw inPieces(response, "")
    val text = Received(response, exchanged.outgoing).text
    val parsed = parsed(text)
    if (parsed is JsonObject && "hasNext" in parsed) throw inPieces(response, text)
    resultOf(parsed)?.let { return it }
    val told = excerpt(type, text)
    val answer = FailedAnswer(response.code, response.headers, text)
    if (!response.isSuccessful) {
        throw Trouble("the server responded with ${response.code}: $told", Mishap.Unexpected(response.code), answer = answer)
    }
    throw Trouble("the response is not a GraphQL result: $told", Mishap.Malformed(null), answer = answer)
}

private fun inPieces(response: Response, text: String): Trouble =
    Trouble(
        "the server responded in parts, which is not supported; remove @defer and @stream from the query",
        Mishap.Malformed(null),
        answer = FailedAnswer(response.code, response.headers, text),
    )

/** A GraphQL result; null for anything else. */
internal fun resultOf(value: JsonElement?): GraphqlResult? {
    if (value !is JsonObject || ("data" !in value && "errors" !in value)) return null
    return GraphqlResult(value["data"], (value["errors"] as? JsonArray)?.let(::errorsIn))
}

internal fun errorsIn(list: JsonArray): List<GraphqlError> =
    list.map { each ->
        val fields = (each as? JsonObject).orEmpty()
        GraphqlError(
            message = plain(fields["message"]) ?: "an error without a message",
            path = (fields["path"] as? JsonArray).orEmpty().mapNotNull(::plain),
            locations = (fields["locations"] as? JsonArray).orEmpty().mapNotNull(::locationOf),
            extensions = (fields["extensions"] as? JsonObject).orEmpty(),
        )
    }

private fun plain(value: JsonElement?): String? = (value as? JsonPrimitive)?.takeIf { it !is JsonNull }?.content

private fun locationOf(value: JsonElement): GraphqlError.Location? {
    val fields = value as? JsonObject ?: return null
    val line = plain(fields["line"])?.toIntOrNull() ?: return null
    return GraphqlError.Location(line, plain(fields["column"])?.toIntOrNull() ?: 1)
}
