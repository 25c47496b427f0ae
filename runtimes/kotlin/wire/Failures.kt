package wire

import okhttp3.Headers
import java.io.IOException

/** How a call failed. Every call has a class of its own below this one, which says what its contract declares. */
public abstract class CallFailure internal constructor(report: Report) :
    Exception("${report.call}: ${report.message}", report.cause) {
    /** The call's name: "contract.call". */
    public val call: String = report.call

    /** What the server answered; null when it did not. */
    public val answer: FailedAnswer? = report.answer
}

/** An answer that is a failure. */
public class FailedAnswer internal constructor(
    /** The status that was sent. */
    public val status: Int,
    public val headers: Headers,
    /** The body as text. */
    public val text: String,
)

/** What can happen to any call. */
public sealed interface Mishap {
    /** A status that the contract does not declare; the failure's `answer` says which. */
    public class Unexpected internal constructor(public val status: Int) : Mishap {
        override fun toString(): String = "Unexpected($status)"
    }

    /** An answer whose body cannot be read as what the contract says. */
    public class Malformed internal constructor(
        /** JSON pointer to the first value that is something else (RFC 6901); null where the body is no JSON at all. */
        public val path: String?,
    ) : Mishap {
        override fun toString(): String = "Malformed(${path ?: "no JSON"})"
    }

    /** The server could not be reached, or the request could not be sent; the failure's `cause` may say more. */
    public data object Unreachable : Mishap

    /** The time was over. */
    public data object TimedOut : Mishap
}

/** What a failure is made of. */
internal class Report(val call: String, val message: String, val cause: Throwable?, val answer: FailedAnswer?)

/** Something that can happen to any call, before it is known which call's failure it becomes. */
internal class Trouble(
    message: String,
    val mishap: Mishap = Mishap.Unreachable,
    cause: Throwable? = null,
    val answer: FailedAnswer? = null,
) : IOException(message, cause)

/** Makes the failure of a call of what can happen to any. */
internal typealias OtherFailure = (Report, Mishap) -> CallFailure

/** The failure that an error becomes; null for errors of the app's own. */
internal fun failureOf(call: String, error: Throwable, other: OtherFailure): CallFailure? =
    when (error) {
        is CallFailure -> error
        is Trouble -> other(Report(call, error.message.orEmpty(), error.cause, error.answer), error.mishap)
        else -> null
    }
