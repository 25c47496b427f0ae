package wire

import okhttp3.Headers
import java.io.IOException

/** How a call failed. Every call has a subclass of its own with the failures that its contract declares. */
public abstract class CallFailure internal constructor(report: Report) :
    Exception("${report.call}: ${report.message}", report.cause) {
    /** The name of the call: "contract.call". */
    public val call: String = report.call

    /** The response of the server; null if there was none. */
    public val answer: FailedAnswer? = report.answer
}

/** A response that is a failure. */
public class FailedAnswer internal constructor(
    /** The status of the response. */
    public val status: Int,
    public val headers: Headers,
    /** The body as text. */
    public val text: String,
)

/** Failures that every call can have. */
public sealed interface Mishap {
    /** A status that the contract does not declare; see the failure's `answer`. */
    public class Unexpected internal constructor(public val status: Int) : Mishap {
        override fun toString(): String = "Unexpected($status)"
    }

    /** A response whose body does not match the contract. */
    public class Malformed internal constructor(
        /** JSON pointer to the first value that does not match (RFC 6901); null if the body is not JSON. */
        public val path: String?,
    ) : Mishap {
        override fun toString(): String = "Malformed(${path ?: "no JSON"})"
    }

    /** The server could not be reached, or the request could not be sent; the failure's `cause` may give the reason. */
    public data object Unreachable : Mishap

    /** The time limit was reached. */
    public data object TimedOut : Mishap
}

/** The parts of a failure. */
internal class Report(val call: String, val message: String, val cause: Throwable?, val answer: FailedAnswer?)

/** A failure that every call can have, before the call is known. */
internal class Trouble(
    message: String,
    val mishap: Mishap = Mishap.Unreachable,
    cause: Throwable? = null,
    val answer: FailedAnswer? = null,
) : IOException(message, cause)

/** Creates the failure of a call from one that every call can have. */
internal typealias OtherFailure = (Report, Mishap) -> CallFailure

/** The failure for an error; null for errors of the app's own. */
internal fun failureOf(call: String, error: Throwable, other: OtherFailure): CallFailure? =
    when (error) {
        is CallFailure -> error
        is Trouble -> other(Report(call, error.message.orEmpty(), error.cause, error.answer), error.mishap)
        else -> null
    }
