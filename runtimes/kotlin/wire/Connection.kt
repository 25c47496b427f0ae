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

/** A credential, got when it is needed. */
public fun interface Credential {
    public suspend fun current(): String
}

/**
 * What every connection can be told, whatever the contract.
 *
 * @property around what is done around every exchange, outermost first: [retrying], [eachRequest], [eachAnswer], or your own
 * @property baseUrl gives the address anew for each call, in the place of the connection's
 * @property client the app's own client, with its proxies, certificates and interceptors; time limits, redirects and
 *   retries are the connection's all the same
 * @property headers sent with every call
 * @property onFailure told of every failure before the call throws it
 * @property streamEnd the text that ends a stream of JSON events without being one; null for "[DONE]"
 * @property timeout until a call fails with [Mishap.TimedOut], all tries included; of a stream, until it begins; null for
 *   no limit
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
 * What one call may be told.
 *
 * @property headers added to the connection's, and stronger
 * @property idle how long a stream may be silent before it fails with [Mishap.TimedOut]; null for no limit
 * @property onAnswer told of the status and headers of the server's answer, before its body is read
 * @property onErrors told of a result of a subscription that carries errors, which then does not end the subscription
 * @property onEvent told of the name and the id of an event before its data is given
 * @property reconnects whether a stream of events that ends is asked for again from its last id on (HTML, section 9.2)
 * @property timeout instead of the connection's; [Duration.INFINITE] for no limit
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
    /** Changes the address of a request, where pages follow a link. */
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

/** One request on its way out. */
public class Outgoing internal constructor(
    /** The call's name: "contract.call". */
    public val call: String,
    public val method: String,
    public val url: String,
    public val headers: Headers,
    public val body: RequestBody?,
    /** Whether the body of the answer is read while it comes. */
    internal val isStream: Boolean,
) {
    /** The same request with other headers. */
    public fun withHeaders(headers: Headers): Outgoing = Outgoing(call, method, url, headers, body, isStream)

    internal fun withBody(body: RequestBody): Outgoing = Outgoing(call, method, url, headers, body, isStream)
}

/** Something around every exchange: it may change the request, ask again, answer by itself, or only look. */
public fun interface Layer {
    public suspend fun around(request: Outgoing, next: suspend (Outgoing) -> Response): Response
}

/** Where an API is, and how its calls get there. */
public open class Connection internal constructor(
    internal val contract: String,
    internal val base: String,
    internal val settings: ConnectionSettings,
    internal val credentials: Map<String, Credential?> = emptyMap(),
    internal val schemes: Map<String, Scheme> = emptyMap(),
    /** Where the contract says that the API is; null where it does not. */
    internal val contractUrl: String? = null,
    /** Other addresses for calls that have a server of their own. */
    internal val servers: Map<String, String?> = emptyMap(),
) {
    internal val around: List<Layer> = settings.around

    internal val client: OkHttpClient by lazy { (settings.client ?: sharedClient).withoutDefaults() }
}

/** Where the next request goes. */
internal suspend fun Connection.address(): String = settings.baseUrl?.invoke() ?: base

/** The client of connections that are given none; its threads do not keep a program from ending. */
private val sharedClient: OkHttpClient by lazy {
    val threads = ThreadPoolExecutor(0, Int.MAX_VALUE, 60, TimeUnit.SECONDS, SynchronousQueue()) { work ->
        Thread(work, "call").apply { isDaemon = true }
    }
    OkHttpClient.Builder().dispatcher(Dispatcher(threads)).build()
}

/** Limits, redirects and retries are the connection's; those of the client would come on top. */
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
