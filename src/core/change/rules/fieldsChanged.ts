import type { Field, RecordShape } from "../../contract/model.js";
import { sameReference } from "../../contract/sameShape.js";
import { sharesWord } from "../../text/words.js";
import { verdicts } from "../change.js";
import type { ChangeContext } from "../changeContext.js";

export interface RecordPair {
  readonly before: RecordShape;
  readonly after: RecordShape;
  readonly face: "ask" | "answer";
  readonly subject: string;
  readonly coordinateOf: (field: string) => string[];
}

/**
 * Fields came, went, or changed whether they are there.
 *
 * The law: an answer must keep what it promised; an ask must not demand more than before.
 *
 * @returns the fields that exist on both sides, to be compared inside
 */
export function fieldsChanged(pair: RecordPair, context: ChangeContext): { before: Field; after: Field }[] {
  const before = facing(pair.before, pair.face);
  const after = facing(pair.after, pair.face);
  const gone = before.filter((field) => !after.some((each) => each.name === field.name));
  const fresh = after.filter((field) => !before.some((each) => each.name === field.name));
  const renamed = new Set<Field>();
  for (const field of gone) {
    const successor = renamedTo(field, gone, fresh);
    if (successor) renamed.add(successor);
    fieldGone(field, successor, pair, context);
  }
  for (const field of fresh) if (!renamed.has(field)) fieldNew(field, pair, context);
  return before.flatMap((field) => {
    const other = after.find((each) => each.name === field.name);
    if (!other) return [];
    presenceChanged(field, other, pair, context);
    return [{ before: field, after: other }];
  });
}

function facing(record: RecordShape, face: "ask" | "answer"): Field[] {
  const against = face === "ask" ? "answer" : "request";
  return record.fields.filter((field) => field.face !== against);
}

/**
 * The new field that a gone one turned into: of the same shape and presence, and either the only candidate both ways
 * or the only one that shares a word with the old name.
 */
export function renamedTo<T extends Field>(field: T, gone: readonly T[], fresh: readonly T[]): T | undefined {
  const alike = (a: Field, b: Field): boolean => a.required === b.required && sameReference(a.type, b.type);
  const candidates = fresh.filter((each) => alike(field, each));
  const rivals = gone.filter((each) => alike(field, each));
  const [only] = candidates;
  if (candidates.length === 1 && rivals.length === 1) return only;
  const related = candidates.filter((each) => sharesWord(field.name, each.name));
  const [first] = related;
  const contested = first && rivals.some((each) => each !== field && sharesWord(each.name, first.name));
  return related.length === 1 && !contested ? first : undefined;
}

function fieldGone(field: Field, successor: Field | undefined, pair: RecordPair, context: ChangeContext): void {
  const { face } = pair;
  const subject = `${pair.subject}.${field.name}`;
  const places = {
    before: field.place,
    after: successor?.place,
    coordinates: pair.coordinateOf(field.name),
    word: field.name,
  };
  const verdict =
    face === "answer"
      ? field.required
        ? verdicts.bothBreak
        : verdicts.codeBreaks
      : pair.after.closed === true || successor?.required === true
        ? verdicts.bothBreak
        : verdicts.codeBreaksAppsRisky;
  if (successor) {
    const message = `\`${subject}\` is now called \`${successor.name}\`${face === "ask" ? " when it is sent" : ""}.`;
    context.report(face === "answer" ? "answer.field.renamed" : "ask.field.renamed", face, subject, message, {
      verdict,
      ...places,
      hint: `Use \`${successor.name}\` instead.`,
    });
    return;
  }
  const message = face === "answer" ? `\`${subject}\` is no longer answered.` : `\`${subject}\` can no longer be sent.`;
  context.report(face === "answer" ? "answer.field.gone" : "ask.field.gone", face, subject, message, {
    verdict,
    ...places,
  });
}

function fieldNew(field: Field, pair: RecordPair, context: ChangeContext): void {
  const { face } = pair;
  const subject = `${pair.subject}.${field.name}`;
  const places = { after: field.place, coordinates: pair.coordinateOf(field.name) };
  if (face === "answer") {
    // In GraphQL nobody is answered a field without having asked for it.
    const verdict = field.required && context.before.protocol === "rest" ? verdicts.codeRisky : verdicts.harmless;
    context.report("answer.field.new", face, subject, `\`${subject}\` is now answered.`, { verdict, ...places });
  } else if (field.required) {
    context.report("ask.field.new-required", face, subject, `\`${subject}\` has to be sent now.`, {
      verdict: verdicts.bothBreak,
      ...places,
      coordinates: [pair.subject],
    });
  } else
    context.report("ask.field.new", face, subject, `\`${subject}\` can be sent now.`, {
      verdict: verdicts.harmless,
      ...places,
    });
}

function presenceChanged(before: Field, after: Field, pair: RecordPair, context: ChangeContext): void {
  const { face } = pair;
  const subject = `${pair.subject}.${before.name}`;
  const places = { before: before.place, after: after.place, coordinates: pair.coordinateOf(before.name) };
  if (before.deprecated === undefined && after.deprecated !== undefined) {
    context.report(
      "deprecated.new",
      face,
      subject,
      `\`${subject}\` is deprecated now.${after.deprecated === "" ? "" : ` ${after.deprecated}`}`,
      { verdict: verdicts.harmless, ...places },
    );
  }
  if (before.required === after.required) return;
  if (face === "answer") {
    if (after.required)
      context.report("answer.field.now-always", face, subject, `\`${subject}\` is always there now.`, {
        verdict: verdicts.codeRisky,
        ...places,
      });
    else
      context.report("answer.field.now-optional", face, subject, `\`${subject}\` may now be absent from answers.`, {
        verdict: verdicts.bothBreak,
        ...places,
        word: before.name,
        hint: "Handle its absence where it is read.",
      });
  } else if (after.required) {
    context.report("ask.field.now-required", face, subject, `\`${subject}\` has to be sent now; it was optional.`, {
      verdict: verdicts.bothBreak,
      ...places,
      coordinates: [...places.coordinates, pair.subject],
    });
  } else
    context.report("ask.field.now-optional", face, subject, `\`${subject}\` may now be left out.`, {
      verdict: verdicts.harmless,
      ...places,
    });
}
