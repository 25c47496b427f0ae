import type { Reference } from "../../../contract/model.js";
import { TypeGraph } from "../../../contract/reachedTypes.js";
import { receivedBy, repliedTo } from "../../planSent.js";
import type { ContractPlan } from "../../sdkPlan.js";

/** The directions in which the values of a type are sent. */
export interface Direction {
  /** Whether responses, failures or requests of the server contain it. */
  readonly isRead: boolean;
  /** Whether requests of the app contain it. */
  readonly isWritten: boolean;
}

/** Returns the directions of a plan's types, by id. Types without a direction are left out. */
export function directions(plan: ContractPlan): Map<string, Direction> {
  const graph = new TypeGraph((id) => plan.types.get(id)?.shape);
  const reached = (references: readonly Reference[]): Set<string> =>
    graph.reached(references.map(({ shape }) => shape));
  const read = reached(readReferences(plan));
  const written = reached(writtenReferences(plan));
  const found = new Map<string, Direction>();
  for (const id of read) found.set(id, written.has(id) ? bothWays : onlyRead);
  for (const id of written) if (!read.has(id)) found.set(id, onlyWritten);
  return found;
}

const bothWays: Direction = { isRead: true, isWritten: true };
const onlyRead: Direction = { isRead: true, isWritten: false };
const onlyWritten: Direction = { isRead: false, isWritten: true };

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
