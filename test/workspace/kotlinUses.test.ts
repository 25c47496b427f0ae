import { describe, expect, it } from "vitest";
import { kotlinUses } from "../../src/workspace/languages/kotlin/source/kotlinUses.js";
import { demoSdkSource } from "../support/kotlin/demoSdkSource.js";

const sdk = demoSdkSource();

/** What source uses, as "kind coordinate" with the text at the place, sorted; without what it only imports. */
function used(text: string, ...others: readonly string[]): string[] {
  const texts = [text, ...others].map((each, at) => ({ document: `App${String(at)}.kt`, text: each }));
  return kotlinUses(texts, sdk)
    .filter(({ place, kind }) => {
      const source = texts.find(({ document }) => document === place.document)?.text ?? "";
      const line = source.slice(source.lastIndexOf("\n", place.offset) + 1, place.offset);
      return kind !== "omits" && !line.startsWith("import ");
    })
    .map(({ kind, coordinate, place }) => {
      const source = texts.find(({ document }) => document === place.document)?.text ?? "";
      return `${kind} ${coordinate} @${source.slice(place.offset, place.offset + place.length)}`;
    })
    .sort();
}

/** Whether a value is only shown does not depend on where it is read. */
const asRead = (use: string): string => use.replace(/^(?:shows|computes) /, "reads ");

const star = "package app\nimport org.ostrel.berths.*\n";

describe("uses in Kotlin source", () => {
  it("calls, their arguments, and members of their responses", () => {
    expect(
      used(`${star}suspend fun show(harbour: BerthsConnection) {
        val berth = harbour.getBerth(berthId = "N-07")
        println("\${berth.quay} \$berth \${berth.note?.length}")
      }`),
    ).toEqual([
      "calls connection @BerthsConnection",
      "calls getBerth @getBerth",
      "reads Berth.note @note",
      "shows Berth.quay @quay",
      "writes getBerth(berthId) @berthId",
    ]);
  });

  it("import aliases, qualified names, and comments with names", () => {
    expect(
      used(`package app
import org.ostrel.berths.Berth as Place
import org.ostrel.berths.getBerth as fetch
import org.ostrel.berths.BerthsConnection
/* Berth.note /* nested berth.quay */ berth.length */
// harbour.listTariffs()
fun title(place: Place): String = "berth.note" + place.id
fun whole(x: org.ostrel.berths.Tariff) = x.toString()
suspend fun one(c: BerthsConnection) = c.fetch("N-07").status
`),
    ).toEqual([
      "calls connection @BerthsConnection",
      "calls getBerth @fetch",
      "names Berth @Place",
      "names Tariff @Tariff",
      "reads Berth.status @status",
      "reads BerthStatus @status",
      "shows Berth.id @id",
      'writes getBerth(berthId) @"N-07"',
    ]);
  });

  it("with, let, apply, also, collections, destructuring, references and helpers", () => {
    expect(
      used(`${star}class Board(private val harbour: BerthsConnection) {
  private var last: Berth? = null
  private val page by lazy { BerthPage(items = emptyList(), nextCursor = null) }
  suspend fun refresh() {
    val all = harbour.listBerths().items
    last = all.firstOrNull { it.shorePower }
    last?.let { println(it.note) }
    with(all.first()) { println(quay) }
    all.filter { each -> each.length > 3 }.map(Berth::id).forEach { println(it.uppercase()) }
    all.associateBy { it.id }.forEach { (key, value) -> println(key + value.draught) }
    all.groupBy { it.status }.mapValues { entry -> entry.value.size }
    for ((at, one) in all.withIndex()) println("\$at \${one.occupant?.name}")
    println(page.nextCursor)
  }
  fun Berth.title() = "\$id on \$quay"
  fun shown() = last?.title() ?: pick(listOf(last!!))?.createdAt
  private fun <T> pick(from: List<T>): T? = from.lastOrNull()
}`)
        .map(asRead)
        .filter((use) => use.startsWith("reads") || use.startsWith("reaches"))
        .sort(),
    ).toEqual([
      "reads Berth.createdAt @createdAt",
      "reads Berth.draught @draught",
      "reads Berth.id @id",
      "reads Berth.id @id",
      "reads Berth.id @id",
      "reads Berth.length @length",
      "reads Berth.note @note",
      "reads Berth.occupant @occupant",
      "reads Berth.quay @quay",
      "reads Berth.quay @quay",
      "reads Berth.shorePower @shorePower",
      "reads Berth.status @status",
      "reads BerthPage.items @items",
      "reads BerthPage.nextCursor @nextCursor",
      "reads BerthStatus @status",
      "reads VesselSummary.name @name",
    ]);
  });

  it("enums and unions in when, with and without else", () => {
    expect(
      used(`${star}fun colour(status: BerthStatus) = when (status) {
  BerthStatus.Free -> 1
  BerthStatus.Reserved, BerthStatus.Occupied -> 2
  else -> 3
}
fun isFree(berth: Berth) = berth.status == BerthStatus.Free
fun kind(vessel: Vessel): String = when (vessel) {
  is MotorVessel -> vessel.fuel.toString()
  is SailVessel -> "\${vessel.mastHeight}"
  is RowingVessel -> "oars"
  is Vessel.Other -> vessel.tag ?: ""
}
fun some(vessel: Vessel) = if (vessel is SailVessel && vessel.mastHeight > 3.0) vessel.name else "other"
`).filter((use) => !use.startsWith("names")),
    ).toEqual([
      "compares Berth.status @status",
      "compares BerthStatus @status",
      "computes SailVessel.mastHeight @mastHeight",
      "matches BerthStatus.free @Free",
      "matches BerthStatus.free @Free",
      "matches BerthStatus.occupied @Occupied",
      "matches BerthStatus.reserved @Reserved",
      "matches Vessel @MotorVessel",
      "matches Vessel @Other",
      "matches Vessel @RowingVessel",
      "matches Vessel @SailVessel",
      "matches Vessel @SailVessel",
      "matches Vessel! @when",
      "reads MotorVessel.fuel @fuel",
      "reads MotorVesselFuel @fuel",
      "reads SailVessel.name @name",
      "reads Vessel.Other.tag @tag",
      "shows SailVessel.mastHeight @mastHeight",
      "tells MotorVessel @MotorVessel",
      "tells RowingVessel @RowingVessel",
      "tells SailVessel @SailVessel",
      "tells SailVessel @SailVessel",
      "tells Vessel @Vessel",
      "tells Vessel.Other @Other",
    ]);
  });

  it("positions of destructuring, and uses of their values", () => {
    expect(
      used(`${star}fun some(berth: Berth, berths: List<Berth>) {
  val (draft, id) = berth
  println("$draft \${id.length}")
  for ((_, name) in berths) println(name)
}`).filter((use) => use.includes("(")),
    ).toEqual(["reads Berth(2) @id", "shows Berth(1) @draft", "shows Berth(2) @name"]);
  });

  it("uses of a value, also in a variable", () => {
    const done = (body: string): string[] =>
      used(`${star}fun some(berth: Berth, berths: List<Berth>) {\n${body}\n}`).filter((use) =>
        use.includes(" Berth.quay "),
      );
    expect(done(`val (quay, depth) = berth.quay to berth.depth; println("$quay: $depth")`)).toEqual([
      "shows Berth.quay @quay",
    ]);
    expect(done(`val quay = berth.quay; listOf(1).map { "$quay $it" }`)).toEqual(["shows Berth.quay @quay"]);
    expect(done(`val quay = berth.quay; if (quay == "N") println(quay.length)`)).toEqual(["reads Berth.quay @quay"]);
    expect(done(`val quay: String = berth.quay; println(quay)`)).toEqual(["reads Berth.quay @quay"]);
    expect(done(`var quay = berth.quay; println(quay); quay = "S"`)).toEqual(["reads Berth.quay @quay"]);
    expect(done(`berths.sortedBy { it.quay }`)).toEqual(["orders Berth.quay @quay"]);
    expect(done(`berths.maxByOrNull { each -> println(each.id); each.quay }`)).toEqual(["orders Berth.quay @quay"]);
    expect(done(`berths.groupBy { it.quay }`)).toEqual(["reads Berth.quay @quay"]);
    expect(done(`berths.filter { it.quay != "N" }`)).toEqual(["compares Berth.quay @quay"]);
    expect(done(`berths.filter { it.quay in setOf("N") }`)).toEqual(["reads Berth.quay @quay"]);
    expect(done(`println("at " + berth.quay)`)).toEqual(["shows Berth.quay @quay"]);
    expect(done(`println(berth.quay + 1)`)).toEqual(["reads Berth.quay @quay"]);
    // A function of each item is more than a text of the whole.
    expect(done(`println(listOf(berth.quay).joinToString())`)).toEqual(["shows Berth.quay @quay"]);
    expect(done(`println(listOf(berth.quay).joinToString("-") { it.trim() })`)).toEqual(["reads Berth.quay @quay"]);
  });

  it.each([
    ['println("${berth.length * 2} m")', "computes"],
    ['println("long: " + (berth.length - 1.5) / 2)', "computes"],
    ["if (berth.length > 12) println()", "computes"],
    ["val twice: Double = berth.length * 2", "reads"],
    ["listOf(berth.length * 2)", "reads"],
    ["if (berth.length == 12.0) println()", "compares"],
    ["println(berth.length.toInt() * 2)", "reads"],
  ])("arithmetic with a number: %s", (body, kind) => {
    const found = used(`${star}fun some(berth: Berth, berths: List<Berth>) {\n${body}\n}`);
    expect(found.filter((use) => use.includes("Berth.length"))).toEqual([`${kind} Berth.length @length`]);
  });

  it.each([
    ["berth?.quay", true],
    ["berth?.quay?.trim()", true],
    ["whole.quay", undefined],
    ["whole?.quay", undefined],
    ["berth!!.quay", undefined],
  ])("null is already handled: %s", (text, takesNull) => {
    const source = `${star}fun some(berth: Berth?, whole: Berth) { println(${text}) }`;
    const found = kotlinUses([{ document: "App.kt", text: source }], sdk);
    expect(found.filter(({ coordinate }) => coordinate === "Berth.quay").map((use) => use.takesNull)).toEqual([
      takesNull,
    ]);
  });

  it("objects that are built, copied and passed on", () => {
    expect(
      used(`${star}suspend fun reserve(harbour: BerthsConnection, vessel: String) {
  val body = ReservationRequest(arrival = "2026-05-01", departure = "2026-05-03", vesselId = vessel)
  harbour.reserveBerth("N-07", body = body.copy(crew = 3))
  harbour.listBerths(status = listOf(BerthStatus.Free))
}`),
    ).toEqual(
      [
        "builds ReservationRequest{} @ReservationRequest",
        "calls connection @BerthsConnection",
        "calls listBerths @listBerths",
        "calls reserveBerth @reserveBerth",
        "names BerthStatus @BerthStatus",
        "names ReservationRequest @ReservationRequest",
        "writes BerthStatus.free @Free",
        "writes ReservationRequest.arrival @arrival",
        "writes ReservationRequest.crew @crew",
        "writes ReservationRequest.departure @departure",
        "writes ReservationRequest.vesselId @vesselId",
        'writes reserveBerth(berthId) @"N-07"',
        "writes reserveBerth(body) @body",
        "writes listBerths(status) @status",
      ].sort(),
    );
  });

  it("caught failures, and the members that are read from them", () => {
    expect(
      used(`${star}suspend fun tried(harbour: BerthsConnection) {
  try {
    harbour.removeBerth(berthId = "N-07")
  } catch (failure: RemoveBerthFailure) {
    when (failure) {
      is RemoveBerthFailure.Conflict -> println(failure.body?.conflictsWith)
      is RemoveBerthFailure.NotFound -> println(failure.body?.title)
      is RemoveBerthFailure.Other -> println(failure.mishap)
    }
  }
}`)
        .map(asRead)
        .filter((use) => use.startsWith("reads") || use.includes("!"))
        .sort(),
    ).toEqual([
      "matches RemoveBerthFailure! @when",
      "reads ConflictProblem.conflictsWith @conflictsWith",
      "reads Problem.title @title",
      "reads RemoveBerthFailure.Conflict.body @body",
      "reads RemoveBerthFailure.NotFound.body @body",
      "reads RemoveBerthFailure.Other.mishap @mishap",
    ]);
  });

  it("state in other files, flows, results and delegates", () => {
    expect(
      used(
        `package app.screen
import app.state.Model
fun draw(model: Model) {
  println(model.state.value.berth?.note)
  println(model.shown.quay)
  model.result.onSuccess { println(it.length) }
}`,
        `package app.state
import org.ostrel.berths.*
import kotlinx.coroutines.flow.*
data class State(val berth: Berth? = null)
class Model(val harbour: BerthsConnection) {
  private val inside = MutableStateFlow(State())
  val state: StateFlow<State> = inside.asStateFlow()
  val shown get() = state.value.berth!!
  val result = runCatching { shown }
  suspend fun pages() = harbour.listBerthsItems(pageSize = 3).map { it.id }.toList()
}`,
      )
        .map(asRead)
        .filter(
          (use) =>
            use.startsWith("reads") ||
            use.startsWith("reaches") ||
            use.startsWith("calls list") ||
            use.includes("list"),
        ),
    ).toEqual([
      "calls listBerthsItems @listBerthsItems",
      "reads Berth.id @id",
      "reads Berth.length @length",
      "reads Berth.note @note",
      "reads Berth.quay @quay",
      "writes listBerths(pageSize) @pageSize",
    ]);
  });

  it("members that are only shown, and those that are passed on as their type", () => {
    expect(
      used(`${star}
fun named(vessel: VesselSummary?) = vessel?.name
fun Money.shown() = "\$amount"
fun told(one: Reservation): String {
  val vessel: VesselSummary = one.vessel
  return "\${named(one.vessel)} \${one.price.shown()} \${one.arrival ?: "?"} \${one.vessel.id} \${vessel.name}"
}`).filter((use) => !use.startsWith("names")),
    ).toEqual([
      "passes Reservation.price @price",
      "passes Reservation.vessel @vessel",
      "passes Reservation.vessel @vessel",
      "reads Reservation.vessel @vessel",
      "reads VesselSummary.name @name",
      "shows Money.amount @amount",
      "shows Reservation.arrival @arrival",
      "shows VesselSummary.id @id",
      "shows VesselSummary.name @name",
    ]);
  });

  it("unknown values may be any object with such a member", () => {
    expect(
      used(`package app
import other.library.magic
fun draw() {
  println(magic().draught)
  println("text".length)
}`),
    ).toEqual(["reaches Berth.* @draught", "reaches BerthChange.* @draught", "reaches BerthToSend.* @draught"]);
  });

  it("incomplete source is read as far as possible", () => {
    const whole = `${star}suspend fun show(harbour: BerthsConnection) {
  val berth = harbour.getBerth(berthId = "N-07")
  if (berth.quay == "N") println("\${berth.note?.let { "<\$it>" }} \${listOf(berth).map<Berth, String> { it.quay }}")
}`;
    for (let length = 0; length < whole.length; length += 4) expect(() => used(whole.slice(0, length))).not.toThrow();
    expect(used(whole.slice(0, whole.indexOf("  if")))).toContain("calls getBerth @getBerth");
  });

  it("source that is nested too deeply: Rhema cannot tell what it uses", () => {
    const deep = `package app\nfun deep() = ${"(".repeat(20_000)}1${")".repeat(20_000)}\n`;
    expect(used(deep)).toEqual(expect.arrayContaining(["reaches Berth.* @package", "reaches Reservation.* @package"]));
  });
});
