import { rule } from "../rule.js";
import { verdicts } from "../verdict.js";

/** As with a new member of a union; an interface says itself what all have in common. */
export const typeInterfaceGained = rule(
  "implementation",
  "type.interface.gained",
  {
    title: "Another type implements an interface",
    example: "`Hovercraft` is a `Vessel`",
    code: "risky: an exhaustive match; compatible for open unions",
    apps: "breaking; risky for open unions",
  },
  ({ type, before, after, isOpen }) =>
    after !== undefined && before === undefined
      ? {
          message: `\`${after}\` can now be \`${type}\`.`,
          verdict: isOpen ? verdicts.appsRisky : verdicts.codeRiskyAppsBreak,
        }
      : undefined,
);
