import type { GraphqlField } from "../../contract/model.js";
import { verdicts } from "../change.js";
import type { ChangeContext } from "../changeContext.js";
import { compareFieldTypes } from "../compareFieldTypes.js";
import { renamedTo } from "./fieldsChanged.js";

/**
 * Arguments of a GraphQL field came, went, or changed.
 *
 * The law: a document that passes what is gone is refused, and so is one that omits what is demanded.
 */
export function argumentsChanged(before: GraphqlField, after: GraphqlField, context: ChangeContext): void {
  const { coordinate } = before;
  const named = (name: string): string => `${coordinate}(${name}:)`;
  const gone = before.arguments.filter((argument) => !after.arguments.some((each) => each.name === argument.name));
  const fresh = after.arguments.filter((argument) => !before.arguments.some((each) => each.name === argument.name));
  const renamed = new Set<string>();
  for (const argument of gone) {
    const successor = renamedTo(argument, gone, fresh);
    if (successor) renamed.add(successor.name);
    const subject = named(argument.name);
    const places = { before: argument.place, after: successor?.place, coordinates: [subject] };
    if (successor) {
      const message = `The argument \`${argument.name}\` of \`${coordinate}\` is now called \`${successor.name}\`.`;
      context.report("ask.parameter.renamed", "ask", subject, message, {
        verdict: verdicts.bothBreak,
        ...places,
        hint: `Pass \`${successor.name}\` instead.`,
      });
    } else {
      context.report(
        "ask.parameter.gone",
        "ask",
        subject,
        `\`${coordinate}\` no longer takes the argument \`${argument.name}\`.`,
        { verdict: verdicts.bothBreak, ...places, hint: "Drop the argument." },
      );
    }
  }
  for (const argument of fresh) {
    if (renamed.has(argument.name) && !argument.required) continue;
    const subject = named(argument.name);
    if (argument.required) {
      context.report(
        "ask.parameter.new-required",
        "ask",
        subject,
        `\`${coordinate}\` now demands the argument \`${argument.name}\`.`,
        { verdict: verdicts.bothBreak, after: argument.place, coordinates: [coordinate] },
      );
    } else if (!renamed.has(argument.name)) {
      context.report(
        "ask.parameter.new",
        "ask",
        subject,
        `\`${coordinate}\` now takes the argument \`${argument.name}\`.`,
        { verdict: verdicts.harmless, after: argument.place, coordinates: [] },
      );
    }
  }
  for (const argument of before.arguments) {
    const other = after.arguments.find((each) => each.name === argument.name);
    if (!other) continue;
    const subject = named(argument.name);
    const places = { before: argument.place, after: other.place };
    if (!argument.required && other.required) {
      context.report(
        "ask.parameter.now-required",
        "ask",
        subject,
        `The argument \`${argument.name}\` of \`${coordinate}\` is required now.`,
        { verdict: verdicts.bothBreak, ...places, coordinates: [subject, `${subject}?`] },
      );
    }
    if (argument.required && !other.required) {
      context.report(
        "ask.parameter.now-optional",
        "ask",
        subject,
        `The argument \`${argument.name}\` of \`${coordinate}\` may now be left out.`,
        { verdict: verdicts.harmless, ...places, coordinates: [] },
      );
    }
    compareFieldTypes(argument, other, "ask", subject, [subject], context);
  }
}
