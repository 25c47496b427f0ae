package harness

import java.net.HttpURLConnection
import java.net.URL
import kotlinx.coroutines.CancellationException
import kotlinx.coroutines.CoroutineStart
import kotlinx.coroutines.async
import kotlinx.coroutines.coroutineScope
import kotlinx.coroutines.delay
import kotlinx.coroutines.flow.Flow
import kotlinx.coroutines.runBlocking
import kotlinx.coroutines.supervisorScope
import kotlinx.serialization.json.JsonElement
import kotlinx.serialization.json.JsonNull
import kotlinx.serialization.json.JsonObject
import kotlinx.serialization.json.JsonPrimitive

/** Runs steps in order. A server permits each one, handles its calls, and gets its result at the end. */
fun play(control: String, steps: List<suspend (String, Any?, MutableList<Any?>) -> Any?>) = runBlocking {
    var before: Any? = null
    for ((at, step) in steps.withIndex()) {
        val url = asked("$control/$at", null)
        val told = ArrayList<Any?>()
        val items = ArrayList<Any?>()
        val seen = LinkedHashMap<String, JsonElement>()
        try {
            val value = step(url, before, told)
            before = value
            if (value is Flow<*>) value.collect { items.add(it) }
            seen["isFlow"] = JsonPrimitive(value is Flow<*>)
            seen["gives"] = dump(if (value is Flow<*>) items else value)
        } catch (error: Exception) {
            seen["isFlow"] = JsonPrimitive(items.isNotEmpty())
            seen["gives"] = dump(items)
            seen["fails"] = failed(error)
        }
        seen["told"] = dump(told)
        asked("$control/$at", JsonObject(seen).toString())
    }
}

/** Thrown if the app cancelled the call. */
class Aborted : Exception()

/** Cancels a call: at once, or after this many milliseconds. */
suspend fun cancelling(afterMs: Long, call: suspend () -> Any?): Any? = coroutineScope {
    val job = async(start = if (afterMs == 0L) CoroutineStart.LAZY else CoroutineStart.DEFAULT) {
        val value = call()
        if (value is Flow<*>) value.collect {}
        value
    }
    delay(afterMs)
    job.cancel()
    try {
        supervisorScope { job.await() }
    } catch (error: CancellationException) {
        throw Aborted()
    }
}

private fun failed(error: Exception): JsonElement {
    val answer = property(error, "Answer")
    val mishap = property(error, "Mishap")
    return JsonObject(
        mapOf(
            "class" to JsonPrimitive(error.javaClass.simpleName),
            "message" to JsonPrimitive(error.toString()),
            "mishap" to (mishap?.let { JsonPrimitive(it.javaClass.simpleName) } ?: JsonNull),
            "path" to (mishap?.let { property(it, "Path") }?.let { JsonPrimitive(it as String) } ?: JsonNull),
            "httpStatus" to (answer?.let { property(it, "Status") }?.let { JsonPrimitive(it as Int) } ?: JsonNull),
            "text" to (answer?.let { property(it, "Text") }?.let { JsonPrimitive(it as String) } ?: JsonNull),
            "body" to dump(property(error, "Body")),
            "hasBody" to JsonPrimitive(property(error, "Body") != null),
        ),
    )
}

private fun property(of: Any, name: String): Any? =
    of.javaClass.methods.firstOrNull { it.name == "get$name" || it.name.startsWith("get$name-") }
        ?.also { it.isAccessible = true }?.invoke(of)

private fun asked(url: String, said: String?): String {
    val connection = URL(url).openConnection() as HttpURLConnection
    if (said != null) {
        connection.requestMethod = "POST"
        connection.doOutput = true
        connection.outputStream.use { it.write(said.toByteArray()) }
    }
    return connection.inputStream.use { it.readBytes().decodeToString() }
}
