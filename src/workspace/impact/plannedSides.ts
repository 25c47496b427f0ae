import type { PlannedSide } from "../../core/change/compare/compareGraphqlNames.js";
import type { SdkFacts } from "../../core/change/sdkFacts.js";
import { settledSettings } from "../../core/languages/settings.js";
import type { Side } from "../sources/side.js";
import { mappedScalars } from "../generate/planContract.js";
import type { ProjectTexts } from "../generate/sdkInputs.js";

/** The plans of one SDK for the same query documents and both sides of a schema. */
export interface PlannedSides {
  readonly sdk: string;
  readonly language: string;
  readonly before: PlannedSide;
  readonly after: PlannedSide;
  readonly facts: SdkFacts;
}

/** Plans each SDK of a GraphQL contract for both sides; an empty list for REST. */
export async function planSides(
  name: string,
  sides: readonly [Side, Side],
  texts: ProjectTexts,
): Promise<PlannedSides[]> {
  const { configuration, session } = texts.project;
  const own = configuration.contracts[name];
  const found: PlannedSides[] = [];
  for (const [sdk, { covers, language: id, settings = {} }] of Object.entries(configuration.sdks)) {
    if (!covers.includes(name) || !own) continue;
    const { language } = await session.language(id);
    const { fragments, unions } = settledSettings(language.settings, settings);
    const [before, after] = sides.map((side): PlannedSide | undefined => {
      const { contract } = side;
      if (contract.protocol !== "graphql") return undefined;
      const plan = side.plan(texts.queries(name).texts, fragments, {
        configured: own,
        plannedFor: { language: id, settings: { ...settings, unions } },
      });
      return plan.protocol === "graphql" ? { contract, plan } : undefined;
    });
    if (!before || !after) continue;
    const facts = language.facts({ settings, rest: own, scalars: mappedScalars(own, id) });
    found.push({ sdk, language: id, before, after, facts });
  }
  return found;
}
