import { describe, expect, it } from "vitest";
import { bundled } from "../support/bundled.js";
import { demoProject, type TemporaryProject } from "../support/temporaryProject.js";

/** A unit test as in an app, without a server or a test library. */
const unitTest = `import { getBerth, isReserveBerthFailure, listBerthsItems, reserveBerth, type Berth } from "./sdk/berths/index.js";
import { fakeBerths, sampleBerth, sampleBerthPage, sampleConflictProblem } from "./sdk/berths/testing.js";
import { arrivalsToday, liveArrivals } from "./sdk/passages/index.js";
import { fakePassages, sampleArrivalsTodayAnswer, sampleLiveArrivalsAnswer } from "./sdk/passages/testing.js";
import * as wire from "./sdk/wire/index.js";

export async function run(): Promise<unknown> {
  const pages = [sampleBerthPage({ items: [sampleBerth({ id: "N-01" })], nextCursor: "2" }), sampleBerthPage({ items: [sampleBerth()] })];
  const harbour = fakeBerths(
    {
      getBerth: sampleBerth({ shorePower: false }),
      listBerths: ({ url }) => pages[url.searchParams.has("cursor") ? 1 : 0] ?? sampleBerthPage(),
      reserveBerth: wire.failing(409, sampleConflictProblem({ conflictsWith: "r-7" })),
    },
    { auth: { harbourToken: "token" } },
  );
  const ids: string[] = [];
  for await (const { id } of listBerthsItems(harbour.connection)) ids.push(id);
  const { shorePower } = await getBerth(harbour.connection, { berthId: "N-07" });
  let conflict = "";
  try {
    await reserveBerth(harbour.connection, { berthId: "N-07", body: { vesselId: "v", arrival: "2026-05-01", departure: "2026-05-02" } });
  } catch (error) {
    if (isReserveBerthFailure(error) && error.status === 409) conflict = error.body.conflictsWith;
  }
  const offline = fakeBerths({ getBerth: wire.failing("unreachable") });
  const status = await getBerth(offline.connection, { berthId: "N-07" }).catch((error: unknown) => String(Object(error).status));
  const unanswered = await getBerth(fakeBerths({}).connection, { berthId: "N-07" }).catch((error: unknown) => String(error));
  const sea = fakePassages({ arrivalsToday: sampleArrivalsTodayAnswer(), liveArrivals: [sampleLiveArrivalsAnswer(), sampleLiveArrivalsAnswer()] });
  await arrivalsToday(sea.connection, { day: "2026-05-01" });
  let live = 0;
  for await (const _each of liveArrivals(sea.connection, {})) live++;
  const asked = harbour.requests.map(({ call, method, url, body, headers }) => [call, method, url.pathname + url.search, body, headers.get("authorization")]);
  return { ids, shorePower, conflict, status, unanswered, live, asked, sea: sea.requests.map(({ call }) => call) };
}

// @ts-expect-error A fake answers what the contract says.
void fakeBerths({ getBerth: { id: 7 } });
// @ts-expect-error A call fails only in ways it declares.
void fakeBerths({ getBerth: wire.failing(418, {}) });
export const berth: Berth = sampleBerth();
`;

function projectWith(contract = ""): TemporaryProject {
  const project = demoProject();
  project.write("rhema.yaml", project.read("rhema.yaml").replace("dates: text", "dates: text, testing: true"));
  if (contract !== "") project.write("contracts/berths.yaml", contract);
  project.write("src/unit.ts", unitTest);
  return project;
}

describe("the module for unit tests", () => {
  it("responds without a server, records requests, and fills samples", async () => {
    const project = projectWith();
    expect((await project.run(["generate"])).code).toBe(0);
    expect(project.compileAndLint()).toEqual([]);
    const { run } = await bundled<{ run: () => Promise<unknown> }>(project, "src/unit.ts");
    const reservation = { vesselId: "v", arrival: "2026-05-01", departure: "2026-05-02" };
    expect(await run()).toEqual({
      ids: ["N-01", "N-07"],
      shorePower: false,
      conflict: "r-7",
      status: "unreachable",
      unanswered: "CallFailure: berths.getBerth: the fake connection has no response for `getBerth`",
      live: 2,
      asked: [
        ["listBerths", "GET", "/berths", undefined, "Bearer token"],
        ["listBerths", "GET", "/berths?cursor=2", undefined, "Bearer token"],
        ["getBerth", "GET", "/berths/N-07", undefined, "Bearer token"],
        ["reserveBerth", "POST", "/berths/N-07/reservations", reservation, "Bearer token"],
      ],
      sea: ["arrivalsToday", "liveArrivals"],
    });
  });

  it("stops a test from compiling if the contract drops the field that it fakes", async () => {
    const contract = demoProject().read("contracts/berths.yaml");
    const without = contract.replaceAll(/^ +shorePower: .*\n/gm, "").replaceAll(/, shorePower\b/g, "");
    expect(without).not.toBe(contract);
    const project = projectWith(without);
    await project.run(["generate"]);
    const complaints = project.compile();
    expect(complaints).toContain("src/unit.ts");
    expect(complaints).toContain("'shorePower' does not exist");
  });
});
