package wire

import kotlinx.serialization.json.JsonElement
import kotlinx.serialization.json.JsonNull
import kotlinx.serialization.json.JsonObject
import kotlinx.serialization.json.JsonPrimitive

/** What a server reports about a failure, as problem details (RFC 9457, section 3). */
public class ProblemDetails internal constructor(
    /** A URI that identifies the type of problem; "about:blank" if there is none. */
    public val type: String,
    public val title: String?,
    public val status: Int?,
    public val detail: String?,
    /** A URI of this occurrence. */
    public val instance: String?,
    /** Further members of this type of problem. */
    public val others: Map<String, JsonElement>,
)

/** The problem details of a failure, declared by the contract or not; null if it has none. */
public val CallFailure.problem: ProblemDetails?
    get() = answer?.let(::problemOf)

private val ownMembers = setOf("type", "title", "status", "detail", "instance")

private fun problemOf(answer: FailedAnswer): ProblemDetails? {
    val type = answer.headers["content-type"]?.substringBefore(';')?.trim()
    if (!type.equals("application/problem+json", ignoreCase = true)) return null
    val said = parsed(answer.text) as? JsonObject ?: return null
    // A member of another type than the standard's is ignored (section 3.1).
    fun text(name: String): String? = (said[name] as? JsonPrimitive)?.takeIf { it.isString }?.content
    val status = (said["status"] as? JsonPrimitive)?.takeIf { !it.isString }?.content?.toDoubleOrNull()
    return ProblemDetails(
        type = text("type") ?: "about:blank",
        title = text("title"),
        status = status?.toInt(),
        detail = text("detail"),
        instance = text("instance"),
        others = said.filterKeys { it !in ownMembers },
    )
}

/** A text as JSON; null if it is not valid JSON. */
internal fun parsed(text: String): JsonElement? =
    try {
        parseJson(text)
    } catch (_: NoJson) {
        null
    }

/** The body's description of the failure, if it has the form of problem details. */
internal fun wordsOf(body: JsonElement?): String {
    if (body !is JsonObject) return ""
    val said = body["detail"] ?: body["title"]
    return if (said is JsonPrimitive && said !is JsonNull && said.isString) ": ${said.content}" else ""
}

private const val LONGEST_EXCERPT = 80

/** The longest beginning of a body in which its first words are looked for. */
private const val LOOKED_AT = 4_000

private val markup = Regex("<(script|style)\\b[\\s\\S]*?(</\\1>|$)|<[^>]{0,500}>", RegexOption.IGNORE_CASE)
private val spaces = Regex("[\\s\\u0000-\\u001f\\u007f-\\u009f]+")

/** Describes an unexpected body for a message: its media type and its first words, without markup. */
internal fun excerpt(contentType: String?, text: String): String {
    val type = contentType?.substringBefore(';') ?: "of no media type"
    val words = text.take(LOOKED_AT).replace(markup, " ").replace(spaces, " ").trim()
    if (words.isEmpty()) return "it is $type, and empty"
    val more = if (words.length > LONGEST_EXCERPT) "…" else ""
    return "it is $type, and begins with \"${words.take(LONGEST_EXCERPT)}$more\""
}
