package wire

import kotlinx.coroutines.delay
import kotlinx.coroutines.flow.Flow
import kotlinx.coroutines.flow.flow
import kotlin.time.Duration
import kotlin.time.Duration.Companion.milliseconds
import kotlin.time.Duration.Companion.seconds

/** One subscription that is about to begin. */
public class Subscribed internal constructor(
    internal val connection: GraphqlConnection,
    internal val operation: Operation<*>,
    internal val variables: Variables,
    internal val options: CallOptions,
)

/** The transport of subscriptions: [overEvents] or [overWebSocket]. */
public class Subscriptions internal constructor(
    /** Begins a subscription, returns its results, and reports when it has begun. */
    internal val carry: suspend (Subscribed, begun: () -> Unit, give: suspend (GraphqlResult) -> Unit) -> Unit,
    internal val reconnecting: Reconnecting,
)

/**
 * How a subscription reconnects after it was disconnected.
 *
 * @property tries the largest number of attempts without a result in between; 0 for none
 * @property wait the pause before the first attempt; each further pause is twice as long, at most 30 seconds
 */
public class Reconnecting(internal val tries: Int = 5, internal val wait: Duration = 500.milliseconds)

/** Subscriptions over server-sent events, each a request of its own. */
public fun overEvents(reconnecting: Reconnecting = Reconnecting()): Subscriptions = Subscriptions(::listen, reconnecting)

private val longestWait = 30.seconds

/**
 * Performs a subscription: one value for each result, until it is complete or the collector stops. A result with errors
 * ends it, unless the options of the call handle such results.
 */
internal fun <Answer : Any> GraphqlConnection.subscribe(
    operation: Operation<Answer>,
    variables: Variables,
    options: CallOptions,
): Flow<Answer> = flow {
    toldItems(this@subscribe, operation.call, operation.other) { into ->
        results(operation, variables, options) { outcome ->
            when (outcome) {
                is Outcome.Success -> into.emit(outcome.answer)
                is Outcome.Failed -> options.onErrors?.invoke(outcome.failure) ?: throw outcome.failure
            }
        }
    }
}

/** Performs a subscription: the outcome of each result. One with errors does not end it; any other failure does. */
internal inline fun <Answer : Any, reified Failure : CallFailure> GraphqlConnection.subscribeOutcomes(
    operation: Operation<Answer>,
    variables: Variables,
    options: CallOptions,
): Flow<Outcome<Answer, Failure>> =
    settledItems<Outcome<Answer, CallFailure>, Failure>(outcomesOf(operation, variables, options)).flattened()

internal fun <Answer : Any> GraphqlConnection.outcomesOf(
    operation: Operation<Answer>,
    variables: Variables,
    options: CallOptions,
): Flow<Outcome<Answer, CallFailure>> = flow {
    toldItems(this@outcomesOf, operation.call, operation.other) { into ->
        results(operation, variables, options) { outcome ->
            if (outcome is Outcome.Failed) settings.onFailure?.invoke(outcome.failure)
            into.emit(outcome)
        }
    }
}

/** Merges the outcomes of results and the failure that ends them into outcomes of one type. */
@Suppress("UNCHECKED_CAST")
internal fun <Answer, Failure : CallFailure> Flow<Outcome<Outcome<Answer, CallFailure>, Failure>>.flattened():
    Flow<Outcome<Answer, Failure>> = flow {
    collect { outcome ->
        when (outcome) {
            is Outcome.Failed -> emit(outcome)
            is Outcome.Success -> emit(outcome.answer as Outcome<Answer, Failure>)
        }
    }
}

/** The results of a subscription. Errors in a result do not end it (GraphQL specification, section 6.2.3.2). */
private suspend fun <Answer : Any> GraphqlConnection.results(
    operation: Operation<Answer>,
    variables: Variables,
    options: CallOptions,
    give: suspend (Outcome<Answer, CallFailure>) -> Unit,
) {
    val subscriptions = graphql.subscriptions ?: overEvents()
    reconnected(subscriptions, Subscribed(this, operation, variables, options)) { result ->
        val outcome = try {
            Outcome.Success(dataOf(operation, result, OK))
        } catch (failure: CallFailure) {
            Outcome.Failed(failure)
        }
        give(outcome)
    }
}

private const val OK = 200

/**
 * Reconnects a subscription that was disconnected after it had begun. The failure of the first attempt is thrown to the
 * app.
 */
private suspend fun reconnected(
    subscriptions: Subscriptions,
    subscribed: Subscribed,
    give: suspend (GraphqlResult) -> Unit,
) {
    val (tries, wait) = subscriptions.reconnecting.let { it.tries to it.wait }
    var left: Int? = null
    while (true) {
        try {
            return subscriptions.carry(subscribed, { left = left ?: tries }) { result ->
                left = tries
                give(result)
            }
        } catch (error: Trouble) {
            val still = left ?: 0
            if (error.mishap != Mishap.Unreachable || still <= 0) throw error
            delay(minOf(longestWait, wait * (1 shl (tries - still).coerceAtMost(16))))
            left = still - 1
        }
    }
}

private suspend fun listen(subscribed: Subscribed, begun: () -> Unit, give: suspend (GraphqlResult) -> Unit) {
    val connection = subscribed.connection
    val options = subscribed.options
    val exchanged = withLimit(options.timeout ?: connection.settings.timeout) {
        val asking = Asking("text/event-stream", isStream = true)
        connection.request(subscribed.operation, subscribed.variables, options, asking)
    }
    exchanged.response.use { response ->
        val received = Received(response, exchanged.outgoing)
        val type = response.header("content-type").orEmpty()
        if (!response.isSuccessful || !type.startsWith("text/event-stream", ignoreCase = true)) {
            throw blocking(response::close) { refused(subscribed.operation, received) }
        }
        begun()
        val cutter = EventCutter(StreamState(), withEmpty = true)
        while (true) {
            val events = waited(received, options.idle) { source -> source.nextPieces(cutter) } ?: return
            for (event in events) {
                if (event.event == "complete") return
                if (event.event != "next") continue
                give(resultOf(parsed(event.data)) ?: throw noResult(received, event.data))
            }
        }
    }
}

private fun noResult(received: Received, text: String): Trouble {
    val answer = FailedAnswer(OK, received.response.headers, text)
    return Trouble("an event is not a GraphQL result", Mishap.Malformed(null), answer = answer)
}

private fun <Answer> refused(operation: Operation<Answer>, received: Received): Exception {
    val response = received.response
    val text = received.text
    val errors = resultOf(parsed(text))?.errors
    if (errors != null) return errorsOf(operation, errors, null)
    return Trouble(
        "the server responded with ${response.code} without a stream: ${excerpt(response.header("content-type"), text)}",
        Mishap.Unexpected(response.code),
        answer = FailedAnswer(response.code, response.headers, text),
    )
}
