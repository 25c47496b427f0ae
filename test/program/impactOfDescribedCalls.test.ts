import { expect, it } from "vitest";
import { demoProject } from "../support/temporaryProject.js";
import type { ToldImpact } from "../support/toldImpact.js";

const app = `import { berthsKey, cachedBerths } from "./sdk/berths/cached.js";
import { berthsCalls } from "./sdk/berths/grouped.js";
import { connectBerths } from "./sdk/berths/index.js";

const harbour = connectBerths({ baseUrl: "/berths" });
const berths = cachedBerths(harbour);
export const list = berths.listBerths({ status: ["free"] });
export const pages = berths.listVesselsPages();
export const change = berths.changeBerth();
export const tariffs = berths["listTariffs"];
export const key = berthsKey(harbour, "listReservations");
export const grouped = berthsCalls(harbour)["tideTable"];
`;

it("described calls and their pages are uses of their operations", async () => {
  const project = demoProject();
  project.remove("src");
  project.write("src/app.ts", app);
  project.write("rhema.yaml", project.read("rhema.yaml").replace("{ dates: text }", "{ cached: true }"));
  expect((await project.run(["generate"])).code).toBe(0);
  const contract = project.read("contracts/berths.yaml");
  project.write(
    "contracts/berths.yaml",
    contract.replace(
      /operationId: (listBerths|listVessels|changeBerth|listReservations|listTariffs|tideTable|getBerth)$/gm,
      "operationId: $1Now",
    ),
  );
  const { out } = await project.run(["--json", "impact", "berths"]);
  const [berths] = (JSON.parse(out) as ToldImpact).contracts;
  const used = berths?.changes.flatMap(({ code, use, hits }) =>
    use === "used" ? [`${code} ${hits.map(({ line }) => String(line)).join(" ")}`] : [],
  );
  expect(used?.sort()).toEqual([
    "operation.pages.gone 8",
    "operation.renamed 10",
    "operation.renamed 11",
    "operation.renamed 12",
    "operation.renamed 7",
    "operation.renamed 8",
    "operation.renamed 9",
  ]);
});
