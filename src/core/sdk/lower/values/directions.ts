import type { Reference } from "../../../contract/model.js";
import { reachedTypes } from "../../../contract/reachedTypes.js";
import { receivedBy, repliedTo } from "../../planSent.js";
import type { ContractPlan, PlannedType } from "../../sdkPlan.js";

/** Which ways the values of a type go. */
export interface Direction {
  /** Answers, failures or requests of the server hold it. */
  readonly isRead: boolean;
  /** Requests of the app hold it. */
  readonly isWritten: boolean;
}

/** What goes which way of a plan's types, by id; what goes neither way is not listed. */
export function directions(plan: ContractPlan): Map<string, Direction> {
  const read = reached(readReferences(plan), plan.types);
  const written = reached(writtenReferences(plan), plan.types);
  return new Map([...read, ...written].map((id) => [id, { isRead: read.has(id), isWritten: written.has(id) }]));
}

function readReferences(plan: ContractPlan): Reference[] {
  if (plan.protocol === "graphql")
    return plan.calls.flatMap(({ answer, whole }) => (whole ? [answer, whole] : [answer]));
  const answered = plan.calls.flatMap(({ answers, failures, answerChoices }) =>
    [...answers, ...failures, ...answerChoices.flatMap((choice) => choice.answers)].flatMap(({ type }) => type ?? []),
  );
  return [...answered, ...plan.sent.flatMap(receivedBy)];
}

function writtenReferences(plan: ContractPlan): Reference[] {
  if (plan.protocol === "graphql") return plan.calls.flatMap(({ variables }) => variables.map(({ type }) => type));
  const given = plan.calls.flatMap((call) =>
    call.arguments.flatMap(({ type, source }) => [
      type,
      ...(source.kind === "body" ? source.others.map((other) => other.type) : []),
    ]),
  );
  return [...given, ...plan.standing.map(({ type }) => type), ...plan.sent.flatMap(repliedTo)];
}

function reached(references: readonly Reference[], types: ReadonlyMap<string, PlannedType>): Set<string> {
  return reachedTypes(
    references.map(({ shape }) => shape),
    (id) => types.get(id)?.shape,
  );
}
