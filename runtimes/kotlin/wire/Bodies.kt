package wire

import kotlinx.serialization.json.JsonElement
import okhttp3.MediaType
import okhttp3.RequestBody
import okio.BufferedSink
import okio.ByteString
import okio.Source
import okio.source
import java.io.File

/** Bytes to send, from memory, from a file, or from a function that opens them. */
public class Upload private constructor(
    /** The file name in a form. */
    public val name: String?,
    /** The media type, if it differs from the contract's. */
    public val type: String?,
    /** The number of bytes; -1 if it is not known. */
    internal val size: Long,
    /** Whether it can be sent only once. */
    internal val isOnce: Boolean,
    internal val open: () -> Source,
) {
    public companion object {
        /** Bytes in memory. */
        public fun of(bytes: ByteString, name: String? = null, type: String? = null): Upload =
            Upload(name, type, bytes.size.toLong(), isOnce = false) { okio.Buffer().write(bytes) }

        /** A file, which is never loaded as a whole. */
        public fun of(file: File, name: String? = file.name, type: String? = null): Upload =
            Upload(name, type, file.length(), isOnce = false) { file.source() }

        /**
         * The bytes that [open] returns, for example the content behind a URI.
         *
         * @param isOnce whether it can be opened only once; then it is not sent a second time
         * @param size the number of bytes; -1 if it is not known
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
    /** The value of the header, which is set before the body. */
    val type: String,
    val content: RequestBody,
)

/** A JSON body; null means no body, which is not the JSON value null. */
internal fun jsonBody(value: JsonElement?, type: String = "application/json"): Body? =
    value?.let { textBody(jsonText(it), type) }

internal fun textBody(value: String?, type: String): Body? = value?.let { Body(type, TextContent(it)) }

internal fun bytesBody(value: Upload?, type: String): Body? = value?.let { Body(it.type ?: type, UploadContent(it)) }

/** Bodies report no media type themselves, so that the header is written as in the contract. */
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
