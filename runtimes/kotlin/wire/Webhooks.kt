package wire

/**
 * What came as a webhook is not what the contract says.
 *
 * @property path JSON Pointer of the first value that does not fit; null where it is no JSON (RFC 6901)
 */
public class UnreadableWebhook internal constructor(message: String, public val path: String?, cause: Throwable) :
    IllegalArgumentException(message, cause)

internal fun <T> received(body: String, reader: Reader<T>): T =
    try {
        reader.read(parseJson(body))
    } catch (error: Mismatch) {
        val place = error.path.ifEmpty { "the body" }
        throw UnreadableWebhook("$place has to be ${error.expected}", error.path, error)
    } catch (error: NoJson) {
        throw UnreadableWebhook("the body is no JSON: ${error.message}", null, error)
    }
