package wire

/** A field of a request that may be left out, and that may also be null, with another meaning. */
public sealed interface Sent<out T> {
    /** Not sent at all. */
    public data object Absent : Sent<Nothing>

    /** Sent as null. */
    public data object Null : Sent<Nothing>

    /** Sent as it is. */
    public data class Value<out T>(public val value: T) : Sent<T>
}

/** The value, if there is one. */
public fun <T : Any> Sent<T>.orNull(): T? = (this as? Sent.Value)?.value

/** A value to send for an optional field: null is sent as null. */
public fun <T : Any> sent(value: T?): Sent<T> = if (value == null) Sent.Null else Sent.Value(value)
