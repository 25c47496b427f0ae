package app.crews

import com.ostrel.regatta.fleet.AnEntityAnswer
import com.ostrel.regatta.fleet.AnEntityAnswer.Entity.CruiserOrDinghy
import com.ostrel.regatta.fleet.Class
import com.ostrel.regatta.fleet.CraftsAnswer
import com.ostrel.regatta.fleet.EntryInput
import com.ostrel.regatta.fleet.FindAnswer
import com.ostrel.regatta.fleet.FleetConnection
import com.ostrel.regatta.fleet.HullPart
import com.ostrel.regatta.fleet.Loose
import com.ostrel.regatta.fleet.NamedPart
import com.ostrel.regatta.fleet.OneCraftAnswer.Craft
import com.ostrel.regatta.fleet.anEntity
import com.ostrel.regatta.fleet.crafts
import com.ostrel.regatta.fleet.enter
import com.ostrel.regatta.fleet.find
import com.ostrel.regatta.fleet.findMore
import com.ostrel.regatta.fleet.grid
import com.ostrel.regatta.fleet.oneCraft
import com.ostrel.regatta.fleet.rename
import com.ostrel.regatta.fleet.theClub
import com.ostrel.regatta.fleet.who
import com.ostrel.regatta.fleet.withdraw
import com.ostrel.regatta.wire.Sent
import com.ostrel.regatta.wire.sent

/** A component with a fragment. */
fun hull(part: HullPart): String = "${part.sailNumber} ${part.classValue.text} ${part.colour}"

fun person(part: NamedPart): String = "${part.name} (${part.id}), born ${part.born}"

class Crews(private val fleet: FleetConnection) {
    suspend fun craft(id: String): String {
        val craft = fleet.oneCraft(id = id).craft ?: return "none"
        val length = craft.length?.let { "$it m" } ?: "unknown"
        return when (craft) {
            is Craft.Cruiser -> "${craft.name}, $length, ${craft.cabins * 2} berths, ${craft.owner?.club?.name}"
            is Craft.Dinghy -> "${craft.name}, $length, ${hull(craft)}, ${craft.owner?.name}"
            is Craft.Newer -> "${craft.name}, $length"
        }
    }

    suspend fun crews(): List<String> = fleet.crafts(limit = 5, lengths = sent(listOf(4.2, 5.0))).crafts.map(::line)

    suspend fun marks(): Int = fleet.crafts(limit = 1).crafts.sumOf { it.marks.orEmpty().sumOf { marks -> marks.sum() } }

    suspend fun find(text: String): List<String> = fleet.find(text = text).find.mapNotNull(::found)

    suspend fun clubs(): Int = fleet.findMore().find.count { it is com.ostrel.regatta.fleet.FindMoreAnswer.Find.Club }

    suspend fun length(id: String): Double {
        val entity = fleet.anEntity(id).entity
        return if (entity is CruiserOrDinghy) entity.length ?: 0.0 else 0.0
    }

    suspend fun nickname(id: String): String? = (fleet.anEntity(id).entity as? AnEntityAnswer.Entity.Person)?.nickname?.uppercase()

    suspend fun who(name: String): String = fleet.who(by = sent(Loose(name = sent(name)))).person?.let(::person).orEmpty()

    suspend fun club(name: String): String {
        val (all, members, own, some) = fleet.theClub(first = 3, name = sent(name)).club ?: return ""
        return "$own: ${all.size} of ${members.joinToString { it.name }}, ${some.map { it.id }}"
    }

    suspend fun cells(): List<Int> = fleet.grid().grid.orEmpty().flatten().filterNotNull()

    suspend fun enter(race: String, craft: Craft, crew: List<String>, remarks: String?): Boolean {
        val entry = EntryInput(
            classValue = Class.Laser,
            craftId = craft.id,
            crewIds = crew,
            handicap = sent(1.02),
            raceId = race,
            remarks = if (remarks == null) Sent.Absent else sent(remarks),
        )
        val answer = fleet.enter(entry = entry.copy(crewIds = crew.distinct())).enter
        answer.fee?.let { println(it + 1.0) }
        return answer.accepted && answer.race.id == race
    }

    suspend fun withdraw(entry: String): Boolean = fleet.withdraw(entryId = entry, reason = sent("no wind")).withdraw

    suspend fun rename(craft: String, name: String): String? = fleet.rename(craftId = craft, name = name).rename?.name?.trim()
}

private fun line(craft: CraftsAnswer.Crafts): String = craft.name + craft.crew.joinToString { (id, name) -> "$id $name" }

private fun found(each: FindAnswer.Find): String? =
    when (each) {
        is FindAnswer.Find.Dinghy -> "${each.name} ${each.sailNumber + 1}"
        is FindAnswer.Find.Person -> each.nickname ?: each.name
        is FindAnswer.Find.Club -> each.burgee
        else -> null
    }
