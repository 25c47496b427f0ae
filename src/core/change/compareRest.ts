import {
  operationLabel,
  type Reference,
  type RestContract,
  type RestOperation,
  type Shape,
} from "../contract/model.js";
import { namedTypes } from "../contract/childReferences.js";
import { answeredShapes, askedShapes } from "../rest/readRestContract.js";
import { memberNameFrom } from "../sdk/nameScope.js";
import { preferredContent } from "../sdk/planContent.js";
import { verdicts, type Change } from "./change.js";
import { collectInto, type ChangeContext } from "./changeContext.js";
import { compareReferences } from "./compareReferences.js";
import { pairOperations } from "./pairOperations.js";
import { authChanged } from "./rules/authChanged.js";
import { bodyChanged } from "./rules/bodyChanged.js";
import { parametersChanged } from "./rules/parametersChanged.js";
import { responsesChanged } from "./rules/responsesChanged.js";

/** Every difference between two versions of a REST contract, each named type judged once for each direction. */
export function compareRest(before: RestContract, after: RestContract): Change[] {
  const changes: Change[] = [];
  const named = new Map<string, { before: string; after: string; face: "ask" | "answer" }>();
  const onNamed = (left: string, right: string, face: "ask" | "answer"): void => {
    named.set(`${face} ${left} ${right}`, { before: left, after: right, face });
  };
  const { pairs, gone, fresh } = pairOperations(before.operations, after.operations);
  for (const operation of gone)
    operationGone(
      operation,
      collectInto(changes, before, after, () => [operationLabel(operation)]),
    );
  for (const operation of fresh) operationNew(operation, collectInto(changes, before, after));
  for (const pair of pairs)
    compareOperations(
      pair.before,
      pair.after,
      collectInto(changes, before, after, () => [operationLabel(pair.before)]),
      onNamed,
    );
  const users = { ask: typeUsers(before, askedShapes), answer: typeUsers(before, answeredShapes) };
  // The map grows while it is walked: comparing one type finds the next.
  for (const { before: left, after: right, face } of named.values()) {
    const context = collectInto(changes, before, after, () => users[face](left));
    const subject = before.types.get(left)?.name ?? left;
    compareReferences(
      {
        before: inside(before, left),
        after: inside(after, right),
        face,
        subject,
        placeBefore: before.types.get(left)?.place,
        placeAfter: after.types.get(right)?.place,
        coordinates: [],
      },
      context,
      onNamed,
    );
  }
  return changes;
}

/** What a name stands for, one level deep; null belongs to the uses, which were compared already. */
function inside(contract: RestContract, key: string): Reference {
  return { shape: contract.types.get(key)?.shape ?? { kind: "any" }, nullable: false };
}

/** A function that gives the labels of the operations that reach a type in one direction, found against the use. */
function typeUsers(
  contract: RestContract,
  shapesOf: (operation: RestOperation) => readonly Shape[],
): (key: string) => string[] {
  const usedBy = new Map<string, string[]>();
  const add = (key: string, user: string): void => {
    const known = usedBy.get(key);
    if (known) known.push(user);
    else usedBy.set(key, [user]);
  };
  for (const { key, shape } of contract.types.values())
    for (const used of namedTypes([shape])) add(used, `type ${key}`);
  const order = new Map(contract.operations.map((operation, at) => [operationLabel(operation), at]));
  for (const operation of contract.operations) {
    for (const used of namedTypes(shapesOf(operation))) add(used, operationLabel(operation));
  }
  return (key) => {
    const found = new Set<string>();
    const open = [`type ${key}`];
    for (let user = open.pop(); user !== undefined; user = open.pop()) {
      if (found.has(user)) continue;
      found.add(user);
      if (user.startsWith("type ")) open.push(...(usedBy.get(user.slice("type ".length)) ?? []));
    }
    return [...found].filter((user) => order.has(user)).sort((a, b) => (order.get(a) ?? 0) - (order.get(b) ?? 0));
  };
}

function operationGone(operation: RestOperation, context: ChangeContext): void {
  const label = operationLabel(operation);
  context.report("operation.gone", "operation", label, `${label} is gone.`, {
    verdict: verdicts.bothBreak,
    before: operation.place,
  });
}

function operationNew(operation: RestOperation, context: ChangeContext): void {
  const label = operationLabel(operation);
  context.report("operation.new", "operation", label, `${label} was added.`, {
    verdict: verdicts.harmless,
    after: operation.place,
  });
}

function compareOperations(
  before: RestOperation,
  after: RestOperation,
  context: ChangeContext,
  onNamed: (left: string, right: string, face: "ask" | "answer") => void,
): void {
  const label = operationLabel(before);
  identityChanged(label, before, after, context);
  authChanged(label, before, after, context);
  for (const { before: left, after: right, subject } of parametersChanged(label, before, after, context)) {
    compareReferences(
      {
        before: left.type,
        after: right.type,
        face: "ask",
        subject,
        placeBefore: left.place,
        placeAfter: right.place,
        coordinates: [],
        word: memberNameFrom(left.name),
      },
      context,
      onNamed,
    );
  }
  const body = bodyChanged(label, before, after, context);
  if (body) {
    const places = { placeBefore: before.body?.place, placeAfter: after.body?.place };
    compareReferences(
      {
        before: body.before.type,
        after: body.after.type,
        face: "ask",
        subject: `${label} body`,
        ...places,
        coordinates: [],
      },
      context,
      onNamed,
    );
  }
  for (const pair of responsesChanged(label, before, after, context)) {
    const left = preferredContent(pair.before.contents);
    const right = preferredContent(pair.after.contents);
    if (!left || !right) continue;
    const subject = `${label} ${pair.before.status}`;
    compareReferences(
      {
        before: left.type,
        after: right.type,
        face: "answer",
        subject,
        placeBefore: pair.before.place,
        placeAfter: pair.after.place,
        coordinates: [],
      },
      context,
      onNamed,
    );
  }
}

function identityChanged(label: string, before: RestOperation, after: RestOperation, context: ChangeContext): void {
  const places = { before: before.place, after: after.place };
  const newLabel = operationLabel(after);
  if (label.replace(/\{[^{}]*\}/g, "{}") !== newLabel.replace(/\{[^{}]*\}/g, "{}")) {
    context.report("operation.moved", "operation", label, `${label} moved to ${newLabel}.`, {
      verdict: verdicts.appsBreak,
      ...places,
    });
  }
  if (before.operationId !== undefined && after.operationId !== undefined && before.operationId !== after.operationId) {
    const message = `${label} is now called \`${after.operationId}\`; it was \`${before.operationId}\`.`;
    context.report("operation.renamed", "operation", label, message, {
      verdict: verdicts.codeBreaks,
      ...places,
      hint: `Call \`${after.operationId}\` instead.`,
    });
  }
  if (before.deprecated === undefined && after.deprecated !== undefined) {
    context.report("operation.deprecated", "operation", label, `${label} is deprecated now.`, {
      verdict: verdicts.harmless,
      ...places,
    });
  }
}
