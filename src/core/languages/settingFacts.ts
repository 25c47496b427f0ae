import type { SdkFacts } from "../change/sdkFacts.js";
import { decodedLeaf } from "../sdk/lower/values/decodedLeaf.js";
import type { SharedSettings } from "../sdk/lower/sharedSettings.js";

/** Returns the facts that follow from settings in the same way in every language. */
export function settingFacts(
  settings: SharedSettings,
): Pick<SdkFacts, "decodes" | "openChoices" | "openUnions" | "verifies"> {
  return {
    decodes: (shape) => decodedLeaf(shape, settings) !== undefined,
    openChoices: settings.choices === "open",
    openUnions: settings.unions === "open",
    verifies: settings.verify === "answers",
  };
}
