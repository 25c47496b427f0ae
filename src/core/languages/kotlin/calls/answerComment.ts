import { typeWords } from "../../../sdk/lower/documentation.js";
import { sentences } from "../../../sdk/lower/sentences.js";
import type { PlannedType } from "../../../sdk/sdkPlan.js";
import type { FileContext } from "../contractContext.js";
import { docComment } from "../names/escape.js";

/** Returns the doc comment of a type, which describes a fragment as one. */
export function answerComment(type: PlannedType, { contract }: FileContext): string {
  const { paragraphs, deprecated } = typeWords(type, false);
  const fragment =
    contract.protocol === "graphql"
      ? contract.plan.fragments.find(({ reference: { shape } }) => shape.kind === "named" && shape.key === type.id)
      : undefined;
  return docComment({
    paragraphs: [...(fragment ? [sentences.fragment(fragment.fragment)] : []), ...paragraphs],
    deprecated,
  });
}
