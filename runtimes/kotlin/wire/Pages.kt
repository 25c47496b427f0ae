package wire

import kotlinx.coroutines.flow.Flow
import kotlinx.coroutines.flow.FlowCollector
import kotlinx.coroutines.flow.flow
import okhttp3.Headers
import okhttp3.HttpUrl.Companion.toHttpUrlOrNull

/** Iterates over pages, each of which contains the cursor of the next. */
internal fun <Page, Item, Cursor : Any> Connection.pagesByCursor(
    paging: Paging<Page, Item>,
    first: Cursor?,
    ask: suspend (cursor: Cursor?) -> Page,
    next: (Page) -> Cursor?,
): Flow<Item> = flow {
    val seen = HashSet<Cursor>()
    var cursor = first
    while (true) {
        val page = ask(cursor)
        emitAll(paging.items(page))
        val following = try {
            next(page)
        } catch (_: NumberFormatException) {
            throw refused(paging, "a page gives a next page that is not a number", "")
        }
        if (following == null || following == "") return@flow
        // Following it would never end.
        if (!seen.add(following)) {
            throw refused(paging, "a page gives a next page that was already read", following.toString())
        }
        cursor = following
    }
}

/** Iterates over pages by offset until one is empty. */
internal fun <Page, Item> pagesByOffset(
    paging: Paging<Page, Item>,
    first: Long,
    ask: suspend (offset: Long) -> Page,
): Flow<Item> = countedPages(paging, first, ask) { it.size.toLong() }

/** Iterates over pages by page number until one is empty. */
internal fun <Page, Item> pagesByNumber(
    paging: Paging<Page, Item>,
    first: Long,
    ask: suspend (number: Long) -> Page,
): Flow<Item> = countedPages(paging, first, ask) { 1 }

/** @param step the distance from a page with these items to the next */
private fun <Page, Item> countedPages(
    paging: Paging<Page, Item>,
    first: Long,
    ask: suspend (place: Long) -> Page,
    step: (List<Item>) -> Long,
): Flow<Item> = flow {
    var place = first
    while (true) {
        val items = paging.items(ask(place)).orEmpty()
        if (items.isEmpty()) return@flow
        emitAll(items)
        place += step(items)
    }
}

/** The options that all ways of paging need. */
internal class Paging<in Page, out Item>(
    /** "contract.call", for failures. */
    val call: String,
    val other: OtherFailure,
    /** The items of a page. A server may leave an empty list out. */
    val items: (Page) -> List<Item>?,
)

private suspend fun <Item> FlowCollector<Item>.emitAll(items: List<Item>?) {
    for (item in items.orEmpty()) emit(item)
}

private fun Connection.refused(paging: Paging<*, *>, message: String, text: String): CallFailure {
    val trouble = Trouble(message, Mishap.Malformed(null), answer = FailedAnswer(200, Headers.Builder().build(), text))
    val failure = failureOf(paging.call, trouble, paging.other) ?: throw trouble
    settings.onFailure?.invoke(failure)
    return failure
}

/**
 * Iterates over pages, each of which links to the next (RFC 8288). The next page is requested with the query of the
 * link, whatever the contract says about it, and at the address of the first page. A server therefore cannot redirect
 * credentials.
 *
 * @param credentials names of credentials in the query; a link never sets one
 * @param ask performs the call with the given options
 */
internal fun <Page, Item> Connection.pagesByLink(
    paging: Paging<Page, Item>,
    credentials: Set<String>,
    options: CallOptions,
    ask: suspend (CallOptions) -> Page,
): Flow<Item> = flow {
    val seen = HashSet<List<String>>()
    var query: String? = null
    while (true) {
        var link = ""
        var address = ""
        val following = options.following({ url ->
            address = query?.let { withQuery(url, it, credentials) } ?: url
            address
        }) { status, headers ->
            link = headers.joined("link").orEmpty()
            options.onAnswer?.invoke(status, headers)
        }
        val page = ask(following)
        emitAll(paging.items(page))
        seen.add(pairsOf(address).sorted())
        val target = nextTarget(link) ?: return@flow
        val next = queryOf(target, address)
            ?: throw refused(paging, "the link to the next page leads to another address", target)
        if (pairsOf(withQuery(address, next, credentials)).sorted() in seen) {
            throw refused(paging, "the link to the next page leads to a page that was already read", target)
        }
        query = next
    }
}

/** The query of a link to the same address; null if the link leads to another address. */
private fun queryOf(target: String, address: String): String? {
    val here = address.toHttpUrlOrNull() ?: return null
    val there = here.resolve(target) ?: return null
    if (!isSameOrigin(here, there) || here.encodedPath != there.encodedPath) return null
    return there.encodedQuery.orEmpty()
}

/** An address with another query. It keeps its own credentials. */
private fun withQuery(address: String, query: String, credentials: Set<String>): String {
    val isCredential = { pair: String -> nameOf(pair) in credentials }
    val pairs = query.split('&').filter { it.isNotEmpty() && !isCredential(it) } + pairsOf(address).filter(isCredential)
    val path = address.substringBefore('?')
    return if (pairs.isEmpty()) path else pairs.joinToString("&", "$path?")
}

private fun pairsOf(address: String): List<String> =
    if ('?' in address) address.substringAfter('?').split('&') else emptyList()

private fun nameOf(pair: String): String? =
    "http://name.invalid/?${pair.replace("#", "%23")}".toHttpUrlOrNull()?.queryParameterNames?.firstOrNull()

private val linkValue = Regex("<([^>]*)>((?:\\s*;\\s*[\\w!#$&+.^`|~-]+\\*?\\s*=\\s*(?:\"(?:[^\"\\\\]|\\\\.)*\"|[^\",;\\s]+))*)")
private val relation = Regex(";\\s*rel\\s*=\\s*(?:\"([^\"]*)\"|([^\",;\\s]+))", RegexOption.IGNORE_CASE)
private val space = Regex("\\s+")

/** The target with the relation "next" (RFC 8288, section 3). */
private fun nextTarget(header: String): String? {
    for (link in linkValue.findAll(header)) {
        val found = relation.find(link.groupValues[2]) ?: continue
        val names = found.groupValues[1].ifEmpty { found.groupValues[2] }.lowercase().split(space)
        if ("next" in names) return link.groupValues[1]
    }
    return null
}
