import { problem } from "../../core/problem/problem.js";
import { exitCodes, Halt } from "../../workspace/project/halt.js";

/** Reads headers in the form "name: value". @throws Halt (usage) for a text that is not a header */
export function readHeaders(texts: readonly string[]): Record<string, string> {
  return Object.fromEntries(
    texts.map((text) => {
      const found = /^([A-Za-z0-9!#$%&'*+.^_|~-]+)\s*:\s*(.+)$/.exec(text);
      if (found) return [found[1]?.toLowerCase() ?? "", found[2] ?? ""];
      // The text is not shown: it may contain a secret.
      const hint = 'Use --header "authorization: Bearer ${NAME}". NAME comes from the environment.';
      throw new Halt(
        [problem("option.value", "--header must have a name, a colon and a value.", { hint })],
        exitCodes.usage,
      );
    }),
  );
}
