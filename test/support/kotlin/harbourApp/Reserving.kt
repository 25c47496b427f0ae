package app.reserving

import app.text.shown
import app.text.titled
import com.ostrel.harbour.berths.*
import com.ostrel.harbour.wire.CallOptions
import com.ostrel.harbour.wire.Mishap

sealed interface Reserved {
    data class Done(val reservation: Reservation) : Reserved

    data class Refused(val why: String) : Reserved
}

class Desk(auth: String) {
    private val harbour = BerthsConnection(auth = BerthsAuth(harbourToken = { auth }), baseUrl = "http://localhost:4020/berths")

    suspend fun reserve(berth: String, vessel: VesselSummary, days: Pair<String, String>): Reserved {
        val request = ReservationRequest(arrival = days.first, departure = days.second, vesselId = vessel.id, crew = 3)
        return try {
            Reserved.Done(harbour.reserveBerth(berthId = berth, idempotencyKey = "k-1", body = request, options = CallOptions()))
        } catch (failure: ReserveBerthFailure) {
            Reserved.Refused(why(failure))
        }
    }

    private fun why(failure: ReserveBerthFailure): String =
        when (failure) {
            is ReserveBerthFailure.Conflict -> failure.body?.conflictsWith ?: "taken"
            is ReserveBerthFailure.NotFound -> failure.body?.title ?: "no such berth"
            is ReserveBerthFailure.UnprocessableContent -> failure.body?.errors?.joinToString { "${it.field} ${it.message}" } ?: "wrong"
            is ReserveBerthFailure.Other -> if (failure.mishap == Mishap.Unreachable) "no network" else "later"
            else -> failure.message.orEmpty()
        }

    suspend fun list(from: String, until: String): List<String> =
        harbour.listReservations(from = from, until = until).items.map(::summary)

    suspend fun cancel(reservation: Reservation) = harbour.cancelReservation(reservationId = reservation.id, reason = "wind")

    suspend fun notices(): List<String> = harbour.currentNotices().lines()
}

fun summary(reservation: Reservation): String {
    val price = reservation.price.shown()
    if (reservation.state == ReservationState.Cancelled) return "cancelled"
    return "${titled(reservation.vessel)} ${reservation.arrival}-${reservation.departure} $price ${reservation.crew ?: 0} ${reservation.remarks.orEmpty()}"
}
