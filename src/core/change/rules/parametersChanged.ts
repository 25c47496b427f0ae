import type { Parameter, RestOperation } from "../../contract/model.js";
import { memberNameFrom } from "../../sdk/nameScope.js";
import { verdicts } from "../change.js";
import type { ChangeContext } from "../changeContext.js";
import { renamedTo } from "./fieldsChanged.js";

/**
 * Parameters came, went, or changed how they are asked for.
 *
 * The law: a server may take more than before, and must not demand more.
 *
 * @returns the parameters that exist on both sides, to be compared inside
 */
export function parametersChanged(
  label: string,
  before: RestOperation,
  after: RestOperation,
  context: ChangeContext,
): { before: Parameter; after: Parameter; subject: string }[] {
  const same = (a: Parameter, b: Parameter): boolean =>
    a.in === b.in && (a.in === "header" ? a.name.toLowerCase() === b.name.toLowerCase() : a.name === b.name);
  const gone = before.parameters.filter((parameter) => !after.parameters.some((each) => same(parameter, each)));
  const fresh = after.parameters.filter((parameter) => !before.parameters.some((each) => same(parameter, each)));
  const pairs: { before: Parameter; after: Parameter; subject: string }[] = [];
  const renamed = new Set<Parameter>();
  for (const parameter of gone) {
    const successor = successorOf(parameter, before, after, gone, fresh);
    if (successor) {
      renamed.add(successor);
      pairs.push({ before: parameter, after: successor, subject: `${label} ${parameter.name}` });
    }
    parameterGone(label, parameter, successor, context);
  }
  for (const parameter of fresh) if (!renamed.has(parameter)) parameterNew(label, parameter, context);
  for (const parameter of before.parameters) {
    const other = after.parameters.find((each) => same(parameter, each));
    if (!other) continue;
    const subject = `${label} ${parameter.name}`;
    howAsked(subject, parameter, other, context);
    pairs.push({ before: parameter, after: other, subject });
  }
  return pairs;
}

/** Path parameters correspond by position; the others by shape, when only one candidate is there. */
function successorOf(
  parameter: Parameter,
  before: RestOperation,
  after: RestOperation,
  gone: readonly Parameter[],
  fresh: readonly Parameter[],
): Parameter | undefined {
  if (parameter.in !== "path") {
    const here = (each: Parameter): boolean => each.in === parameter.in;
    return renamedTo(parameter, gone.filter(here), fresh.filter(here));
  }
  const names = (path: string): string[] => [...path.matchAll(/\{([^{}]+)\}/g)].map(([, name = ""]) => name);
  const name = names(after.path)[names(before.path).indexOf(parameter.name)];
  return fresh.find((each) => each.in === "path" && each.name === name);
}

function parameterGone(
  label: string,
  parameter: Parameter,
  successor: Parameter | undefined,
  context: ChangeContext,
): void {
  const subject = `${label} ${parameter.name}`;
  const where = `the ${parameter.in} parameter \`${parameter.name}\``;
  if (successor) {
    const verdict =
      parameter.in === "path"
        ? verdicts.codeBreaks
        : successor.required
          ? verdicts.bothBreak
          : verdicts.codeBreaksAppsRisky;
    context.report(
      "ask.parameter.renamed",
      "ask",
      subject,
      `In ${label}, ${where} is now called \`${successor.name}\`.`,
      {
        verdict,
        before: parameter.place,
        after: successor.place,
        word: memberNameFrom(parameter.name),
        hint: `Pass \`${successor.name}\` instead.`,
      },
    );
    return;
  }
  context.report("ask.parameter.gone", "ask", subject, `${label} no longer takes ${where}.`, {
    verdict: verdicts.codeBreaksAppsRisky,
    before: parameter.place,
    word: memberNameFrom(parameter.name),
    hint: "Drop the argument.",
  });
}

function parameterNew(label: string, parameter: Parameter, context: ChangeContext): void {
  const subject = `${label} ${parameter.name}`;
  const where = `the ${parameter.in} parameter \`${parameter.name}\``;
  if (parameter.required)
    context.report("ask.parameter.new-required", "ask", subject, `${label} now demands ${where}.`, {
      verdict: verdicts.bothBreak,
      after: parameter.place,
    });
  else
    context.report("ask.parameter.new", "ask", subject, `${label} now takes ${where}.`, {
      verdict: verdicts.harmless,
      after: parameter.place,
    });
}

function howAsked(subject: string, before: Parameter, after: Parameter, context: ChangeContext): void {
  const places = { before: before.place, after: after.place };
  if (!before.required && after.required)
    context.report("ask.parameter.now-required", "ask", subject, `\`${subject}\` is required now.`, {
      verdict: verdicts.bothBreak,
      ...places,
    });
  if (before.required && !after.required)
    context.report("ask.parameter.now-optional", "ask", subject, `\`${subject}\` may now be left out.`, {
      verdict: verdicts.harmless,
      ...places,
    });
  if (JSON.stringify(before.default) !== JSON.stringify(after.default)) {
    const said = (value: unknown): string => (value === undefined ? "nothing" : JSON.stringify(value));
    const message = `When \`${subject}\` is absent the server takes ${said(after.default)}; it took ${said(before.default)}.`;
    context.report("ask.default.changed", "ask", subject, message, { verdict: verdicts.appsRisky, ...places });
  }
  const list = ["list", "record", "map", "tuple"].includes(before.type.shape.kind);
  if (before.style !== after.style || (list && before.explode !== after.explode)) {
    context.report("ask.style.changed", "ask", subject, `\`${subject}\` is written another way in the request.`, {
      verdict: verdicts.appsBreak,
      ...places,
    });
  }
  if (before.deprecated === undefined && after.deprecated !== undefined) {
    context.report("deprecated.new", "ask", subject, `\`${subject}\` is deprecated now.`, {
      verdict: verdicts.harmless,
      ...places,
    });
  }
}
