import { describe, expect, it } from "vitest";
import { demoText } from "../support/demoText.js";
import type { ToldImpact } from "../support/toldImpact.js";
import { TemporaryProject } from "../support/temporaryProject.js";

const configuration = `contracts:
  berths:
    from: berths.yaml
    pages: { listBerths: { by: cursor, parameter: cursor } }
  passages:
    from: passages.graphql
    queries: [queries/*.graphql]
    scalars: { Instant: { kotlin: String }, Day: { kotlin: String } }
sdks:
  harbour:
    language: kotlin
    covers: [berths, passages]
    into: src/main/kotlin/harbour
    settings: { namespace: com.ostrel.harbour, testing: true }
`;

const board = `package app

import com.ostrel.harbour.berths.*
import com.ostrel.harbour.passages.PassagesConnection
import com.ostrel.harbour.passages.VoyagePlan
import com.ostrel.harbour.passages.planVoyage

// The types of another contract's responses are known too.
suspend fun plan(passages: PassagesConnection, plan: VoyagePlan) =
    passages.planVoyage(plan = plan).planVoyage.let { "\${it.id} \${it.status} \${it.vessel.length}" }

class Board(private val harbour: BerthsConnection) {
    suspend fun lines() = harbour.listBerths(minLength = 8.0).items.map { line(it) }

    private fun line(berth: Berth): String = listOfNotNull(berth.id, berth.note?.trim()).joinToString()

    suspend fun kind(id: String): String = when (val vessel = harbour.getVessel(vesselId = id)) {
        is MotorVessel -> vessel.name
        is SailVessel -> vessel.name
        is RowingVessel -> vessel.name
        is Vessel.Other -> "?"
    }
}
`;

async function generated(files: Readonly<Record<string, string>> = {}): Promise<TemporaryProject> {
  const project = new TemporaryProject({
    "berths.yaml": demoText("contracts/v1/berths.yaml"),
    "passages.graphql": demoText("contracts/v1/passages.graphql"),
    "queries/plan.graphql": demoText("app/queries/plan-voyage.graphql") + demoText("app/queries/voyage-line.graphql"),
    "rhema.yaml": configuration,
    "src/main/kotlin/app/Board.kt": board,
    ...files,
  });
  const { code, err } = await project.run(["generate", "--quiet"]);
  expect([code, err]).toEqual([0, ""]);
  return project;
}

describe("a Kotlin SDK", () => {
  it("is generated and kept up to date, and problems name locations", async () => {
    const project = await generated();
    expect((await project.run(["check"])).code).toBe(0);
    const files = Object.keys(project.tree("src/main/kotlin/harbour"));
    for (const file of [
      "README.md",
      "berths/Berth.kt",
      "berths/BerthsTesting.kt",
      "passages/PlanVoyageAnswer.kt",
      "wire/Send.kt",
    ])
      expect(files).toContain(file);
    expect(project.read("src/main/kotlin/harbour/passages/PlanVoyageAnswer.kt")).toContain(") : VoyageLinePart {");
    const { out } = await project.run(["outline", "berths", "--find", "listBerths"]);
    expect(out).toContain("used at src/main/kotlin/app/Board.kt:13:35");
    const about = await project.run(["outline", "berths", "--about", "getBerth"]);
    expect(about.out).toContain('in Kotlin\n    connection.getBerth(berthId = "text")');
  });

  it("gets the impact of a changed contract on the app's source", async () => {
    const project = await generated();
    project.write("berths.yaml", demoText("contracts/v2/berths.yaml"));
    const { out } = await project.run(["impact", "--json"]);
    const changes = (JSON.parse(out) as ToldImpact).contracts.flatMap((each) => each.changes);
    const told = changes
      .filter(({ use, verdict }) => use === "used" && verdict.code === "breaking")
      .map(({ code, hits }) => `${code} ${hits.map(({ line }) => String(line)).join(" ")}`);
    expect(told.sort()).toEqual([
      "answer.field.gone 15",
      "answer.member.new 17",
      "ask.parameter.gone 13",
      "ask.parameter.renamed 17",
    ]);
    expect(changes.some(({ use }) => use === "cannot tell")).toBe(false);
  });

  it("gets the impact of a changed schema on source that uses the responses", async () => {
    const schema = `
      type Query { craft: Craft! state: State! find(by: By!): Dinghy }
      interface Craft { name: String! owner: String! }
      type Dinghy implements Craft { name: String! owner: String! sail: Int! class: String! }
      type Cruiser implements Craft { name: String! owner: String! cabins: Int! }
      enum State { OPEN SHUT }
      input By @oneOf { name: String number: Int }`;
    const project = new TemporaryProject({
      "fleet.graphql": schema,
      "queries/all.graphql":
        "query One { craft { name owner ... on Dinghy { sail } ... on Cruiser { cabins } } } query Two { craft { name owner ... on Dinghy { sail } } } query Three { state } query Four($by: By!) { find(by: $by) { name ...Hull } } fragment Hull on Dinghy { class }",
      "rhema.yaml": `contracts: { fleet: { from: fleet.graphql, queries: [queries/*.graphql] } }
sdks: { fleet: { language: kotlin, covers: [fleet], into: src/fleet, settings: { namespace: fleet } } }
`,
      "src/App.kt": `package app

import fleet.fleet.*

suspend fun whole(fleet: FleetConnection): Int = when (val craft = fleet.one().craft) {
    is OneAnswer.Craft.Dinghy -> craft.sail
    is OneAnswer.Craft.Cruiser -> craft.cabins
    is OneAnswer.Craft.Newer -> 0
}

suspend fun some(fleet: FleetConnection): String = when (val craft = fleet.two().craft) {
    is TwoAnswer.Craft.Dinghy -> craft.owner.trim()
    else -> craft.name
}

suspend fun state(fleet: FleetConnection): String = if (fleet.three().state == State.Open) "open" else "shut"

suspend fun find(fleet: FleetConnection): String? = fleet.four(by = By.Number(number = 7)).find?.name

fun hull(part: HullPart): Int = part.classValue.length
`,
    });
    expect((await project.run(["generate", "--quiet"])).err).toBe("");
    const told = async (changed: string): Promise<string[]> => {
      project.write("fleet.graphql", changed);
      const { out } = await project.run(["impact", "--json"]);
      return (JSON.parse(out) as ToldImpact).contracts
        .flatMap(({ changes }) => changes)
        .filter(({ use }) => use === "used")
        .map(({ code, verdict, hits }) => {
          const lines = hits.filter(({ file }) => file === "src/App.kt").map(({ line }) => String(line));
          return [code, verdict.code, ...lines].join(" ");
        });
    };
    const tender = `${schema} type Tender implements Craft { name: String! owner: String! }`;
    expect(await told(tender)).toEqual(["type.interface.gained breaking 5"]);
    expect(await told(schema.replaceAll("owner: String!", "owner: String"))).toEqual(
      expect.arrayContaining(["answer.null.gained breaking 12"]),
    );
    expect(await told(schema.replaceAll("name: String!", "name: String"))).toEqual(
      // The type of `find?.name` is the same.
      expect.arrayContaining(["answer.null.gained breaking 13", "answer.null.gained compatible"]),
    );
    expect(await told(schema.replace("class: String!", "class: String"))).toEqual(["answer.null.gained breaking 20"]);
    expect(await told(schema.replace("OPEN SHUT", "OPEN SHUT BUSY"))).toEqual(["answer.choice.new compatible"]);
    expect(await told(schema.replace(" @oneOf", ""))).toEqual(["ask.one-of.gone breaking 18 18"]);
    expect(await told(schema.replace("number: Int }", "number: Int code: Int }"))).toEqual([]);
    expect(await told(schema.replace("number: Int }", "number: Float }"))).toEqual(["ask.type.changed breaking 18"]);
    expect(await told(schema.replace("name: String number", "label: String number"))).toEqual([
      "ask.field.gone compatible",
    ]);
    expect(await told(schema.replace(" number: Int }", " }"))).toEqual(["ask.field.gone breaking 18"]);
  });

  it("has its own uses, and none from another Kotlin SDK", async () => {
    const schema = "type Query { boat: Boat! } type Boat { name: String! length: Float! }";
    const sdk = (name: string): string =>
      `  ${name}: { language: kotlin, covers: [fleet], into: src/${name}, settings: { namespace: ${name} } }\n`;
    const project = new TemporaryProject({
      "fleet.graphql": schema,
      "queries/boat.graphql": "query Boat { boat { name length } }",
      "rhema.yaml": `contracts: { fleet: { from: fleet.graphql, queries: [queries/*.graphql] } }\nsdks:\n${sdk("one")}${sdk("two")}`,
      "src/App.kt":
        "package app\n\nimport one.fleet.*\n\nsuspend fun f(fleet: FleetConnection) = fleet.boat().boat.name.length\n",
    });
    expect((await project.run(["generate", "--quiet"])).err).toBe("");
    project.write("fleet.graphql", schema.replace("name: String!", "name: String"));
    const { out } = await project.run(["impact", "--json"]);
    const [change] = (JSON.parse(out) as ToldImpact).contracts.flatMap(({ changes }) => changes);
    expect(change).toMatchObject({
      code: "answer.null.gained",
      verdict: { code: "breaking" },
      sdks: [
        { sdk: "one", code: "breaking" },
        { sdk: "two", code: "compatible" },
      ],
    });
  });

  it.each([
    ["in Kotlin", "package app\n\nimport elsewhere.held\n\nfun note() = held().note\n", undefined],
    [
      "in Java beside it",
      "package app\n\nfun nothing() = 1\n",
      "package app;\n\nimport com.ostrel.harbour.berths.Berth;\n\nclass Label { String of(Berth berth) { return berth.getNote(); } }\n",
    ],
  ])("has uses that Rhema cannot tell for a value %s", async (where, kotlin, java) => {
    const project = await generated({
      "src/main/kotlin/app/Board.kt": kotlin,
      ...(java === undefined ? {} : { "src/main/java/app/Label.java": java }),
    });
    project.write("berths.yaml", demoText("contracts/v2/berths.yaml"));
    const { out } = await project.run(["impact", "--json"]);
    const gone = (JSON.parse(out) as ToldImpact).contracts
      .flatMap(({ changes }) => changes)
      .find(({ code }) => code === "answer.field.gone");
    expect([where, gone?.use]).toEqual([where, "cannot tell"]);
  });

  it("has programs that try a call, built with Maven, and existing files are kept", async () => {
    const project = await generated();
    const first = await project.run(["try", "reserveBerth", "berthId=N-07", "body.vesselId=v$1", "--code", "samples"]);
    expect([first.code, first.err]).toEqual([0, ""]);
    expect(first.out).toContain("mvn -q -B -f samples/reserve-berth/pom.xml compile exec:java");
    const program = project.read("samples/reserve-berth/src/main/kotlin/Main.kt");
    expect(program).toContain('connection.reserveBerth(berthId = "N-07", body = ReservationRequest(vesselId = "v\\$1"');
    project.write("samples/reserve-berth/src/main/kotlin/Main.kt", "// mine");
    await project.run(["try", "reserveBerth", "--code", "samples"]);
    expect(project.read("samples/reserve-berth/src/main/kotlin/Main.kt")).toBe("// mine");
    expect((await project.run(["try", "getBerth", "--code", "../elsewhere"])).err).toContain("path.outside");
  });
});
