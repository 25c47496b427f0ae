import { rule } from "../rule.js";
import { verdicts } from "../verdict.js";

/** Released apps go on asking the old address. */
export const serverMoved = rule(
  "servers",
  "server.moved",
  {
    title: "A base URL is no longer listed",
    example: "`https://api.ostrel.example/v1` is gone",
    code: "compatible",
    apps: "breaking, unless the app supplies the base URL",
  },
  ({ subject, before, after }, { suppliesBaseUrl }) => {
    const gone = before.filter((server) => !after.some(({ url }) => url === server.url)).map(({ url }) => `\`${url}\``);
    if (gone.length === 0 || after.length === 0) return undefined;
    return {
      message: `${subject} no longer lists ${gone.join(" and ")}.`,
      verdict: suppliesBaseUrl ? verdicts.harmless : verdicts.appsBreak,
    };
  },
);
