import { asSelected } from "../../compare/asSelected.js";
import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** The same as for a new member of a union. An interface declares the common fields itself. */
export const typeInterfaceGained = rule("implementation", "type.interface.gained", {
  meaning: {
    title: "Another type implements an interface",
    example: "`Hovercraft` is a `Vessel`",
    code: "risky if a match is exhaustive; compatible for open unions, unless a match must name all members",
    apps: "breaking; risky for open unions",
  },
  find: ({ type, before, after, isOpen, joins }, { matchesAllMembers }) =>
    after !== undefined && before === undefined
      ? {
          message: `\`${after}\` can now be \`${type}\`.`,
          verdict: !isOpen ? verdicts.codeRiskyAppsBreak : matchesAllMembers ? verdicts.bothRisky : verdicts.appsRisky,
          joins,
          ...asSelected([after], isOpen),
        }
      : undefined,
});
