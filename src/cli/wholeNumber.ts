import { problem } from "../core/problem/problem.js";
import { exitCodes, Halt } from "../workspace/project/halt.js";

/** Returns the number in an option's value. @throws Halt (usage) if it is not an integer, or too large */
export function wholeNumber(flag: string, text: string, most: number): number {
  const number = Number(text);
  if (/^\d+$/.test(text) && number <= most) return number;
  throw new Halt(
    [
      problem(
        flag === "--port" ? "play.port" : "option.value",
        `${flag} must be a whole number up to ${String(most)}, but is \`${text}\`.`,
      ),
    ],
    exitCodes.usage,
  );
}
