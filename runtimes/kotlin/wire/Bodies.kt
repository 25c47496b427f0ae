package wire

import kotlinx.serialization.json.JsonElement
import okhttp3.MediaType
import okhttp3.RequestBody
import okio.BufferedSink
import okio.ByteString
import okio.Source
import okio.source
import java.io.File

/** Bytes to send: what is in memory, a file, or what can be opened. */
public class Upload private constructor(
    /** The name that a form gives it. */
    public val name: String?,
    /** The media type, where it is not what the contract says. */
    public val type: String?,
    /** How many bytes there are; -1 when that is not known. */
    internal val size: Long,
    /** Whether it can be sent once only. */
    internal val isOnce: Boolean,
    internal val open: () -> Source,
) {
    public companion object {
        /** Bytes that are in memory. */
        public fun of(bytes: ByteString, name: String? = null, type: String? = null): Upload =
            Upload(name, type, bytes.size.toLong(), isOnce = false) { okio.Buffer().write(bytes) }

        /** A file, which is never loaded as a whole. */
        public fun of(file: File, name: String? = file.name, type: String? = null): Upload =
            Upload(name, type, file.length(), isOnce = false) { file.source() }

        /**
         * What [open] gives, for example the content behind a URI.
         *
         * @param isOnce whether it can be opened once only; then it is not sent a second time
         * @param size how many bytes there are; -1 when that is not known
         */
        public fun from(
            name: String? = null,
            type: String? = null,
            size: Long = -1,
            isOnce: Boolean = false,
            open: () -> Source,
        ): Upload = Upload(name, type, size, isOnce, open)
    }
}

/** A body to send. */
internal class Body(
    /** The value of the header, which stands before it. */
    val type: String,
    val content: RequestBody,
)

/** A JSON body; null when there is none, which JSON's own null is not. */
internal fun jsonBody(value: JsonElement?, type: String = "application/json"): Body? =
    value?.let { textBody(jsonText(it), type) }

internal fun textBody(value: String?, type: String): Body? = value?.let { Body(type, TextContent(it)) }

internal fun bytesBody(value: Upload?, type: String): Body? = value?.let { Body(it.type ?: type, UploadContent(it)) }

/** Bodies say no media type themselves: the header is written as the contract has it. */
internal class TextContent(text: String) : RequestBody() {
    private val bytes = text.toByteArray(Charsets.UTF_8)

    override fun contentType(): MediaType? = null

    override fun contentLength(): Long = bytes.size.toLong()

    override fun writeTo(sink: BufferedSink) {
        sink.write(bytes)
    }
}

private class UploadContent(private val upload: Upload) : RequestBody() {
    override fun contentType(): MediaType? = null

    override fun contentLength(): Long = upload.size

    override fun isOneShot(): Boolean = upload.isOnce

    override fun writeTo(sink: BufferedSink) {
        upload.open().use { sink.writeAll(it) }
    }
}
