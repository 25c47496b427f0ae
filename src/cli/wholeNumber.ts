import { problem } from "../core/problem/problem.js";
import { exitCodes, Halt } from "../workspace/project/halt.js";

/** The number that an option was given. @throws Halt (usage) where it is no whole number, or too large */
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
