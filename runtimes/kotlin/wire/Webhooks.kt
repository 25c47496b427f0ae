package wire

/**
 * The body of a webhook does not match the contract.
 *
 * @property path JSON Pointer of the first value that does not match (RFC 6901); null if the body is not JSON
 */
public class UnreadableWebhook internal constructor(message: String, public val path: String?, cause: Throwable) :
    IllegalArgumentException(message, cause)

internal fun <T> received(body: String, reader: Reader<T>): T =
    try {
        reader.read(parseJson(body))
    } catch (error: Mismatch) {
        val place = error.path.ifEmpty { "the body" }
        throw UnreadableWebhook("$place must be ${error.expected}", error.path, error)
    } catch (error: NoJson) {
        throw UnreadableWebhook("the body is not JSON: ${error.message}", null, error)
    }
