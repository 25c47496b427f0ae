import fragments.boats.BoatPart
import fragments.boats.LinePart
import fragments.boats.OneAnswer
import fragments.boats.OneAnswerForm
import fragments.boats.ThingPart
import fragments.wire.parseJson

/** Components that know the fragments and not the responses. */
fun told(line: LinePart): String = "${line.id} of ${line.list.string} with ${line.crew.map { it.name }}"

fun told(thing: ThingPart): String =
    when (thing) {
        is ThingPart.Boat -> "boat ${thing.id}, ${thing.size}"
        is ThingPart.Buoy -> "buoy ${thing.id}, ${thing.depth}"
        is ThingPart.Newer -> "${thing.typename} ${thing.id}"
    }

fun told(boat: BoatPart): String = "${boat.fooBar} and ${boat.fooUnderscoreBar}"

/** An app with the whole response. */
fun told(thing: OneAnswer.Things): String =
    when (thing) {
        is OneAnswer.Things.Boat -> "${thing.id}: ${thing.length}, ${thing.owner?.name}"
        is OneAnswer.Things.Buoy -> "${thing.id}: ${thing.depth}, ${thing.owner?.name}"
        is OneAnswer.Things.Newer -> "${thing.id}: ${thing.typename}"
    }

fun main(arguments: Array<String>) {
    val answer = OneAnswerForm.read(parseJson(arguments.single()))
    println(told(answer.boat as LinePart))
    println(told(answer.boat as BoatPart))
    println(answer.boat.list.list.list.string)
    answer.things.forEach { println(told(it as ThingPart)) }
    answer.things.forEach { println(told(it)) }
    println(answer.copy(things = emptyList()).toString().length > 10)
}
