import type { SdkFacts } from "../../change/sdkFacts.js";
import type { SharedSettings } from "../../sdk/lower/sharedSettings.js";
import type { FactsScope } from "../language.js";
import { namedTypeFacts } from "../namedTypeFacts.js";
import { typeIdentifier } from "./names/identifiers.js";
import { leafType } from "./types/leafType.js";
import { contractNaming } from "./names/names.js";

/** Returns the facts that decide how a change affects Swift source, for the settings of an SDK. */
export function swiftFacts(settings: SharedSettings, scope: FactsScope): SdkFacts {
  return namedTypeFacts(settings, scope, {
    leafType,
    instant: "Date",
    json: "JSON",
    typeName: typeIdentifier,
    names: contractNaming,
    takesRecordsApart: false,
    refusesUnwrapping: true,
  });
}
