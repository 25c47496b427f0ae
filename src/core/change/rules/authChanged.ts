import type { RestContract, RestOperation } from "../../contract/model.js";
import { verdicts } from "../change.js";
import type { ChangeContext } from "../changeContext.js";

/**
 * Auth is required where none was, or every way that worked is gone.
 *
 * The law: one alternative that both contracts accept keeps every app in.
 */
export function authChanged(label: string, before: RestOperation, after: RestOperation, context: ChangeContext): void {
  if (context.before.protocol !== "rest" || context.after.protocol !== "rest") return;
  const left = alternatives(before, context.before);
  const right = alternatives(after, context.after);
  const open = right.length === 0 || right.includes("");
  if (open || left.some((each) => right.includes(each))) return;
  const wanted = after.auth.map((schemes) => schemes.join(" with ")).join(", or ");
  const message =
    left.length === 0 || left.includes("")
      ? `${label} now needs auth: ${wanted}.`
      : `${label} needs other auth than before: ${wanted}.`;
  context.report("auth.now-required", "operation", label, message, {
    verdict: verdicts.bothBreak,
    before: before.place,
    after: after.place,
    hint: "Supply the credential on the connection.",
  });
}

/** Each alternative as text that does not depend on what the contract calls its schemes. */
function alternatives(operation: RestOperation, contract: RestContract): string[] {
  return operation.auth.map((schemes) =>
    schemes
      .map((name) => {
        const scheme = contract.authSchemes.get(name);
        return scheme?.kind === "key" ? `key ${scheme.in} ${scheme.name}` : (scheme?.kind ?? name);
      })
      .sort()
      .join("+"),
  );
}
