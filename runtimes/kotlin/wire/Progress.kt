package wire

import okhttp3.MediaType
import okhttp3.RequestBody
import okio.Buffer
import okio.BufferedSink
import okio.ForwardingSink
import okio.Sink
import okio.buffer

/**
 * The progress of an upload, in bytes.
 *
 * @property total null if it is not known
 */
public class UploadProgress internal constructor(public val sent: Long, public val total: Long?) {
    override fun toString(): String = "$sent of ${total ?: "?"}"
}

/**
 * Reports how much of a request's body has been sent, as the innermost layer.
 *
 * @param onProgress called after each piece that is sent, by the thread that sends it, with the request that it is
 *   about
 */
public fun uploadProgress(onProgress: (progress: UploadProgress, request: Outgoing) -> Unit): Layer =
    Layer { request, next ->
        val body = request.body
        next(if (body == null) request else request.withBody(CountedContent(body) { onProgress(it, request) }))
    }

private class CountedContent(
    private val content: RequestBody,
    private val onProgress: (UploadProgress) -> Unit,
) : RequestBody() {
    override fun contentType(): MediaType? = content.contentType()

    override fun contentLength(): Long = content.contentLength()

    override fun isOneShot(): Boolean = content.isOneShot()

    override fun writeTo(sink: BufferedSink) {
        val counting = CountingSink(sink, contentLength().takeIf { it >= 0 }, onProgress).buffer()
        content.writeTo(counting)
        // At most one piece is still buffered here. The platform flushes the sink below.
        counting.emit()
    }
}

private class CountingSink(
    sink: Sink,
    private val total: Long?,
    private val onProgress: (UploadProgress) -> Unit,
) : ForwardingSink(sink) {
    private var sent = 0L

    override fun write(source: Buffer, byteCount: Long) {
        super.write(source, byteCount)
        sent += byteCount
        onProgress(UploadProgress(sent, total))
    }
}
