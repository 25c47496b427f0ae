import type { AuthScheme, Server } from "../../contract/model.js";
import { sortedBy } from "../../text/sortedBy.js";
import { memberNameFrom } from "../nameScope.js";
import type { RestPlan, StandingParameter } from "../sdkPlan.js";
import { defaultUrl, serverUrl } from "./serverAddress.js";

/** A scheme for which the app supplies a credential. A client certificate belongs to the transport. */
export type Credential = Exclude<AuthScheme, { readonly kind: "certificate" }>;

/** The facts and options of a REST contract's connection. */
export interface ConnectionPlan {
  /** The server of the default address; absent if the contract has no complete one. */
  readonly server?: Server;
  /** The address of that server with its variables at their defaults. */
  readonly address?: string;
  /** The contract's first server as written, complete or not. */
  readonly written?: string;
  readonly others: readonly Server[];
  /** The addresses of servers for single calls. */
  readonly ownServers: readonly string[];
  readonly credentials: readonly { readonly name: string; readonly scheme: Credential }[];
  readonly standing: readonly StandingMember[];
}

/** A shared parameter, and its name in the connection. */
export interface StandingMember {
  readonly member: string;
  readonly parameter: StandingParameter;
}

/** Plans the connection to a REST contract. */
export function connectionPlan(plan: RestPlan): ConnectionPlan {
  const [first, ...others] = plan.servers;
  const address = defaultUrl(plan.servers);
  const ownServers = plan.calls.flatMap((call) => call.operation.servers.slice(0, 1).map(serverUrl));
  return {
    ...(first && address !== undefined ? { server: first, address } : {}),
    ...(first ? { written: first.url } : {}),
    others,
    ownServers: sortedBy(new Set(ownServers), (url) => url),
    credentials: sortedBy(plan.authSchemes, ([name]) => name).flatMap(([name, scheme]) =>
      scheme.kind === "certificate" ? [] : [{ name, scheme }],
    ),
    standing: plan.standing.map((parameter) => ({ member: memberNameFrom(parameter.name), parameter })),
  };
}
