package wire

import kotlinx.serialization.json.JsonArray
import kotlinx.serialization.json.JsonElement
import kotlinx.serialization.json.JsonNull
import kotlinx.serialization.json.JsonObject
import kotlinx.serialization.json.JsonPrimitive
import java.math.BigDecimal

/** A value does not match the contract: [expected] in words, and the place. */
internal class Mismatch(val expected: String, val path: String = "") : Exception(expected) {
    override val message: String
        get() = "${if (path.isEmpty()) "the response" else path} must be $expected"

    /** The same mismatch, seen from one level further out. */
    fun below(key: String): Mismatch = Mismatch(expected, "/" + pointerKey(key) + path)
}

/** A key as a part of a JSON pointer (RFC 6901, section 3). */
internal fun pointerKey(key: String): String = key.replace("~", "~0").replace("/", "~1")

/** Converts JSON to the value that the app sees. */
internal fun interface Reader<out T> {
    /** @throws Mismatch when it has another type */
    fun read(value: JsonElement): T
}

/** Converts the value that the app sees to JSON. */
internal fun interface Writer<in T> {
    fun write(value: T): JsonElement
}

/** Both directions for one type of value. */
internal interface Form<T> : Reader<T>, Writer<T>

private fun primitive(value: JsonElement, expected: String): JsonPrimitive =
    if (value is JsonPrimitive && value !is JsonNull && !value.isString) value else throw Mismatch(expected)

internal object TextForm : Form<String> {
    override fun read(value: JsonElement): String =
        if (value is JsonPrimitive && value.isString) value.content else throw Mismatch("a string")

    override fun write(value: String): JsonElement = JsonPrimitive(value)
}

internal object LongForm : Form<Long> {
    override fun read(value: JsonElement): Long {
        val content = primitive(value, WHOLE).content
        return content.toLongOrNull() ?: wholeNumber(content)
    }

    override fun write(value: Long): JsonElement = JsonPrimitive(value)

    /** An integer that is written with a fraction of zero or with an exponent. */
    private fun wholeNumber(content: String): Long {
        val number = content.toBigDecimalOrNull() ?: throw Mismatch(WHOLE)
        // A long exponent would make a number of millions of digits.
        if (number.signum() == 0) return 0
        if (number.precision() - number.scale().toLong() > 19) throw Mismatch(WHOLE)
        return try {
            number.longValueExact()
        } catch (_: ArithmeticException) {
            throw Mismatch(WHOLE)
        }
    }

    private const val WHOLE = "an integer"
}

internal object IntForm : Form<Int> {
    override fun read(value: JsonElement): Int {
        val number = LongForm.read(value)
        if (number < Int.MIN_VALUE || number > Int.MAX_VALUE) throw Mismatch("a 32-bit integer")
        return number.toInt()
    }

    override fun write(value: Int): JsonElement = JsonPrimitive(value)
}

internal object DoubleForm : Form<Double> {
    override fun read(value: JsonElement): Double =
        primitive(value, "a number").content.toDoubleOrNull() ?: throw Mismatch("a number")

    override fun write(value: Double): JsonElement = JsonPrimitive(value)
}

internal object BooleanForm : Form<Boolean> {
    override fun read(value: JsonElement): Boolean =
        when (primitive(value, "a boolean").content) {
            "true" -> true
            "false" -> false
            else -> throw Mismatch("a boolean")
        }

    override fun write(value: Boolean): JsonElement = JsonPrimitive(value)
}

/** A value whose type the contract leaves open. */
internal object AnyForm : Form<JsonElement> {
    override fun read(value: JsonElement): JsonElement = value

    override fun write(value: JsonElement): JsonElement = value
}

/** A string, a number or a boolean, for an enum of several types. */
internal object PlainForm : Form<JsonPrimitive> {
    override fun read(value: JsonElement): JsonPrimitive =
        if (value is JsonPrimitive && value !is JsonNull) value else throw Mismatch("a single value")

    override fun write(value: JsonPrimitive): JsonElement = value
}

internal fun <T> readList(item: Reader<T>): Reader<List<T>> = Reader { value ->
    if (value !is JsonArray) throw Mismatch("a list")
    val items = ArrayList<T>(value.size)
    for (at in value.indices) {
        items.add(
            try {
                item.read(value[at])
            } catch (wrong: Mismatch) {
                throw wrong.below(at.toString())
            },
        )
    }
    items
}

internal fun <T> writeList(item: Writer<T>): Writer<List<T>> = Writer { list -> JsonArray(list.map(item::write)) }

internal fun <T> readMap(of: Reader<T>): Reader<Map<String, T>> = Reader { value ->
    recordOf(value).mapValues { (key, each) ->
        try {
            of.read(each)
        } catch (wrong: Mismatch) {
            throw wrong.below(key)
        }
    }
}

internal fun <T> writeMap(of: Writer<T>): Writer<Map<String, T>> =
    Writer { map -> JsonObject(map.mapValues { (_, each) -> of.write(each) }) }

internal fun <T : Any> readNullable(of: Reader<T>): Reader<T?> =
    Reader { value -> if (value is JsonNull) null else of.read(value) }

internal fun <T : Any> writeNullable(of: Writer<T>): Writer<T?> =
    Writer { value -> if (value == null) JsonNull else of.write(value) }

internal fun recordOf(value: JsonElement): JsonObject = value as? JsonObject ?: throw Mismatch("an object")

internal fun itemsOf(value: JsonElement, needed: Int): JsonArray {
    val list = value as? JsonArray ?: throw Mismatch("a list")
    if (list.size < needed) throw Mismatch("a list of $needed or more items")
    return list
}

/** A required field. */
internal fun <T> JsonObject.required(name: String, of: Reader<T>): T {
    val value = this[name] ?: throw Mismatch("an object with the field " + jsonText(JsonPrimitive(name)))
    return try {
        of.read(value)
    } catch (wrong: Mismatch) {
        throw wrong.below(name)
    }
}

/** A field that may be absent or null, which is the same to an app. */
internal fun <T : Any> JsonObject.optional(name: String, of: Reader<T>): T? {
    val value = this[name]
    return if (value == null || value is JsonNull) null else required(name, of)
}

/** A field that may be absent, and also null. */
internal fun <T> JsonObject.sent(name: String, of: Reader<T>): Sent<T> =
    when (this[name]) {
        null -> Sent.Absent
        JsonNull -> Sent.Null
        else -> Sent.Value(required(name, of))
    }

/** All undeclared keys. */
internal fun <T> JsonObject.others(declared: Set<String>, of: Reader<T>): Map<String, T> =
    keys.filter { it !in declared }.associateWith { required(it, of) }

/** An item by its position. */
internal fun <T> JsonArray.part(at: Int, of: Reader<T>): T =
    try {
        of.read(this[at])
    } catch (wrong: Mismatch) {
        throw wrong.below(at.toString())
    }

/** An item by its position, which may be missing. */
internal fun <T : Any> JsonArray.optionalPart(at: Int, of: Reader<T>): T? =
    if (at < size && this[at] !is JsonNull) part(at, of) else null

/** All items from a position on. */
internal fun <T> JsonArray.rest(from: Int, of: Reader<T>): List<T> = (from until size).map { part(it, of) }

/** The fields of an object to send, in order. */
internal class RecordWriter {
    val fields = LinkedHashMap<String, JsonElement>()

    fun <T> required(name: String, value: T, of: Writer<T>) {
        fields[name] = of.write(value)
    }

    fun <T : Any> optional(name: String, value: T?, of: Writer<T>) {
        if (value != null) fields[name] = of.write(value)
    }

    fun <T> sent(name: String, value: Sent<T>, of: Writer<T>) {
        when (value) {
            is Sent.Absent -> Unit
            is Sent.Null -> fields[name] = JsonNull
            is Sent.Value -> fields[name] = of.write(value.value)
        }
    }

    fun <T> others(values: Map<String, T>, of: Writer<T>) {
        for ((name, value) in values) if (name !in fields) fields[name] = of.write(value)
    }
}

internal inline fun writeRecord(fill: RecordWriter.() -> Unit): JsonObject = JsonObject(RecordWriter().apply(fill).fields)

/** An object with the tag that identifies its type, if the object does not contain it. */
internal fun JsonElement.tagged(field: String, value: String): JsonElement =
    if (this !is JsonObject || field in this) this else JsonObject(mapOf(field to JsonPrimitive(value)) + this)

/** The string in the field that identifies an object's type; null if it has none. */
internal fun tagOf(value: JsonElement, field: String): String? =
    (recordOf(value)[field] as? JsonPrimitive)?.takeIf { it.isString }?.content

internal fun isRecord(value: JsonElement, vararg needs: String): Boolean = value is JsonObject && needs.all { it in value }

internal fun isList(value: JsonElement): Boolean = value is JsonArray

internal fun isText(value: JsonElement): Boolean = value is JsonPrimitive && value.isString

internal fun isNumber(value: JsonElement): Boolean =
    value is JsonPrimitive && value !is JsonNull && !value.isString && value.content != "true" && value.content != "false"

internal fun isTruth(value: JsonElement): Boolean =
    value is JsonPrimitive && !value.isString && (value.content == "true" || value.content == "false")

/** Whether a value is one of several constants. Numbers are compared by value. */
internal fun isOneOf(value: JsonElement, vararg constants: JsonPrimitive): Boolean =
    value is JsonPrimitive && value !is JsonNull && constants.any { isSame(value, it) }

/** Whether a field of an object has one of several constants. */
internal fun hasOneOf(value: JsonElement, name: String, vararg constants: JsonPrimitive): Boolean =
    (value as? JsonObject)?.get(name)?.let { isOneOf(it, *constants) } == true

private fun isSame(value: JsonPrimitive, constant: JsonPrimitive): Boolean {
    if (value.isString != constant.isString) return false
    if (value.content == constant.content) return true
    if (value.isString) return false
    val number: BigDecimal = value.content.toBigDecimalOrNull() ?: return false
    return constant.content.toBigDecimalOrNull()?.compareTo(number) == 0
}

/** The first reading of a value that succeeds; null if none does. */
internal fun <T : Any> firstFitting(value: JsonElement, vararg tries: (JsonElement) -> T?): T? =
    fitting(value, tries).first

/** The first reading of a value that succeeds. @throws Mismatch of the one that got furthest if none does */
internal fun <T : Any> onlyFitting(value: JsonElement, vararg tries: (JsonElement) -> T?): T {
    val (found, furthest) = fitting(value, tries)
    if (found != null) return found
    throw furthest?.takeIf { it.path.isNotEmpty() } ?: Mismatch("one of several types")
}

private fun <T : Any> fitting(value: JsonElement, tries: Array<out (JsonElement) -> T?>): Pair<T?, Mismatch?> {
    var furthest: Mismatch? = null
    for (each in tries) {
        try {
            each(value)?.let { return it to null }
        } catch (wrong: Mismatch) {
            if (wrong.path.length > (furthest?.path?.length ?: -1)) furthest = wrong
        }
    }
    return null to furthest
}

/** Items by position. Of those that may be missing, the first [needed] are present. */
internal fun <T> readTuple(needed: Int, make: (JsonArray) -> T): Reader<T> = Reader { make(itemsOf(it, needed)) }

internal fun writeTuple(parts: List<JsonElement?>, rest: List<JsonElement> = emptyList()): JsonArray =
    JsonArray(parts.dropLastWhile { it == null }.map { it ?: JsonNull } + rest)

/** A type of the app's own, from JSON. */
internal fun <T> readOwn(decode: (String) -> T): Reader<T> = Reader { value ->
    val text = TextForm.read(value)
    try {
        decode(text)
    } catch (_: RuntimeException) {
        throw Mismatch("a value that the app can read")
    }
}

internal fun <T> writeOwn(encode: (T) -> String): Writer<T> = Writer { JsonPrimitive(encode(it)) }

/** A property that must be set before it is read, of a class with too many properties for a constructor. */
internal class Needed<T : Any>(private val name: String) {
    private var given: T? = null

    operator fun getValue(owner: Any?, property: Any?): T = checkNotNull(given) { "`$name` is not set" }

    operator fun setValue(owner: Any?, property: Any?, value: T) {
        given = value
    }
}
