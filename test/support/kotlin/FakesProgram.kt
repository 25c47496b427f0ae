import app.berths.*
import app.passages.*
import app.wire.CallOptions
import app.wire.ConnectionSettings
import app.wire.Mishap
import app.wire.eachRequest
import app.wire.unreachable
import kotlinx.coroutines.flow.toList
import kotlinx.coroutines.runBlocking

/** A component with a fragment, tested alone. */
fun line(voyage: VoyageLinePart): String = "${voyage.id} ${voyage.status.text} ${voyage.vessel.name}"

fun main() = runBlocking {
    val seen = mutableListOf<String>()
    val berths = fakeBerths(
        auth = BerthsAuth(harbourToken = { "secret" }),
        settings = ConnectionSettings(around = listOf(eachRequest { request -> request.also { seen.add(it.call) } })),
    ) {
        getBerth = { request -> sampleBerth(id = request.url.substringAfterLast('/'), note = "from a test") }
        listTariffs = { listOf(sampleTariff(), sampleTariff()) }
        currentNotices = { "No wind." }
        cancelReservation = {}
        reserveBerth = { ReserveBerthFails.conflict(sampleConflictProblem(conflictsWith = "R-1")) }
        tideTable = { unreachable() }
    }
    val harbour = berths.connection
    println(harbour.getBerth(berthId = "N-12").let { "${it.id} ${it.note} ${it.draught}" })
    println(harbour.listTariffs().size)
    println(harbour.currentNotices())
    println(harbour.cancelReservation(reservationId = "r1"))
    try {
        harbour.reserveBerth(berthId = "N-07", body = sampleReservationRequest(vesselId = "v9"), options = CallOptions(headers = mapOf("x-try" to "1")))
    } catch (failure: ReserveBerthFailure) {
        println((failure as ReserveBerthFailure.Conflict).body?.conflictsWith)
    }
    try {
        harbour.tideTable(day = "2026-05-01")
    } catch (failure: TideTableFailure.Other) {
        println(failure.mishap == Mishap.Unreachable)
    }
    try {
        harbour.getVessel(vesselId = "v-1")
    } catch (failure: GetVesselFailure.Other) {
        println(failure.message)
    }
    val reserved = berths.requests.single { it.call == "reserveBerth" }
    println("${reserved.method} ${reserved.url} ${reserved.headers["x-try"]} ${reserved.headers["authorization"]}")
    println(reserved.body?.utf8())
    println("${berths.requests.size} ${seen.size}")

    val passages = fakePassages {
        windNow = { sampleWindNowAnswer(weather = sampleWindNowAnswerWeather(windSpeed = 7.5)) }
        voyageDetails = { VoyageDetailsFails.errors(listOf("No such voyage.")) }
        liveArrivals = { listOf("v1", "v2").map { sampleLiveArrivalsAnswer(arrivals = sampleLiveArrivalsAnswerArrivals(id = it)) } }
        fleet = { FleetAnswer(vessels = listOf(sampleFleetAnswerVesselsSailBoat(name = "Tern"), sampleFleetAnswerVesselsNewer(name = "Kite", typename = "Kite"))) }
    }.connection
    println(passages.windNow().weather?.windSpeed)
    println(passages.liveArrivals().toList().map { it.arrivals.id })
    println(passages.fleet().vessels.map { "${it.name} ${it is FleetAnswer.Vessels.SailBoat}" })
    try {
        passages.voyageDetails(id = "1")
    } catch (failure: VoyageDetailsFailure.Errors) {
        println(failure.errors.single().message)
    }
    println(line(sampleVoyageLinePart(id = "v7", vessel = sampleVoyageLinePartVessel(name = "Tern"))))
}
