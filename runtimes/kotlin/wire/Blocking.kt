package wire

import kotlinx.coroutines.CoroutineStart
import kotlinx.coroutines.Dispatchers
import kotlinx.coroutines.awaitCancellation
import kotlinx.coroutines.coroutineScope
import kotlinx.coroutines.ensureActive
import kotlinx.coroutines.launch
import kotlinx.coroutines.withContext
import java.io.IOException
import java.util.concurrent.atomic.AtomicBoolean

/**
 * Runs a function that blocks its thread on a thread that may block.
 *
 * @param stop ends it at once, from another thread; called when the coroutine is cancelled
 */
internal suspend fun <T> blocking(stop: () -> Unit, work: () -> T): T =
    withContext(Dispatchers.IO) {
        coroutineScope {
            val isDone = AtomicBoolean()
            val guard = launch(start = CoroutineStart.UNDISPATCHED) {
                try {
                    awaitCancellation()
                } finally {
                    if (!isDone.get()) stop()
                }
            }
            try {
                work()
            } catch (error: IOException) {
                // The function failed because it was cancelled.
                ensureActive()
                throw error
            } finally {
                isDone.set(true)
                guard.cancel()
            }
        }
    }
