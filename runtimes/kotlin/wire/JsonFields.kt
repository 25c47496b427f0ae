package wire

import kotlinx.serialization.json.JsonElement
import java.util.AbstractMap.SimpleImmutableEntry

/** Objects with more fields use a hash. For fewer fields, comparing the short names takes no longer. */
private const val FEW = 16

/** The fields of an object that is being parsed, in order. Of repeated names, the last one counts. */
internal class JsonFields {
    private var size = 0
    private var names = arrayOfNulls<String>(FEW / 2)
    private var values = arrayOfNulls<JsonElement>(FEW / 2)
    private var many: LinkedHashMap<String, JsonElement>? = null

    fun put(name: String, value: JsonElement) {
        val all = many
        if (all != null) {
            all[name] = value
            return
        }
        for (at in 0 until size) {
            if (names[at] == name) {
                values[at] = value
                return
            }
        }
        if (size == FEW) {
            many = LinkedHashMap(asMap()).apply { put(name, value) }
            return
        }
        if (size == names.size) {
            names = names.copyOf(FEW)
            values = values.copyOf(FEW)
        }
        names[size] = name
        values[size] = value
        size++
    }

    fun asMap(): Map<String, JsonElement> =
        many ?: FewFields(Array(size) { names[it]!! }, Array(size) { values[it]!! })
}

/**
 * A map of a few fields in two arrays, which takes about a quarter of the memory of a [LinkedHashMap]. The search
 * starts after the field that was found last, because fields are read in about the order in which they are sent.
 */
private class FewFields(
    private val names: Array<String>,
    private val contents: Array<JsonElement>,
) : AbstractMap<String, JsonElement>() {
    // Threads may race here: any position is a good guess, and each guess is checked.
    private var guess = 0

    override val size: Int
        get() = names.size

    override fun containsKey(key: String): Boolean = placeOf(key) >= 0

    override fun get(key: String): JsonElement? {
        val place = placeOf(key)
        return if (place < 0) null else contents[place]
    }

    private fun placeOf(key: String): Int {
        val guessed = guess
        val place = if (guessed < names.size && names[guessed] == key) guessed else names.indexOf(key)
        if (place >= 0) guess = place + 1
        return place
    }

    override val entries: Set<Map.Entry<String, JsonElement>>
        get() = object : AbstractSet<Map.Entry<String, JsonElement>>() {
            override val size: Int
                get() = names.size

            override fun iterator(): Iterator<Map.Entry<String, JsonElement>> =
                List(size) { SimpleImmutableEntry(names[it], contents[it]) }.iterator()
        }
}
