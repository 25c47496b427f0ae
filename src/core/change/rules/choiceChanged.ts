import type { ChoiceValue, Shape } from "../../contract/model.js";
import { verdicts } from "../change.js";
import { placesOf, resolvedAfter, resolvedBefore, type ChangeContext, type ReferencePair } from "../changeContext.js";

/**
 * A choice gained or lost values.
 *
 * The law: answers may lose values unseen and surprise with new ones; asks may gain values and not lose any.
 */
export function choiceChanged(pair: ReferencePair, context: ChangeContext): void {
  const before = valuesOf(resolvedBefore(pair, context).shape);
  const after = valuesOf(resolvedAfter(pair, context).shape);
  if (!before || !after) return;
  const { face, subject } = pair;
  for (const value of before.filter((each) => !after.includes(each))) {
    const places = {
      ...placesOf(pair),
      coordinates: [...pair.coordinates, ...pair.coordinates.map((coordinate) => `${coordinate}.${String(value)}`)],
    };
    const quoted = `\`${String(value)}\``;
    if (face === "ask")
      context.report("ask.choice.gone", face, subject, `\`${subject}\` no longer takes ${quoted}.`, {
        verdict: verdicts.bothBreak,
        ...places,
      });
    else
      context.report("answer.choice.gone", face, subject, `\`${subject}\` never answers ${quoted} any more.`, {
        verdict: verdicts.codeBreaks,
        ...places,
      });
  }
  for (const value of after.filter((each) => !before.includes(each))) {
    const quoted = `\`${String(value)}\``;
    if (face === "ask")
      context.report("ask.choice.new", face, subject, `\`${subject}\` also takes ${quoted}.`, {
        verdict: verdicts.harmless,
        ...placesOf(pair),
      });
    else {
      context.report("answer.choice.new", face, subject, `\`${subject}\` can now answer ${quoted}.`, {
        verdict: verdicts.codeRiskyAppsBreak,
        ...placesOf(pair),
        hint: "Give every match on it a default branch.",
      });
    }
  }
}

function valuesOf(shape: Shape): readonly ChoiceValue[] | undefined {
  if (shape.kind === "literal") return [shape.value];
  return shape.kind === "choice" ? shape.values.map(({ value }) => value) : undefined;
}
