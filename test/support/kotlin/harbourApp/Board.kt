package app.board

import app.text.*
import com.ostrel.harbour.berths.*
import com.ostrel.harbour.berths.Berth as Place
import kotlinx.coroutines.flow.map
import kotlinx.coroutines.flow.toList

/** The content of the board. */
data class Board(val places: List<Place> = emptyList(), val chosen: Place? = null, val tariffs: List<Tariff> = emptyList())

class BoardModel(private val harbour: BerthsConnection) {
    var board = Board()
        private set

    suspend fun refresh(longest: Double? = null) {
        val page = harbour.listBerths(status = listOf(BerthStatus.Free, BerthStatus.Reserved), minLength = longest, pageSize = 20)
        board = board.copy(places = page.items, tariffs = harbour.listTariffs())
        page.nextCursor?.let { println("more after $it") }
    }

    suspend fun ids(): List<String> = harbour.listBerthsItems(quay = "north").map { it.id }.toList()

    suspend fun choose(id: String) {
        val found = harbour.getBerth(berthId = id)
        board = board.copy(chosen = found)
        with(found) {
            println("$quay ${length.metres()}")
        }
    }

    suspend fun note(place: Place, text: String?): Place {
        val change = BerthChange(note = com.ostrel.harbour.wire.sent(text), status = BerthStatus.Closed)
        return harbour.changeBerth(berthId = place.id, body = change)
    }

    fun lines(): List<String> = board.places.sortedBy { it.id }.mapIndexed { at, each -> "$at ${each.line()}" }

    fun free(): Int = board.places.count { it.status == BerthStatus.Free && it.shorePower }

    fun prices(): Map<String, List<Money>> = board.tariffs.groupBy({ it.season?.text.orEmpty() }, { it.nightly })

    private fun Place.line(): String = listOfNotNull(id, note, occupant?.name, draught?.metres(), createdAt).joinToString()
}

fun colour(status: BerthStatus): String =
    when (status) {
        BerthStatus.Free -> "green"
        BerthStatus.Reserved, BerthStatus.Occupied -> "amber"
        BerthStatus.Closed -> "red"
        else -> "grey"
    }
