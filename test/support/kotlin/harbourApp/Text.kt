package app.text

import com.ostrel.harbour.berths.Money
import com.ostrel.harbour.berths.Tide
import com.ostrel.harbour.berths.TideTable
import com.ostrel.harbour.berths.VesselSummary

fun Double.metres(): String = "$this m"

fun Money.shown(): String = "$amount $currency"

fun titled(vessel: VesselSummary): String = vessel.run { "$name ($id)" }

fun TideTable.highest(): Tide? = tides.maxByOrNull { tide -> tide.level }

fun line(tide: Tide): String {
    val (at, kind) = tide
    return "$at ${kind.text}"
}

fun turns(table: TideTable): List<String> {
    val (day, tides) = table.day to table.tides
    return tides.map { "$day ${it.at} ${it.kind} ${it.level}" }
}

/** A class with a note of its own, which is not the harbour's. */
class Slip(val note: String, val draught: Int)

fun Slip.told(): String = note + draught
