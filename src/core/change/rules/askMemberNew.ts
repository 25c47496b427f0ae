import { rule } from "../rule.js";
import { verdicts } from "../verdict.js";

/** As with the values of a choice. */
export const askMemberNew = rule(
  "member",
  "ask.member.new",
  {
    title: "Another kind of value can be sent",
    example: "hovercraft",
    code: "compatible",
    apps: "compatible",
  },
  ({ face, subject, before, after }) =>
    face === "ask" && after !== undefined && before === undefined
      ? { message: `\`${subject}\` can now be sent as ${after}.`, verdict: verdicts.harmless }
      : undefined,
);
