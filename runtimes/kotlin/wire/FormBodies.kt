package wire

import kotlinx.serialization.json.JsonArray
import kotlinx.serialization.json.JsonElement
import kotlinx.serialization.json.JsonNull
import kotlinx.serialization.json.JsonObject
import kotlinx.serialization.json.JsonPrimitive
import okhttp3.MediaType
import okhttp3.RequestBody
import okio.Buffer
import okio.BufferedSink
import okio.ByteString
import okio.ByteString.Companion.encodeUtf8
import java.util.UUID

/** How one field of a form is written, if not in the default way. */
internal class FieldWay(
    /** The media type of a part, or "application/json" for a field that contains JSON. */
    val type: String? = null,
    val style: String? = null,
    val explode: Boolean = true,
)

/**
 * A body as `application/x-www-form-urlencoded`, with spaces as `+`. An object inside is JSON unless a style says
 * otherwise.
 */
internal fun urlencoded(value: JsonElement?, ways: Map<String, FieldWay> = emptyMap()): Body? {
    if (value == null) return null
    val pairs = fieldsOf(value).map { (name, each) -> pair(name, each, ways[name] ?: FieldWay()) }
    val text = pairs.filter { it.isNotEmpty() }.joinToString("&").replace("%20", "+")
    return textBody(text, "application/x-www-form-urlencoded")
}

private fun pair(name: String, value: JsonElement, way: FieldWay): String =
    when {
        way.type != null && isJson(way.type) -> form(name, JsonPrimitive(jsonText(value)))
        way.style == "deepObject" -> deepObject(name, value)
        !way.explode && way.style == "spaceDelimited" -> spaced(name, value)
        !way.explode && way.style == "pipeDelimited" -> piped(name, value)
        !way.explode && way.style == "tabDelimited" -> tabbed(name, value)
        else -> form(name, value, way.explode)
    }

/** The files among the values of an object, by their place: "photo", or "photos.0" in a list. */
internal typealias Files = Map<String, Upload>

/**
 * A body as `multipart/form-data` (RFC 7578): files stay files, objects become JSON parts, lists become repeated parts.
 *
 * @param files the files for the places in which [value] has null
 */
internal fun multipart(
    value: JsonElement?,
    files: Files = emptyMap(),
    ways: Map<String, FieldWay> = emptyMap(),
): Body? {
    if (value == null) return null
    val parts = fieldsOf(value).flatMap { (name, each) ->
        val type = ways[name]?.type
        if (each is JsonArray && (type == null || !isJson(type))) {
            each.mapIndexed { at, item -> Part(name, item, files["$name.$at"], type) }
        } else {
            listOf(Part(name, each, files[name], type))
        }
    }
    return multipartOf(parts)
}

internal class Part(val name: String, val value: JsonElement, val file: Upload?, val type: String?)

internal fun multipartOf(parts: List<Part>): Body {
    // A random boundary, so that no content can end its part early.
    val boundary = "form-${UUID.randomUUID()}"
    return Body("multipart/form-data; boundary=$boundary", PartsContent(parts, boundary))
}

/** A form as text and files (RFC 7578, section 4). */
private class PartsContent(private val parts: List<Part>, private val boundary: String) : RequestBody() {
    override fun contentType(): MediaType? = null

    override fun isOneShot(): Boolean = parts.any { it.file?.isOnce == true }

    override fun contentLength(): Long {
        var length = end.size.toLong()
        for (part in parts) {
            val size = part.file?.size ?: 0
            if (size < 0) return -1
            length += headOf(part).size + size + 2
        }
        return length
    }

    override fun writeTo(sink: BufferedSink) {
        for (part in parts) {
            sink.write(headOf(part))
            part.file?.let { file -> file.open().use { sink.writeAll(it) } }
            sink.writeUtf8("\r\n")
        }
        sink.write(end)
    }

    private val end: ByteString = "--$boundary--\r\n".encodeUtf8()

    /** The text before a file, or the whole part if it is not a file. */
    private fun headOf(part: Part): ByteString {
        val head = Buffer().writeUtf8("--$boundary\r\nContent-Disposition: form-data; name=\"${quoted(part.name)}\"")
        val file = part.file
        if (file != null) {
            val type = file.type ?: part.type ?: "application/octet-stream"
            head.writeUtf8("; filename=\"${quoted(file.name ?: "blob")}\"\r\nContent-Type: $type\r\n\r\n")
            return head.readByteString()
        }
        val isData = part.value is JsonObject || part.value is JsonArray || part.value is JsonNull
        val isTyped = isData || (part.type ?: PLAIN) != PLAIN
        if (isTyped) head.writeUtf8("\r\nContent-Type: ${part.type ?: "application/json"}")
        val isJson = isData || (part.type != null && isJson(part.type))
        head.writeUtf8("\r\n\r\n").writeUtf8(if (isJson) jsonText(part.value) else lines(text(part.value)))
        return head.readByteString()
    }

    private companion object {
        private const val PLAIN = "text/plain"
    }
}

/** A name between quotation marks (HTML, section 4.10.21.8). */
private fun quoted(name: String): String = lines(name).replace("\r\n", "%0D%0A").replace("\"", "%22")

private val lineEnd = Regex("\r\n|\r|\n")

/** Line endings in the way that forms require. */
private fun lines(value: String): String = value.replace(lineEnd, "\r\n")

private val jsonType = Regex("^application/([\\w.-]+\\+)?json\\b.*")

private fun isJson(type: String): Boolean = jsonType.matches(type)

/** Only an object can be a form. If the contract has another type, the form is empty. */
private fun fieldsOf(value: JsonElement): Map<String, JsonElement> = (value as? JsonObject).orEmpty()

/** A file is kept next to the values of its form, which have null in its place. */
internal object UploadForm : Writer<Upload> {
    override fun write(value: Upload): JsonElement = JsonNull
}

internal fun MutableMap<String, Upload>.addFile(name: String, file: Upload?) {
    if (file != null) put(name, file)
}

internal fun MutableMap<String, Upload>.addFiles(name: String, files: List<Upload?>?) {
    files?.forEachIndexed { at, file -> addFile("$name.$at", file) }
}

/** Files of an object inside another one. */
internal fun <T : Any> MutableMap<String, Upload>.addFilesOf(name: String, value: T?, files: (T) -> Files) {
    if (value != null) for ((path, file) in files(value)) put("$name.$path", file)
}

/** Files of objects in a list. */
internal fun <T> MutableMap<String, Upload>.addNestedFiles(name: String, values: List<T>?, files: (T & Any) -> Files) {
    values?.forEachIndexed { at, value -> addFilesOf("$name.$at", value) { files(it) } }
}
