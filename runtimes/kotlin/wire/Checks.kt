package wire

import kotlinx.serialization.json.JsonArray
import kotlinx.serialization.json.JsonElement
import kotlinx.serialization.json.JsonNull
import kotlinx.serialization.json.JsonObject
import kotlinx.serialization.json.JsonPrimitive

/** Validates a value against a part of the contract. */
internal fun interface Check {
    /** @throws Mismatch for the first value that does not match */
    fun hold(value: JsonElement)
}

/** A reader that validates its input against the contract first. */
internal fun <T> checked(check: Check, reader: Reader<T>): Reader<T> = Reader { value ->
    check.hold(value)
    reader.read(value)
}

private fun plain(expected: String, fits: (JsonElement) -> Boolean): Check =
    Check { value -> if (!fits(value)) throw Mismatch(expected) }

internal val textCheck: Check = plain("a string", ::isText)
internal val numberCheck: Check = plain("a number", ::isNumber)
internal val wholeCheck: Check = plain("an integer") { isNumber(it) && isWhole((it as JsonPrimitive).content) }
internal val truthCheck: Check = plain("a boolean", ::isTruth)
internal val anyCheck: Check = Check { }
internal val noCheck: Check = plain("nothing") { false }

private fun isWhole(content: String): Boolean {
    if (content.toLongOrNull() != null) return true
    val number = content.toBigDecimalOrNull() ?: return false
    return number.signum() == 0 || number.stripTrailingZeros().scale() <= 0
}

/** One of several constants. */
internal fun oneOfCheck(vararg constants: JsonPrimitive): Check =
    plain(constants.joinToString(" or ", transform = ::jsonText)) { isOneOf(it, *constants) }

/** One of many constants, as a JSON list. */
internal fun oneOfCheck(constants: String): Check {
    val list = itemsOf(parseJson(constants), 0).map { it as JsonPrimitive }
    val known = list.toHashSet()
    val expected by lazy { list.joinToString(" or ", transform = ::jsonText) }
    return Check { value ->
        if (value !in known && !isOneOf(value, *list.toTypedArray())) throw Mismatch(expected)
    }
}

/** Null, or a value that passes another check. */
internal fun orNullCheck(of: Check): Check = Check { if (it !is JsonNull) of.hold(it) }

/** The check of an object's field. */
internal class FieldCheck(val name: String, val of: Check)

internal fun field(name: String, of: Check): FieldCheck = FieldCheck(name, of)

private fun holdBelow(key: String, value: JsonElement, of: Check) {
    try {
        of.hold(value)
    } catch (wrong: Mismatch) {
        throw wrong.below(key)
    }
}

/**
 * An object: required fields, optional fields, and the check for all other keys. The fields are checked in this order,
 * whatever their order in the body.
 */
internal fun recordCheck(needed: List<FieldCheck>, optional: List<FieldCheck> = emptyList(), rest: Check? = null): Check {
    val known = (needed + optional).map { it.name }.toSet()
    return Check { value ->
        val record = recordOf(value)
        for (each in needed) {
            if (each.name !in record) throw Mismatch("an object with the field " + jsonText(JsonPrimitive(each.name)))
        }
        for (each in needed) holdBelow(each.name, record.getValue(each.name), each.of)
        for (each in optional) record[each.name]?.let { holdBelow(each.name, it, each.of) }
        if (rest != null) for ((name, each) in record) if (name !in known) holdBelow(name, each, rest)
    }
}

internal fun listCheck(of: Check): Check = tupleCheck(emptyList(), 0, of)

internal fun mapCheck(of: Check): Check = recordCheck(emptyList(), rest = of)

/** Items by position: the first ones are required, the rest is optional. */
internal fun tupleCheck(items: List<Check>, needed: Int, rest: Check? = null): Check = Check { value ->
    val list: JsonArray = itemsOf(value, needed)
    for (at in list.indices) {
        val check = items.getOrNull(at) ?: rest ?: throw Mismatch("absent", "/$at")
        holdBelow(at.toString(), list[at], check)
    }
}

/**
 * A value that passes at least one of several checks. If none passes, the mismatch is that of the check that got
 * furthest.
 */
internal fun eitherCheck(vararg checks: Check): Check = Check { value ->
    var furthest: Mismatch? = null
    for (check in checks) {
        try {
            check.hold(value)
            return@Check
        } catch (wrong: Mismatch) {
            if (wrong.path.length > (furthest?.path?.length ?: -1)) furthest = wrong
        }
    }
    throw furthest?.takeIf { it.path.isNotEmpty() } ?: Mismatch("one of several types")
}

/** An object whose check depends on the value of one field. */
internal fun taggedCheck(field: String, vararg rows: Pair<String, Check>): Check {
    val checks = rows.toMap()
    return Check { value ->
        val tag = ((value as? JsonObject)?.get(field) as? JsonPrimitive)?.takeIf { it.isString }?.content
        val check = checks[tag]
            ?: throw Mismatch(checks.keys.joinToString(" or ") { jsonText(JsonPrimitive(it)) }, "/" + pointerKey(field))
        check.hold(value)
    }
}
