package harness

import java.lang.reflect.Modifier
import java.time.Instant
import kotlinx.serialization.json.JsonArray
import kotlinx.serialization.json.JsonElement
import kotlinx.serialization.json.JsonNull
import kotlinx.serialization.json.JsonObject
import kotlinx.serialization.json.JsonPrimitive
import okio.ByteString

/**
 * What an app sees, as JSON: a record as its properties under "$record", with the name of its class; an integer as its
 * digits under "$long"; an optional value as "$absent" or itself.
 */
fun dump(value: Any?): JsonElement =
    when (value) {
        null -> JsonNull
        is JsonElement -> JsonObject(mapOf("\$json" to value))
        is String -> JsonPrimitive(value)
        is Int -> JsonObject(mapOf("\$long" to JsonPrimitive(value.toString())))
        is Long -> JsonObject(mapOf("\$long" to JsonPrimitive(value.toString())))
        is Boolean -> JsonPrimitive(value)
        is Double -> JsonPrimitive(value)
        is Instant -> JsonObject(mapOf("\$instant" to JsonPrimitive(value.toString())))
        is ByteString -> JsonObject(mapOf("\$bytes" to JsonPrimitive(value.utf8())))
        is List<*> -> JsonArray(value.map(::dump))
        is Map<*, *> -> JsonObject(mapOf("\$map" to JsonObject(value.entries.associate { it.key.toString() to dump(it.value) })))
        is Unit -> JsonNull
        is Enum<*> -> dump(fieldsOf(value).first { it.first != "name" && it.first != "ordinal" }.second)
        else -> dumpObject(value)
    }

private fun dumpObject(value: Any): JsonElement {
    val name = value.javaClass.name.substringAfterLast('.')
    val fields = fieldsOf(value)
    if (name == "Sent\$Absent") return JsonObject(mapOf("\$absent" to JsonNull))
    if (name == "Sent\$Null") return JsonNull
    if (name == "Sent\$Value") return dump(fields.single().second)
    if (value.javaClass.annotations.any { it.annotationClass.java.name == "kotlin.jvm.JvmInline" }) return dump(fields.single().second)
    return JsonObject(
        mapOf("\$record" to JsonObject(fields.associate { (field, of) -> field to dump(of) }), "\$class" to JsonPrimitive(name)),
    )
}

private fun fieldsOf(value: Any): List<Pair<String, Any?>> =
    value.javaClass.declaredFields.filter { !Modifier.isStatic(it.modifiers) }.map {
        it.isAccessible = true
        it.name to it.get(value)
    }
