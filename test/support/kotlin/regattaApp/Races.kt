package app.races

import com.ostrel.regatta.fleet.*
import com.ostrel.regatta.fleet.OneRaceAnswer.Race as Shown
import com.ostrel.regatta.wire.sent
import kotlinx.coroutines.flow.Flow
import kotlinx.coroutines.flow.map

/** The content of the list of races. */
data class Row(val id: String, val title: String, val colour: String)

class RaceModel(private val fleet: FleetConnection) {
    suspend fun rows(named: String?): List<Row> {
        val filter = RaceFilter(
            classValue = sent(Class.Keelboat),
            limits = sent(Limits(crew = 3, shortest = sent(2.5))),
            named = sent(named),
            state = sent(listOf(RaceState.Planned, RaceState.Running)),
        )
        return fleet.raceList(filter = sent(filter), first = sent(20)).races.map { Row(it.id, it.title, colour(it.state)) }
    }

    suspend fun race(id: String): Shown? = fleet.oneRace(by = By.Id(id = id)).race

    suspend fun named(name: String): Shown? = fleet.oneRace(By.Name(name)).race

    suspend fun seconds(): Double = fleet.fixedRace().race?.results?.sumOf { it.seconds } ?: 0.0

    suspend fun places(): List<Pair<String, Int>> =
        fleet.fixedRace().race?.results.orEmpty().mapNotNull { result -> result.place?.let { result.craft.name to it } }

    suspend fun laser(): Map<String, Double> =
        fleet.laser().races.associate { (results, title) -> title to (results.firstOrNull()?.seconds ?: 0.0) }

    fun finished(race: String): Flow<String> =
        fleet.finished(raceId = sent(race)).map { "${it.finished.craft.name}: ${it.finished.seconds} s" }
}

fun colour(state: RaceState): String =
    when (state) {
        RaceState.Planned -> "grey"
        RaceState.Running -> "green"
        RaceState.Finished, RaceState.Abandoned -> "red"
        else -> "white"
    }

fun told(race: Shown): String {
    val longest = race.legs?.maxOfOrNull { it.length } ?: 0.0
    val winner = race.winner?.name ?: "nobody yet"
    return with(race) { "$title from $start, $distance m, longest leg $longest m, won by $winner, ${notes?.size} notes" }
}

fun headings(race: Shown): List<Int> = race.legs.orEmpty().mapNotNull { it.heading }

fun isLong(race: Shown): Boolean = race.distance > 10_000

suspend fun notices(fleet: FleetConnection): List<String> =
    fleet.notices().notices.map { notice ->
        when (notice) {
            is NoticesAnswer.Notices.Entry -> if (notice.accepted) "accepted, ${notice.fee ?: 0.0}" else "refused"
            is NoticesAnswer.Notices.Race -> "${notice.title} is ${colour(notice.state)}"
            is NoticesAnswer.Notices.Newer -> "something new: ${notice.typename}"
        }
    }
