import type { SdkFacts } from "../../change/sdkFacts.js";
import type { SharedSettings } from "../../sdk/lower/sharedSettings.js";
import type { FactsScope } from "../language.js";
import { namedTypeFacts } from "../namedTypeFacts.js";
import { typeIdentifier } from "./names/identifiers.js";
import { leafType } from "./types/leafType.js";
import { contractNaming } from "./names/names.js";

/** What Kotlin and the settings of an SDK make of a change. */
export function kotlinFacts(settings: SharedSettings, scope: FactsScope): SdkFacts {
  return namedTypeFacts(settings, scope, {
    leafType,
    instant: "Instant",
    json: "JsonElement",
    typeName: typeIdentifier,
    names: contractNaming,
    takesRecordsApart: true,
    refusesUnwrapping: false,
  });
}
