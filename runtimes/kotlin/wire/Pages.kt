package wire

import kotlinx.coroutines.flow.Flow
import kotlinx.coroutines.flow.FlowCollector
import kotlinx.coroutines.flow.flow
import okhttp3.Headers
import okhttp3.HttpUrl.Companion.toHttpUrlOrNull

/** Goes through pages of which each says where the next one begins. */
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
            throw refused(paging, "a page names the next one by what is no number", "")
        }
        if (following == null || following == "") return@flow
        // Following it would never end.
        if (!seen.add(following)) {
            throw refused(paging, "a page names one that was read already as the next one", following.toString())
        }
        cursor = following
    }
}

/** Goes through pages that are asked for by how many items to pass over, until one is empty. */
internal fun <Page, Item> pagesByOffset(
    paging: Paging<Page, Item>,
    first: Long,
    ask: suspend (offset: Long) -> Page,
): Flow<Item> = countedPages(paging, first, ask) { it.size.toLong() }

/** Goes through pages that are asked for by their number, until one is empty. */
internal fun <Page, Item> pagesByNumber(
    paging: Paging<Page, Item>,
    first: Long,
    ask: suspend (number: Long) -> Page,
): Flow<Item> = countedPages(paging, first, ask) { 1 }

/** @param step how far the next page is from one with these items */
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

/** What all ways of going through pages need. */
internal class Paging<in Page, out Item>(
    /** "contract.call", for failures. */
    val call: String,
    val other: OtherFailure,
    /** The items of a page; a server may leave an empty list out. */
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
 * Goes through pages of which each links to the next one (RFC 8288). The next page is asked for by the query of the
 * link, whatever the contract says of it, at the address of the first one: a server cannot send credentials elsewhere.
 *
 * @param credentials names of credentials in the query; a link never sets one
 * @param ask performs the call with the options it is given
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
            throw refused(paging, "the link to the next page leads to one that was read already", target)
        }
        query = next
    }
}

/** The query of a link, where it leads to the address that links; null where it leads elsewhere. */
private fun queryOf(target: String, address: String): String? {
    val here = address.toHttpUrlOrNull() ?: return null
    val there = here.resolve(target) ?: return null
    if (!isSameOrigin(here, there) || here.encodedPath != there.encodedPath) return null
    return there.encodedQuery.orEmpty()
}

/** An address with another query, but for the credentials that it has. */
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

/** The target whose relation is "next" (RFC 8288, section 3). */
private fun nextTarget(header: String): String? {
    for (link in linkValue.findAll(header)) {
        val found = relation.find(link.groupValues[2]) ?: continue
        val names = found.groupValues[1].ifEmpty { found.groupValues[2] }.lowercase().split(space)
        if ("next" in names) return link.groupValues[1]
    }
    return null
}
