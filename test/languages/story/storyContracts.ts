import { readContract } from "../../../src/core/readContract.js";
import { readQueryDocuments, type TypingOptions } from "../../../src/core/graphql/documents/readQueryDocuments.js";
import { readGraphqlContract } from "../../../src/core/graphql/readGraphqlContract.js";
import { planGraphql } from "../../../src/core/sdk/planGraphql.js";
import { planRest } from "../../../src/core/sdk/planRest.js";
import type { GraphqlPlan, RestPlan } from "../../../src/core/sdk/sdkPlan.js";
import { demoProject, type TemporaryProject } from "../../support/temporaryProject.js";
import type { Story } from "./storyStep.js";

/** The demo's project with the story's additions. */
export function storyProject(story: Story): TemporaryProject {
  const project = demoProject();
  const berths = project.read("contracts/berths.yaml").replace("\npaths:\n", `\npaths:\n${story.paths.join("\n")}\n`);
  project.write("contracts/berths.yaml", berths);
  const schema = `${project.read("contracts/passages.graphql")}\n${story.definitions.join("\n")}\n`;
  project.write("contracts/passages.graphql", schema);
  for (const [file, text] of Object.entries(story.queries)) project.write(`queries/${file}`, text);
  return project;
}

/** The plans of the story's contracts. */
export function storyPlans(
  project: TemporaryProject,
  settings: Story["settings"],
  typing: TypingOptions = {},
): { readonly berths: RestPlan; readonly passages: GraphqlPlan } {
  const rest = readContract("berths", [{ document: "berths.yaml", text: project.read("contracts/berths.yaml") }]);
  const graphql = readGraphqlContract("passages", [
    { document: "passages.graphql", text: project.read("contracts/passages.graphql") },
  ]);
  if (rest.contract?.protocol !== "rest" || !graphql.contract || !graphql.schema)
    throw new Error("The demo cannot be read.");
  const pages = Object.fromEntries(
    ["listBerths", "listReservations", "listVessels"].map((name) => [
      name,
      { by: "cursor", parameter: "cursor" } as const,
    ]),
  );
  const queries = Object.entries(project.tree("queries")).map(([document, text]) => ({ document, text }));
  const scalars = new Map(["Day", "Instant", "Payload"].map((name) => [name, {}]));
  const unions = settings["unions"] === "open" ? ("open" as const) : ("closed" as const);
  return {
    berths: planRest(rest.contract, { pages }),
    passages: planGraphql(graphql.contract, readQueryDocuments(graphql.schema, queries, typing), {
      scalars: new Map([...scalars, ["Upload", { format: "binary" }]]),
      unions,
    }),
  };
}
