import type { Server } from "../../../contract/model.js";
import { rule } from "../../rule.js";
import { addressOf, isElsewhere, type ServerAddress } from "../../compare/serverAddress.js";
import { verdicts } from "../../verdict.js";

/** Released apps still request the old address. */
export const serverMoved = rule("servers", "server.moved", {
  meaning: {
    title: "A base URL was removed",
    example: "`https://api.ostrel.example/v1` was removed",
    code: "compatible",
    apps: "breaking, unless the app sets the base URL",
  },
  find: ({ subject, before, after, isOwn }, { suppliesBaseUrl }) => {
    const [from, to] = [addressOf(before), addressOf(after)];
    // Another origin is another change.
    if (isElsewhere(from, to, isOwn)) return undefined;
    const message = (isOwn ? undefined : goneFrom(before, after)) ?? movedFrom(from, to, isOwn ? subject : undefined);
    return message === undefined
      ? undefined
      : { message, verdict: suppliesBaseUrl && !isOwn ? verdicts.harmless : verdicts.appsBreak };
  },
});

/** The servers that the contract no longer lists. */
function goneFrom(before: readonly Server[], after: readonly Server[]): string | undefined {
  if (after.length === 0) return undefined;
  const gone = before
    .filter((server) => {
      const { origin, path } = addressOf([server]);
      // For a relative address, the app supplies the origin, so only the path must stay.
      return !after
        .map((other) => addressOf([other]))
        .some((to) => to.path === path && (origin ?? to.origin) === to.origin);
    })
    .map(({ url }) => `\`${url}\``);
  return gone.length === 0 ? undefined : `servers no longer lists ${gone.join(" and ")}.`;
}

/** @param operation undefined for the whole contract */
function movedFrom(from: ServerAddress, to: ServerAddress, operation: string | undefined): string | undefined {
  if (from.path === to.path) return undefined;
  const [now, was] = [to, from].map(({ origin = "", path }) => `\`${origin}${path || "/"}\``);
  return operation === undefined
    ? `Every path now begins with ${now ?? ""} instead of ${was ?? ""}.`
    : `${operation} is now sent to ${now ?? ""} instead of ${was ?? ""}.`;
}
