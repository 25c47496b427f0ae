package bench.program

import bench.quays.PageForm
import bench.quays.QuaysConnection
import bench.quays.Request
import bench.quays.reserve
import bench.wire.ConnectionSettings
import bench.wire.parseJson
import java.io.File
import java.io.IOException
import java.lang.management.ManagementFactory
import java.net.URLEncoder
import kotlin.coroutines.resume
import kotlin.coroutines.resumeWithException
import kotlinx.coroutines.Dispatchers
import kotlinx.coroutines.coroutineScope
import kotlinx.coroutines.launch
import kotlinx.coroutines.runBlocking
import kotlinx.coroutines.suspendCancellableCoroutine
import kotlinx.serialization.Serializable
import kotlinx.serialization.json.Json
import okhttp3.Call
import okhttp3.Callback
import okhttp3.MediaType.Companion.toMediaType
import okhttp3.OkHttpClient
import okhttp3.RequestBody.Companion.toRequestBody
import okhttp3.Response

@Serializable
data class HandPage(val items: List<HandBerth>)

@Serializable
data class HandBerth(
    val id: String,
    val quay: String,
    val length: Double,
    val places: Long,
    val status: String,
    val shorePower: Boolean? = null,
    val note: String? = null,
    val tags: List<String>,
    val size: HandSize? = null,
)

@Serializable
data class HandSize(val width: Double, val depth: Double)

@Serializable
data class HandRequest(val vesselId: String, val arrival: String, val departure: String)

@Serializable
data class HandReservation(
    val id: String,
    val berthId: String,
    val state: String,
    val arrival: String,
    val departure: String,
)

fun main(given: Array<String>) {
    val (page, address, rounds) = given
    val text = File(page).readText()
    val count = Json.decodeFromString<HandPage>(text).items.size
    compare(
        "reading ${(text.length + 500_000) / 1_000_000} MB",
        3.0,
        rounds.toInt(),
        { check(PageForm.read(parseJson(text)).items.size == count) },
        { check(Json.decodeFromString<HandPage>(text).items.size == count) },
    )
    val client = OkHttpClient()
    val harbour = QuaysConnection(baseUrl = address, settings = ConnectionSettings(client = client))
    compare(
        "10,000 calls, CPU time",
        1.25,
        rounds.toInt(),
        { together { harbour.reserve("N-07", Request(arrival = "2026-05-01", departure = "2026-05-02", vesselId = "v-1")).id } },
        { together { byHand(client, address, "N-07", HandRequest("v-1", "2026-05-01", "2026-05-02")).id } },
    )
    client.dispatcher.executorService.shutdown()
    client.connectionPool.evictAll()
}

/** Twenty callers at once, as in an app, with 10,000 calls in all. */
private fun together(call: suspend () -> String) = runBlocking(Dispatchers.Default) {
    coroutineScope {
        repeat(20) { launch { repeat(500) { check(call() == "r-1") } } }
    }
}

/** The code of a careful developer. */
private suspend fun byHand(client: OkHttpClient, address: String, berthId: String, body: HandRequest): HandReservation {
    val request = okhttp3.Request.Builder()
        .url("$address/berths/${URLEncoder.encode(berthId, "UTF-8")}/reservations")
        .header("Accept", "application/json")
        .post(Json.encodeToString(HandRequest.serializer(), body).toRequestBody("application/json".toMediaType()))
        .build()
    val call = client.newCall(request)
    return suspendCancellableCoroutine { continuation ->
        continuation.invokeOnCancellation { call.cancel() }
        call.enqueue(object : Callback {
            override fun onFailure(call: Call, e: IOException) = continuation.resumeWithException(e)

            override fun onResponse(call: Call, response: Response) {
                try {
                    val said = response.use { it.body.string() }
                    check(response.code == 201)
                    continuation.resume(Json.decodeFromString(HandReservation.serializer(), said))
                } catch (error: Exception) {
                    continuation.resumeWithException(error)
                }
            }
        })
    }
}

private val system = ManagementFactory.getOperatingSystemMXBean() as com.sun.management.OperatingSystemMXBean

/** Runs both in turn, after some rounds in which the JVM warms up, and prints the medians and their ratio. */
private fun compare(what: String, aim: Double, rounds: Int, own: () -> Unit, hand: () -> Unit) {
    repeat(3) {
        own()
        hand()
    }
    val found = List(2) { ArrayList<Double>() }
    repeat(rounds) { round ->
        for (which in if (round % 2 == 0) listOf(0, 1) else listOf(1, 0)) {
            System.gc()
            val before = system.processCpuTime
            if (which == 0) own() else hand()
            found[which].add((system.processCpuTime - before) / 1e9)
        }
    }
    val (first, second) = found.map { it.sorted()[it.size / 2] }
    val ratio = first / second
    println("%-24s SDK %.3f s, by hand %.3f s".format(what, first, second))
    println("%.2f times (aim: at most %.2f)%s".format(ratio, aim, if (ratio > aim) "  MISSED" else ""))
}
