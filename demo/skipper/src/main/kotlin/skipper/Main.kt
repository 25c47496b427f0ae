package skipper

import kotlinx.coroutines.flow.take
import kotlinx.coroutines.flow.toList
import kotlinx.coroutines.runBlocking
import skipper.harbour.berths.*
import skipper.harbour.passages.MyVoyageFailure
import skipper.harbour.passages.PassagesConnection
import skipper.harbour.passages.VoyageCardPart
import skipper.harbour.passages.VoyagePlan
import skipper.harbour.passages.myVoyage
import skipper.harbour.passages.planTrip
import kotlin.system.exitProcess

/** Finds a berth, reserves it, and plans the voyage there. */
class Trip(private val berths: BerthsConnection, private val passages: PassagesConnection) {
    suspend fun berth(longest: Double): Berth? =
        berths.listBerths(status = listOf(BerthStatus.Free), minLength = longest).items.firstOrNull()

    suspend fun reserve(berth: Berth, vessel: Vessel): String {
        val request = ReservationRequest(arrival = "2026-07-01", departure = "2026-07-03", vesselId = id(vessel))
        return try {
            val reservation = berths.reserveBerth(berthId = berth.id, body = request)
            "reserved ${reservation.berthId} for ${reservation.price.amount} ${reservation.price.currency}"
        } catch (failure: ReserveBerthFailure) {
            when (failure) {
                is ReserveBerthFailure.Conflict -> "taken by ${failure.body?.conflictsWith}"
                is ReserveBerthFailure.Other -> "no response: ${failure.mishap}"
                else -> failure.message.orEmpty()
            }
        }
    }

    suspend fun vessels(): List<Vessel> = berths.listVesselsItems().take(3).toList()

    suspend fun plan(vessel: Vessel): String {
        val plan = VoyagePlan(departsAt = "2026-07-01T08:30:00Z", from = "Ostrel", to = "Lom", vesselId = id(vessel))
        return card(passages.planTrip(plan = plan).planVoyage)
    }

    suspend fun voyage(id: String): String =
        try {
            passages.myVoyage(id = id).voyage?.let { "${card(it)}; ${it.berth ?: "no berth yet"}" } ?: "no such voyage"
        } catch (failure: MyVoyageFailure) {
            failure.message.orEmpty()
        }
}

/** A part of the screen. It knows the fragment, but not the queries that spread it. */
fun card(voyage: VoyageCardPart): String =
    "${voyage.vessel.name} (${voyage.vessel.length} m) from ${voyage.from.name}: ${voyage.status.text}"

fun id(vessel: Vessel): String =
    when (vessel) {
        is MotorVessel -> vessel.id
        is SailVessel -> vessel.id
        is RowingVessel -> vessel.id
        is Vessel.Other -> "unknown"
    }

fun main(arguments: Array<String>): Unit = runBlocking {
    val address = arguments.firstOrNull() ?: "http://127.0.0.1:4020"
    val trip = Trip(
        BerthsConnection(auth = BerthsAuth(harbourToken = { "any-token" }), baseUrl = "$address/berths"),
        PassagesConnection(baseUrl = "$address/passages"),
    )
    val vessel = trip.vessels().first()
    val berth = trip.berth(longest = 8.0)
    println(if (berth == null) "no berth is free" else trip.reserve(berth, vessel))
    println(trip.plan(vessel))
    println(trip.voyage("v-1"))
    exitProcess(0)
}
