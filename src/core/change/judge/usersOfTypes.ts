import { operationLabel, type Reference, type Shape } from "../../contract/model.js";
import { namedTypes } from "../../contract/reachedTypes.js";
import { receivedBy, repliedTo } from "../../sdk/planSent.js";
import type { PlannedSent, RestCall, RestPlan } from "../../sdk/sdkPlan.js";
import { bodyWays } from "../compare/bodyWays.js";
import { Reachability } from "./reachability.js";

/** The values of one direction in operations and webhooks. */
interface Values {
  readonly ofCall: (call: RestCall) => readonly Reference[];
  readonly ofSent: (sent: PlannedSent) => readonly Reference[];
}

const values: Readonly<Record<"ask" | "answer", Values>> = {
  ask: { ofCall: askedBy, ofSent: repliedTo },
  answer: { ofCall: answeredBy, ofSent: receivedBy },
};

/**
 * Finds the operations that contain a type in one direction, at any depth.
 *
 * @param face "ask" for requests, "answer" for responses
 * @returns a function: the labels of operations in the contract's order, by the key of a planned type
 */
export function usersOfTypes(plan: RestPlan, face: "ask" | "answer"): (key: string) => readonly string[] {
  const { ofCall, ofSent } = values[face];
  const graph = new Reachability();
  const typeNode = (key: string): string => `type ${key}`;
  const add = (user: string, shapes: readonly Shape[]): void => {
    for (const used of namedTypes(shapes)) graph.add(typeNode(used), user);
  };
  const shapesOf = (references: readonly Reference[]): Shape[] => references.map(({ shape }) => shape);
  const labels = [...new Set(plan.calls.map((call) => operationLabel(call.operation)))];
  for (const call of plan.calls) add(operationLabel(call.operation), shapesOf(ofCall(call)));
  for (const { id, shape } of plan.types.values()) add(typeNode(id), [shape]);
  for (const sent of plan.sent) add(`sent ${sent.name}`, shapesOf(ofSent(sent)));
  const reached = graph.reaching(labels);
  return (key) => reached(typeNode(key));
}

function askedBy(call: RestCall): Reference[] {
  return call.arguments.flatMap((argument) =>
    argument.source.kind === "body" ? bodyWays(argument).map(({ type }) => type) : [argument.type],
  );
}

function answeredBy(call: RestCall): Reference[] {
  const responses = [...call.answers, ...call.answerChoices.flatMap(({ answers }) => answers), ...call.failures];
  return responses.flatMap(({ type }) => type ?? []);
}
