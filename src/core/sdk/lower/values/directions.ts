import type { Reference } from "../../../contract/model.js";
import { reachedTypes } from "../../../contract/reachedTypes.js";
import { receivedBy, repliedTo } from "../../planSent.js";
import type { ContractPlan, PlannedType } from "../../sdkPlan.js";

/** The directions in which the values of a type are sent. */
export interface Direction {
  /** Whether responses, failures or requests of the server contain it. */
  readonly isRead: boolean;
  /** Whether requests of the app contain it. */
  readonly isWritten: boolean;
}

/** Returns the directions of a plan's types, by id. Types without a direction are left out. */
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
