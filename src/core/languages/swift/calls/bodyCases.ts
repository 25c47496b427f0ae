import type { BodyWay } from "../../../sdk/lower/request.js";
import { NameScope } from "../../../sdk/nameScope.js";
import { camelCase } from "../../../text/words.js";
import { caseIdentifier, spelled } from "../names/identifiers.js";

/** Returns the cases of a body that can be sent in several media types, with their names. */
export function bodyCases(ways: readonly BodyWay[]): { readonly way: BodyWay; readonly name: string }[] {
  const scope = new NameScope();
  return ways.map((way) => ({
    way,
    name: spelled(scope.claim(caseIdentifier(camelCase(way.mediaType) || "anything"), way.mediaType)),
  }));
}
