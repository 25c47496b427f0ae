import type { Level } from "../change/verdict.js";
import type { Paint } from "./paint.js";

/** The sign in front of what a level is of: "x", "!" or "o". */
export function levelMark(level: Level, paint: Paint): string {
  return level === "breaking" ? paint.bad("x") : level === "risky" ? paint.warn("!") : paint.good("o");
}
