package wire

import okhttp3.Dispatcher
import okhttp3.Headers
import okhttp3.OkHttpClient
import okhttp3.RequestBody
import okhttp3.Response
import java.util.concurrent.SynchronousQueue
import java.util.concurrent.ThreadPoolExecutor
import java.util.concurrent.TimeUnit
import kotlin.time.Duration

/** A function that returns a credential. It is called each time the credential is needed. */
public fun interface Credential {
    public suspend fun current(): String
}

/**
 * The options of every connection, whatever the contract.
 *
 * @property around layers around every request, outermost first: [retrying], [eachRequest], [eachAnswer], or your own
 * @property baseUrl returns the address for each call, in place of the connection's
 * @property client the app's own client, with its proxies, certificates and interceptors; time limits, redirects and
 *   retries are still the connection's
 * @property headers headers that are sent with every call
 * @property onFailure called with every failure before the call throws it
 * @property streamEnd the text that ends a stream of JSON events and is not an event itself; null for "[DONE]"
 * @property timeout the time until a call fails with [Mishap.TimedOut], all retries included; for a stream, until it
 *   begins; null for no limit
 */
public class ConnectionSettings(
    internal val around: List<Layer> = emptyList(),
    internal val baseUrl: (suspend () -> String)? = null,
    internal val client: OkHttpClient? = null,
    internal val headers: (suspend () -> Map<String, String>)? = null,
    internal val onFailure: ((CallFailure) -> Unit)? = null,
    internal val streamEnd: String? = null,
    internal val timeout: Duration? = null,
)

/**
 * The options of one call.
 *
 * @property headers headers of this call, which override the connection's of the same name
 * @property idle how long a stream may be silent before it fails with [Mishap.TimedOut]; null for no limit
 * @property onAnswer called with the status and headers of the response before its body is read
 * @property onErrors called with a subscription result that has errors; the subscription then continues
 * @property onEvent called with the name and id of an event before its data is returned
 * @property reconnects whether a stream of events is requested again after it ends, from its last id on (HTML,
 *   section 9.2)
 * @property timeout replaces the connection's limit; [Duration.INFINITE] for no limit
 */
public class CallOptions(
    internal val headers: Map<String, String> = emptyMap(),
    internal val idle: Duration? = null,
    internal val onAnswer: ((status: Int, headers: Headers) -> Unit)? = null,
    internal val onErrors: ((CallFailure) -> Unit)? = null,
    internal val onEvent: ((event: String, id: String?) -> Unit)? = null,
    internal val reconnects: Boolean = false,
    internal val timeout: Duration? = null,
) {
    /** Changes the address of a request when pages follow a link. */
    internal var address: ((String) -> String)? = null
        private set

    internal fun withHeader(name: String, value: String): CallOptions = copy(headers = headers + (name to value))

    internal fun following(address: (String) -> String, onAnswer: (status: Int, headers: Headers) -> Unit): CallOptions =
        copy(onAnswer = onAnswer).also { it.address = address }

    private fun copy(
        headers: Map<String, String> = this.headers,
        onAnswer: ((status: Int, headers: Headers) -> Unit)? = this.onAnswer,
    ): CallOptions = CallOptions(headers, idle, onAnswer, onErrors, onEvent, reconnects, timeout)

    internal companion object {
        val usual = CallOptions()
    }
}

/** An HTTP request that is about to be sent. */
public class Outgoing internal constructor(
    /** The name of the call: "contract.call". */
    public val call: String,
    public val method: String,
    public val url: String,
    public val headers: Headers,
    public val body: RequestBody?,
    /** Whether the body of the response is read while it arrives. */
    internal val isStream: Boolean,
) {
    /** The same request with other headers. */
    public fun withHeaders(headers: Headers): Outgoing = Outgoing(call, method, url, headers, body, isStream)

    internal fun withBody(body: RequestBody): Outgoing = Outgoing(call, method, url, headers, body, isStream)
}

/** A layer around every request. It can change the request, send it again, respond itself, or only watch. */
public fun interface Layer {
    public suspend fun around(request: Outgoing, next: suspend (Outgoing) -> Response): Response
}

/** The address, transport and credentials of an API. */
public open class Connection internal constructor(
    internal val contract: String,
    internal val base: String,
    internal val settings: ConnectionSettings,
    internal val credentials: Map<String, Credential?> = emptyMap(),
    internal val schemes: Map<String, Scheme> = emptyMap(),
    /** The base URL in the contract; null if it has none. */
    internal val contractUrl: String? = null,
    /** Other base URLs, for calls that have a server of their own. */
    internal val servers: Map<String, String?> = emptyMap(),
) {
    internal val around: List<Layer> = settings.around

    internal val client: OkHttpClient by lazy { (settings.client ?: sharedClient).withoutDefaults() }
}

/** The base URL of the next request. */
internal suspend fun Connection.address(): String = settings.baseUrl?.invoke() ?: base

/** The client of connections without one of their own. Its threads do not keep a program running. */
private val sharedClient: OkHttpClient by lazy {
    val threads = ThreadPoolExecutor(0, Int.MAX_VALUE, 60, TimeUnit.SECONDS, SynchronousQueue()) { work ->
        Thread(work, "call").apply { isDaemon = true }
    }
    OkHttpClient.Builder().dispatcher(Dispatcher(threads)).build()
}

/** The connection has its own limits, redirects and retries, so those of the client are switched off. */
private fun OkHttpClient.withoutDefaults(): OkHttpClient =
    newBuilder()
        .callTimeout(0, TimeUnit.MILLISECONDS)
        .connectTimeout(0, TimeUnit.MILLISECONDS)
        .readTimeout(0, TimeUnit.MILLISECONDS)
        .writeTimeout(0, TimeUnit.MILLISECONDS)
        .followRedirects(false)
        .followSslRedirects(false)
        .retryOnConnectionFailure(false)
        .build()
