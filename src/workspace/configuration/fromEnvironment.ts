import { problem } from "../../core/problem/problem.js";
import { exitCodes, Halt } from "../project/halt.js";
import type { Environment } from "../project/trace.js";

/**
 * Replaces every `${NAME}` in a text with the environment variable of that name.
 *
 * @param who the part that needs it, as the beginning of a sentence: "The contract `berths`"
 * @throws Halt (usage) if a variable is not set
 */
export function fromEnvironment(text: string, environment: Environment, who: string): string {
  return text.replace(/\$\{(\w+)\}/g, (whole, name: string) => {
    const value = environment[name];
    if (value !== undefined && value !== "") return value;
    const message = `${who} uses the environment variable \`${name}\`, which is not set.`;
    throw new Halt(
      [problem("config.variable", message, { hint: `Set ${name}, or remove ${whole}.` })],
      exitCodes.usage,
    );
  });
}
