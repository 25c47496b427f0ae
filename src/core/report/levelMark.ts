import type { Level } from "../change/verdict.js";
import type { Paint } from "./paint.js";

/** Returns the mark of a level: "x", "!" or "o". */
export function levelMark(level: Level, paint: Paint): string {
  return level === "breaking" ? paint.bad("x") : level === "risky" ? paint.warn("!") : paint.good("o");
}
