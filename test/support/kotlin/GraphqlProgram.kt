package counting.counted

import counting.wire.CallOptions
import counting.wire.ConnectionSettings
import counting.wire.GraphqlSettings
import counting.wire.Mishap
import counting.wire.QueriesBy
import counting.wire.Reconnecting
import counting.wire.Subscriptions
import counting.wire.Upload
import counting.wire.overEvents
import counting.wire.overWebSocket
import counting.wire.sent
import java.io.File
import kotlin.time.Duration.Companion.milliseconds
import kotlin.time.Duration.Companion.seconds
import kotlinx.coroutines.flow.first
import kotlinx.coroutines.flow.toList
import kotlinx.coroutines.runBlocking
import kotlinx.coroutines.withTimeout
import okio.ByteString.Companion.encodeUtf8
import returning.counted.CountedConnection as ReturningConnection
import returning.counted.count as counted
import returning.wire.GraphqlSettings as ReturningSettings
import returning.wire.Outcome
import returning.wire.Reconnecting as ReturningReconnecting
import returning.wire.overEvents as returningOverEvents
import returning.wire.overWebSocket as returningOverWebSocket

private fun first(failure: Exception): String = failure.message.orEmpty().substringAfter(": ")

/** Runs a line of the file, and prints what the app saw as a line of JSON. */
fun main(given: Array<String>) = runBlocking {
    withTimeout(60.seconds) {
        for (line in File(given[0]).readLines()) {
            val (carrier, url, errors) = line.split(' ')
            println(if (carrier == "asked") asked(url) else heard(carrier, url, errors))
        }
    }
}

private fun connected(url: String, subscriptions: Subscriptions? = null, queriesBy: QueriesBy = QueriesBy.Post): CountedConnection =
    CountedConnection(
        baseUrl = url,
        bearer = { "t0ken" },
        graphql = GraphqlSettings(queriesBy = queriesBy, subscriptions = subscriptions),
        settings = ConnectionSettings(headers = { mapOf("x-app" to "quay") }),
    )

private suspend fun heard(carrier: String, url: String, errors: String): String {
    val gives = ArrayList<String>()
    val told = ArrayList<String>()
    var fails: String? = null
    val again = Reconnecting(wait = 1.milliseconds)
    val subscriptions = if (carrier == "events") overEvents(again) else overWebSocket(reconnecting = again)
    val connection = connected(url.replace(Regex("^ws"), "http"), subscriptions)
    try {
        if (errors == "returned") {
            gives.addAll(returned(carrier, url))
        } else {
            val options = if (errors == "told") CallOptions(onErrors = { told.add("\"${first(it)}\"") }) else CallOptions()
            connection.count(options).collect { gives.add(it.n.toString()) }
        }
    } catch (failure: CountFailure) {
        fails = first(failure)
    }
    val more = (if (told.isEmpty()) "" else ",\"told\":$told") + (fails?.let { ",\"fails\":\"$it\"" } ?: "")
    return "{\"gives\":$gives$more}"
}

private suspend fun returned(carrier: String, url: String): List<String> {
    val again = ReturningReconnecting(wait = 1.milliseconds)
    val carried = if (carrier == "events") returningOverEvents(again) else returningOverWebSocket(reconnecting = again)
    val connection = ReturningConnection(
        baseUrl = url.replace(Regex("^ws"), "http"),
        bearer = { "t0ken" },
        graphql = ReturningSettings(subscriptions = carried),
    )
    return connection.counted().toList().map { outcome ->
        when (outcome) {
            is Outcome.Success -> outcome.answer.n.toString()
            is Outcome.Failed -> "\"!${first(outcome.failure)}\""
        }
    }
}

private suspend fun asked(url: String): String {
    val harbour = connected(url)
    val found = ArrayList<String>()
    found.add(harbour.now(text = "x").n.toString())
    found.add(harbour.now(text = "x", note = sent(null)).n.toString())
    found.add(connected(url, queriesBy = QueriesBy.Get).now(text = "a b").n.toString())
    val partly = runCatching { harbour.now(text = "errors") }.exceptionOrNull() as? NowFailure.Errors
    found.add("${partly?.errors?.single()?.message} ${partly?.errors?.single()?.path} ${partly?.data?.n}")
    val odd = runCatching { harbour.now(text = "odd") }.exceptionOrNull() as? NowFailure.Other
    found.add("${odd?.mishap}")
    val page = runCatching { harbour.now(text = "page") }.exceptionOrNull() as? NowFailure.Other
    found.add("${page?.mishap} ${page?.answer?.status}")
    val file = Upload.of("photo".encodeUtf8(), name = "p.png", type = "image/png")
    found.add(harbour.send(files = listOf(file, Upload.of("two".encodeUtf8())), first = file).send.orEmpty())
    found.add(harbour.look(by = Which.Number(number = 7)).which.orEmpty())
    val nested = Which.WhichValue(which = Which.StringShape(string = "x"))
    found.add(harbour.look(by = Which.Those(those = listOf(Which.Name(name = "n"), nested))).which.orEmpty())
    found.add(harbour.put(by = Which.WhichValue(which = Which.File(file = file))).put.orEmpty())
    val silent = runCatching {
        connected(url, overWebSocket(accept = 5.seconds)).count(CallOptions(idle = 100.milliseconds)).first()
    }.exceptionOrNull() as? CountFailure.Other
    found.add("${silent?.mishap == Mishap.TimedOut}")
    return found.joinToString("|").let { "\"${it.replace("\"", "'")}\"" }
}
