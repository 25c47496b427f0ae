import { cpSync } from "node:fs";
import { join } from "node:path";
import { describe, expect, it } from "vitest";
import { contractWith } from "../support/smallContract.js";
import { packageRoot } from "../support/packageRoot.js";
import { demoProject, restProject, TemporaryProject } from "../support/temporaryProject.js";

const generated = async () => {
  const project = demoProject();
  expect((await project.run(["generate"])).code).toBe(0);
  return project;
};
const v2 = (project: TemporaryProject) => {
  cpSync(join(packageRoot, "demo/contracts/v2"), project.path("contracts"), { recursive: true });
  return project;
};

describe("check", () => {
  it("passes if everything is up to date, and writes nothing", async () => {
    const project = await generated();
    const before = [project.tree("src"), project.tree(".rhema")];
    expect(await project.run(["check"])).toMatchObject({ code: 0, err: "" });
    expect((await project.run(["check"])).out).toMatch(
      /^check: 1 SDK up to date, all queries valid\n {2}quay-board {2}up to date {2}58 files {2}src\/sdk\n$/,
    );
    expect([project.tree("src"), project.tree(".rhema")]).toEqual(before);
  });

  it.each<[string, (project: TemporaryProject) => void, string]>([
    [
      "before the first generation",
      (project) => {
        for (const path of Object.keys(project.tree(".rhema")))
          project.write(`.rhema/${path}`, path === "ledger.json" ? '{"sdks":{}}' : "");
      },
      "output.stale",
    ],
    [
      "when a contract changed",
      (project) => {
        v2(project);
      },
      "output.stale",
    ],
    [
      "when an SDK file is missing",
      (project) => {
        project.write(".rhema/ledger.json", project.read(".rhema/ledger.json").replace(/"inputs": "./, '"inputs": "x'));
        project.write("src/sdk/wire/send.ts", "");
      },
      "was edited",
    ],
    [
      "when a query does not fit",
      (project) => {
        project.write("queries/fleet.graphql", "query Fleet { vessels { nope } }");
      },
      "query.invalid",
    ],
    [
      "when a generated file was edited",
      (project) => {
        project.write("src/sdk/README.md", "hello");
      },
      "`src/sdk/README.md` was edited.",
    ],
    [
      "when an earlier run was stopped while it wrote",
      (project) => {
        project.write(".rhema/staging/journal.json", '{"staged":[],"remove":[]}');
      },
      "was interrupted",
    ],
  ])("fails %s", async (_name, spoil, part) => {
    const project = await generated();
    spoil(project);
    const { code, out, err } = await project.run(["check"]);
    expect([code, err.includes(part)]).toEqual([1, true]);
    expect(out).toMatch(/^check: \d+ reasons? to fail/);
  });

  it("accepts a contract whose change affects no generated file", async () => {
    const project = restProject(contractWith({ A: { type: "string" } }));
    await project.run(["generate"]);
    project.write("api.yaml", JSON.stringify(contractWith({ A: { type: "string" } }), null, 2));
    expect((await project.run(["check"])).code).toBe(0);
  });

  it("--json prints one document with the reasons", async () => {
    const project = v2(await generated());
    const { out, err } = await project.run(["--json", "check"]);
    const { exitCode, sdks } = JSON.parse(out) as {
      exitCode: number;
      sdks: { ok: boolean; problems: { code: string; places: { file: string; line: number }[] }[] }[];
    };
    expect([exitCode, sdks[0]?.ok, err]).toEqual([1, false, ""]);
    expect(sdks[0]?.problems.map((each) => each.code)).toEqual([
      "config.invalid",
      "contract.pages",
      "query.invalid",
      "query.invalid",
      "query.invalid",
      "query.invalid",
      "output.stale",
    ]);
    const query = sdks[0]?.problems.find((each) => each.code === "query.invalid");
    expect(query?.places[0]).toMatchObject({ file: "queries/fleet.graphql", line: 3 });
  });
});

interface ImpactJson {
  readonly exitCode: number;
  readonly contracts: {
    contract: string;
    changes: {
      code: string;
      subject: string;
      use: string;
      verdict: { code: string; apps: string };
      hits: { owner: string; file: string; line: number; operations: string[] }[];
      before?: { file: string; line: number };
      after?: { file: string; line: number };
    }[];
    brokenQueries: { places: { file: string; line: number }[] }[];
  }[];
}
const impactOf = async (project: TemporaryProject, ...args: string[]) =>
  JSON.parse((await project.run(["--json", "impact", ...args])).out) as ImpactJson;

describe("impact", () => {
  it("says in its first line that nothing changed", async () => {
    const { code, out } = await (await generated()).run(["impact"]);
    expect([code, out.split("\n")[0]]).toEqual([0, "impact: nothing changed"]);
  });

  it("has nothing to compare with before the first run of generate", async () => {
    const { code, err } = await demoProject().run(["impact"]);
    expect([code, err.includes("berths: nothing to compare with yet")]).toEqual([0, true]);
  });

  it("lists breaking changes by operation and type, with locations in both contracts and in the project", async () => {
    const project = v2(await generated());
    const { code, out } = await project.run(["impact"]);
    expect(code).toBe(1);
    expect(out.split("\n")[0]).toMatch(/^impact: \d+ of \d+ changes can break this project, \d queries refused$/);
    for (const line of out.split("\n").slice(0, 1)) expect(line.length).toBeLessThanOrEqual(80);
    expect(out).toContain("  type Berth\n");
    expect(out).toContain("  operation GET /tides/{day}\n");
    expect(out).toMatch(
      /contract {2}\.rhema\/pins\/quay-board\/passages\.graphql:103:3 -> contracts\/passages\.graphql:\d+:3/,
    );
    expect(out).toContain(
      "queries/voyage-line.graphql:5:3  selects in VoyageLine, sent by ArrivalsToday, LiveArrivals, PlanVoyage, VoyageDetails",
    );
    expect(out).toContain("query documents the new contract refuses: 4");
    expect(out).toMatch(/and \d+ changes to what you do not use, \d+ compatible changes \(--all lists them\)/);
    expect(out).not.toContain("DELETE /berths/{berthId} was removed");
    expect((await project.run(["impact", "--all"])).out).toContain("DELETE /berths/{berthId} was removed");
  });

  it("finds every planned change of the demo, with both verdicts", async () => {
    const { contracts } = await impactOf(v2(await generated()));
    const found = (name: string) =>
      contracts
        .find(({ contract }) => contract === name)
        ?.changes.map(
          ({ code, subject, use, verdict }) => `${code} ${subject} ${verdict.code}/${verdict.apps} ${use}`,
        ) ?? [];
    expect(found("berths")).toEqual(
      expect.arrayContaining([
        "answer.field.renamed Berth.draught breaking/compatible used",
        "answer.field.gone Berth.note breaking/compatible used",
        "answer.choice.new BerthStatus breaking/breaking used",
        "operation.moved GET /tides/{day} compatible/breaking used",
        "ask.field.now-required ReservationRequest.crew breaking/breaking not used",
        "answer.type.changed Money.amount breaking/breaking used",
        "failure.status.new POST /berths/{berthId}/reservations 423 compatible/risky used",
        "operation.gone DELETE /berths/{berthId} breaking/breaking not used",
        "operation.renamed GET /vessels breaking/compatible not used",
        "auth.now-required GET /tariffs breaking/breaking not used",
        "operation.new GET /moorings/photos compatible/compatible not used",
      ]),
    );
    expect(found("passages")).toEqual(
      expect.arrayContaining([
        "answer.field.renamed Voyage.berth breaking/breaking used",
        "answer.field.gone Voyage.remarks breaking/breaking used",
        "ask.parameter.renamed Query.vessels(limit:) breaking/breaking used",
        "answer.null.gained Voyage.from breaking/breaking used",
        "answer.member.new Cargo risky/breaking used",
        "answer.field.gone Mutation.cancelVoyage breaking/breaking not used",
        "answer.field.gone Port.position breaking/breaking not used",
        "deprecated.new LogEntry.author compatible/compatible not used",
      ]),
    );
    expect([found("berths").length, found("passages").length].every((count) => count >= 12)).toBe(true);
  });

  it("says so if nothing breaks the project", async () => {
    const project = await generated();
    project.write(
      "contracts/passages.graphql",
      project.read("contracts/passages.graphql").replace("  position: Position\n", ""),
    );
    const { code, out } = await project.run(["impact"]);
    expect([code, out.split("\n")[0]]).toEqual([0, "impact: 1 change, none breaks what you use"]);
  });

  it("an operation that is not called is not used; a field is used where it is read", async () => {
    const project = await generated();
    project.write(
      "contracts/berths.yaml",
      project
        .read("contracts/berths.yaml")
        .replace("        season: { type: string, enum: [summer, winter] }\n", "")
        .replace("        station: { type: string, examples: [Ostrel mole] }\n", ""),
    );
    const { contracts } = await impactOf(project, "berths");
    expect(
      contracts[0]?.changes.map(({ subject, use, hits }) => [
        subject,
        use,
        hits.map(({ file, line }) => `${file}:${String(line)}`),
      ]),
    ).toEqual([
      ["TideTable.station", "used", ["src/weather.ts:5"]],
      ["Tariff.season", "not used", []],
    ]);
  });

  it("compares any two files, with or without a project", async () => {
    const empty = new TemporaryProject({
      "old.json": JSON.stringify(contractWith({ A: { type: "object", properties: { x: { type: "string" } } } })),
      "new.json": JSON.stringify(contractWith({ A: { type: "object", properties: {} } })),
    });
    const alone = await impactOf(empty, "--before", "old.json", "--after", "new.json");
    expect(alone).toMatchObject({
      exitCode: 1,
      contracts: [
        {
          contract: "new",
          changes: [{ code: "answer.field.gone", use: "cannot tell", before: { file: "old.json", line: 1 } }],
        },
      ],
    });
    const project = await generated();
    project.write("next.graphql", project.read("contracts/passages.graphql").replace("  eta: Instant\n", ""));
    expect((await impactOf(project, "passages", "--after", "next.graphql")).contracts[0]?.brokenQueries).toMatchObject([
      { places: [{ file: "queries/voyage-line.graphql", line: 4 }] },
    ]);
  });
});

describe("an SDK that is not committed", () => {
  const fresh = async (): Promise<TemporaryProject> => {
    const project = v2(await generated());
    project.remove("src/sdk");
    return project;
  };

  it("is made in memory from the pin, so that uses in source are found", async () => {
    const [written, missing] = [v2(await generated()), await fresh()];
    const told = async (project: TemporaryProject) => {
      const { code, out } = await project.run(["impact", "--json"]);
      const { contracts } = JSON.parse(out) as {
        contracts: { changes: { code: string; use: string; hits: object[] }[] }[];
      };
      return {
        code,
        changes: contracts.flatMap(({ changes }) => changes.map((each) => [each.code, each.use, each.hits])),
      };
    };
    const found = await told(missing);
    expect(found).toEqual(await told(written));
    expect(found.code).toBe(1);
    expect(missing.exists("src/sdk")).toBe(false);
  });

  it("does not prevent finding which calls are used", async () => {
    const project = await fresh();
    const before = await v2(await generated()).run(["outline", "berths", "--unused"]);
    expect((await project.run(["outline", "berths", "--unused"])).out).toBe(before.out);
  });
});
