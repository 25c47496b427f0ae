package app.fleet

import com.ostrel.harbour.berths.*
import kotlinx.coroutines.flow.Flow
import kotlinx.coroutines.flow.MutableStateFlow
import kotlinx.coroutines.flow.StateFlow

data class Shown(val vessels: List<Vessel> = emptyList(), val error: String? = null)

class FleetModel(private val harbour: BerthsConnection) {
    private val inside = MutableStateFlow(Shown())
    val state: StateFlow<Shown> = inside

    suspend fun load(kind: String?) {
        val found = runCatching { harbour.listVessels(kind = kind?.let { ListVesselsKind(it) }) }
        found.onSuccess { answer -> inside.value = Shown(answer.items) }
        found.onFailure { inside.value = inside.value.copy(error = it.message) }
    }

    fun all(): Flow<Vessel> = harbour.listVesselsItems()

    suspend fun register(name: String): Vessel =
        harbour.registerVessel(body = SailVessel(id = "v-91", length = 8.2, mastHeight = 11.0, name = name))
}

fun told(vessel: Vessel): String =
    when (vessel) {
        is MotorVessel -> "${vessel.name}: ${vessel.power} kW, ${vessel.fuel.text}"
        is SailVessel -> "${vessel.name}: ${vessel.mastHeight} m"
        is RowingVessel -> vessel.name
        is Vessel.Other -> "something new"
    }

fun longest(vessels: List<Vessel>): Double = vessels.filterIsInstance<SailVessel>().maxOfOrNull { it.length } ?: 0.0
