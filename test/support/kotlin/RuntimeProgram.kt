package quay.harbour

import java.io.File
import java.io.IOException
import java.util.concurrent.atomic.AtomicInteger
import kotlin.time.Duration.Companion.milliseconds
import kotlin.time.Duration.Companion.seconds
import kotlinx.coroutines.CancellationException
import kotlinx.coroutines.CoroutineScope
import kotlinx.coroutines.Dispatchers
import kotlinx.coroutines.async
import kotlinx.coroutines.awaitAll
import kotlinx.coroutines.cancelAndJoin
import kotlinx.coroutines.coroutineScope
import kotlinx.coroutines.delay
import kotlinx.coroutines.flow.first
import kotlinx.coroutines.flow.take
import kotlinx.coroutines.flow.toList
import kotlinx.coroutines.launch
import kotlinx.coroutines.runBlocking
import kotlinx.coroutines.withTimeout
import okio.Buffer
import okio.ByteString.Companion.toByteString
import quay.wire.CallOptions
import quay.wire.Connection
import quay.wire.ConnectionSettings
import quay.wire.Credential
import quay.wire.Layer
import quay.wire.Mishap
import quay.wire.NoJson
import quay.wire.Upload
import quay.wire.jsonText
import quay.wire.numberText
import quay.wire.onEmulator
import quay.wire.parseJson
import quay.wire.problem
import quay.wire.renewable
import quay.wire.retrying
import quay.wire.uploadProgress

private val wrong = ArrayList<String>()

private fun check(what: String, holds: Boolean, found: Any? = null) {
    if (!holds) wrong.add("$what${if (found == null) "" else ": $found"}")
}

private fun same(what: String, expected: Any?, found: Any?) = check(what, expected == found, "$found, not $expected")

fun main(given: Array<String>) {
    val (url, numbers, texts) = given
    for (line in File(numbers).readLines()) {
        val (bits, text) = line.split(' ')
        same("the number $bits", text, numberText(Double.fromBits(bits.toLong())))
    }
    for (line in File(texts).readLines()) {
        val (text, written) = line.split(' ').map { String(java.util.Base64.getDecoder().decode(it)) }
        val found = try {
            jsonText(parseJson(text))
        } catch (_: NoJson) {
            "none"
        }
        same("the JSON $text", written, found)
    }
    runBlocking { withTimeout(60.seconds) { calls(url) } }
    emulator()
    println("${wrong.size} wrong")
    wrong.take(40).forEach(::println)
}

private fun connected(url: String, settings: ConnectionSettings = ConnectionSettings(), token: Credential? = null): HarbourConnection =
    HarbourConnection(auth = HarbourAuth(token = token), baseUrl = url, settings = settings)

private suspend fun calls(url: String) {
    val harbour = connected(url)
    same("an answer", "fine", harbour.quick())
    cancelled(url, harbour)
    same("a call beside six idle streams", "fine", besideStreams(harbour))
    limits(harbour)
    retries(url)
    renewals(url)
    unseen(url)
    uploads(url, harbour)
    streams(harbour)
    details(harbour)
}

private suspend fun cancelled(url: String, harbour: HarbourConnection) = coroutineScope {
    var thrown: Throwable? = null
    val job = launch {
        try {
            harbour.never()
        } catch (error: Throwable) {
            thrown = error
            throw error
        }
    }
    delay(200)
    job.cancelAndJoin()
    check("cancelling is no failure", thrown is CancellationException, thrown)
    val stream = launch { harbour.idle().collect { } }
    delay(200)
    stream.cancelAndJoin()
    delay(300)
    same("requests that are still open", "0", connected(url).open())
}

private suspend fun besideStreams(harbour: HarbourConnection): String = coroutineScope {
    val streams = List(6) { launch { harbour.idle().collect { } } }
    delay(300)
    val answer = withTimeout(5.seconds) { harbour.quick() }
    streams.forEach { it.cancelAndJoin() }
    answer
}

private suspend fun limits(harbour: HarbourConnection) {
    val late = runCatching { harbour.never(options = CallOptions(timeout = 100.milliseconds)) }.exceptionOrNull()
    check("a time limit", (late as? NeverFailure.Other)?.mishap == Mishap.TimedOut, late)
    val silent = runCatching { harbour.idle(options = CallOptions(idle = 200.milliseconds)).collect { } }.exceptionOrNull()
    check("a limit of silence", (silent as? IdleFailure.Other)?.mishap == Mishap.TimedOut, silent)
    val nowhere = runCatching { connected("http://127.0.0.1:1").quick() }.exceptionOrNull()
    check("no server", (nowhere as? QuickFailure.Other)?.mishap == Mishap.Unreachable, nowhere)
    check("its cause", nowhere?.cause is IOException, nowhere?.cause)
    val broken = runCatching { harbour.broken() }.exceptionOrNull()
    check("an answer that breaks off", broken?.message?.contains("was cut off") == true, broken)
}

private suspend fun retries(url: String) {
    val tried = connected(url, ConnectionSettings(around = listOf(retrying(pause = 1.milliseconds))))
    same("a third try", "fine", tried.flaky(times = 2))
    val given = runCatching { tried.flaky(times = 3) }.exceptionOrNull()
    check("no fourth try", given is FlakyFailure.ServiceUnavailable, given)
}

private suspend fun renewals(url: String) = coroutineScope {
    val asked = AtomicInteger()
    val harbour = connected(
        url,
        token = renewable { rejected ->
            asked.incrementAndGet()
            delay(20)
            if (rejected == null) "old" else "new"
        },
    )
    val answers = List(8) { async(Dispatchers.Default) { harbour.secret() } }.awaitAll()
    same("eight answers", List(8) { "fine" }, answers)
    same("how often a token was got", 2, asked.get())
}

private suspend fun unseen(url: String) {
    val told = ArrayList<String>()
    val token = "t0ken-nobody-may-see"
    val auth = HarbourAuth(token = { token })
    val layer = Layer { request, next -> next(request).also { told.add("$request $it") } }
    val settings = ConnectionSettings(around = listOf(layer), onFailure = { told.add(it.toString()) })
    val harbour = HarbourConnection(auth = auth, baseUrl = url, settings = settings)
    told.add("$auth $harbour")
    runCatching { harbour.secret() }.exceptionOrNull()?.let { told.add(it.stackTraceToString()) }
    runCatching { HarbourConnection(auth = HarbourAuth(token = { "$token\n" }), baseUrl = url).secret() }
        .exceptionOrNull()?.let { told.add(it.stackTraceToString()) }
    same("how much is told", 5, told.size)
    check("a token in what is told", told.none { token in it }, told.firstOrNull { token in it })
}

private suspend fun uploads(url: String, harbour: HarbourConnection) {
    val size = 32L * 1024 * 1024
    val chunk = ByteArray(64 * 1024) { 7 }.toByteString()
    val upload = Upload.from(size = size) {
        object : okio.Source {
            private var left = size

            override fun read(sink: Buffer, byteCount: Long): Long {
                if (left == 0L) return -1
                sink.write(chunk)
                left -= chunk.size
                return chunk.size.toLong()
            }

            override fun timeout() = okio.Timeout.NONE

            override fun close() = Unit
        }
    }
    same("an upload that is never loaded whole", "$size", harbour.upload(body = upload))
    val file = File.createTempFile("upload", ".bin").apply { writeBytes(ByteArray(1000)) }
    same("a file", "1000", harbour.upload(body = Upload.of(file)))
    val told = ArrayList<Pair<Long, Long?>>()
    val telling = connected(
        url,
        ConnectionSettings(around = listOf(uploadProgress { progress, _ -> told.add(progress.sent to progress.total) })),
    )
    same("an upload of which the app is told", "$size", telling.upload(body = upload))
    check("its pieces", told.size > 100 && told.zipWithNext().all { (one, next) -> one.first < next.first }, told.size)
    same("its end", size to size, told.lastOrNull())
}

private suspend fun streams(harbour: HarbourConnection) {
    same("some items of a stream", listOf("0", "1", "2"), harbour.counting().take(3).toList())
    val thrown = runCatching { harbour.counting().collect { throw IOException("the app's own") } }.exceptionOrNull()
    same("an error of the collector", "the app's own", thrown?.message)
    same("the first item of another", "0", harbour.counting().first())
}

private suspend fun details(harbour: HarbourConnection) {
    val failure = runCatching { harbour.problem() }.exceptionOrNull() as? ProblemFailure
    same("problem details", "fog", failure?.problem?.detail)
    same("a failure's body", "fog", (failure as? ProblemFailure.Conflict)?.body?.detail)
    val same = runCatching { coroutineScope { async { harbour.problem() }.await() } }.exceptionOrNull()
    check("a failure is no copy of itself", (same as? ProblemFailure.Conflict)?.body?.detail == "fog" && same.cause !is ProblemFailure, same?.cause)
}

private fun emulator() {
    val addresses = mapOf(
        "http://localhost:4020" to "http://10.0.2.2:4020",
        "http://LOCALHOST/a?b=localhost" to "http://10.0.2.2/a?b=localhost",
        "https://127.0.0.1" to "https://10.0.2.2",
        "http://127.0.0.53:80/x" to "http://10.0.2.2:80/x",
        "http://[::1]:4020/" to "http://10.0.2.2:4020/",
        "http://0.0.0.0:1" to "http://10.0.2.2:1",
        "http://localhost.example/" to "http://localhost.example/",
        "http://127.0.0.1.example" to "http://127.0.0.1.example",
        "https://harbour.example/localhost" to "https://harbour.example/localhost",
        "http://user@localhost/" to "http://user@localhost/",
        "localhost:4020" to "localhost:4020",
        "" to "",
    )
    for ((url, expected) in addresses) same("on the emulator $url", expected, onEmulator(url))
}
