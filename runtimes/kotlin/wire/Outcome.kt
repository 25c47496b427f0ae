package wire

import kotlinx.coroutines.flow.Flow
import kotlinx.coroutines.flow.catch
import kotlinx.coroutines.flow.map

/** The result of a call: its response or its failure. */
public sealed interface Outcome<out Answer, out Failure> {
    public data class Success<out Answer>(public val answer: Answer) : Outcome<Answer, Nothing>

    public data class Failed<out Failure>(public val failure: Failure) : Outcome<Nothing, Failure>
}

/** Returns the response, or throws the failure. */
public fun <Answer> Outcome<Answer, CallFailure>.orThrow(): Answer =
    when (this) {
        is Outcome.Success -> answer
        is Outcome.Failed -> throw failure
    }

/** The response; null if the call failed. */
public fun <Answer> Outcome<Answer, *>.orNull(): Answer? = (this as? Outcome.Success)?.answer

/**
 * Returns the outcome of a call instead of throwing its failure. Errors that are not failures of the call are still
 * thrown.
 */
internal inline fun <Answer, reified Failure : CallFailure> settled(call: () -> Answer): Outcome<Answer, Failure> =
    try {
        Outcome.Success(call())
    } catch (failure: CallFailure) {
        if (failure !is Failure) throw failure
        Outcome.Failed(failure)
    }

/** The outcomes of a call that responds item by item. A failure is the last one. */
internal inline fun <Item, reified Failure : CallFailure> settledItems(items: Flow<Item>): Flow<Outcome<Item, Failure>> =
    items.map<Item, Outcome<Item, Failure>> { Outcome.Success(it) }
        .catch { failure -> emit(Outcome.Failed(failure as? Failure ?: throw failure)) }
