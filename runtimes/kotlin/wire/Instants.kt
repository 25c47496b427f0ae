package wire

import kotlinx.serialization.json.JsonElement
import kotlinx.serialization.json.JsonPrimitive
import java.time.Instant
import java.time.OffsetDateTime
import java.time.format.DateTimeFormatter
import java.time.format.DateTimeFormatterBuilder
import java.time.format.DateTimeParseException
import java.time.temporal.ChronoUnit

/** A date-time (RFC 3339, section 5.6), sent in UTC with milliseconds. */
internal object InstantForm : Form<Instant> {
    override fun read(value: JsonElement): Instant {
        val text = TextForm.read(value)
        return try {
            OffsetDateTime.parse(text).toInstant()
        } catch (_: DateTimeParseException) {
            throw Mismatch("an instant")
        }
    }

    override fun write(value: Instant): JsonElement =
        JsonPrimitive(milliseconds.format(value.truncatedTo(ChronoUnit.MILLIS)))

    private val milliseconds: DateTimeFormatter = DateTimeFormatterBuilder().appendInstant(3).toFormatter()
}
