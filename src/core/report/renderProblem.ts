import { visible } from "../text/visible.js";
import { codeFrame } from "../problem/codeFrame.js";
import type { Place } from "../problem/place.js";
import type { ShownTexts } from "../problem/shownTexts.js";
import type { Problem } from "../problem/problem.js";
import { counted, wrap, type Paint } from "./paint.js";

const width = 80;
const framesShown = 2;

/**
 * Returns a problem for people: the place and the message, in lines of 60 columns as far as words allow, then the
 * source lines, then the reason and the fix.
 */
export function renderProblem(problem: Problem, texts: ShownTexts, paint: Paint): string[] {
  const mark =
    problem.level === "error"
      ? paint.bad("error")
      : problem.level === "warning"
        ? paint.warn("warning")
        : paint.accent("note");
  const [first, ...others] = problem.places;
  const rows = [`${mark} ${paint.quiet(problem.code)}${first ? `  ${paint.strong(placeText(first, texts))}` : ""}`];
  rows.push(...wrap(visible(problem.message), width - 2).map((line) => `  ${line}`));
  const shown = [first, ...others].filter((place): place is Place => place !== undefined).slice(0, framesShown);
  shown.forEach((place, at) => {
    const text = texts.find(place.document);
    if (!text || text.text === "") return;
    if (at > 0) rows.push(`  ${paint.quiet("and")} ${paint.strong(placeText(place, texts))}`);
    rows.push(...codeFrame(text, text.position(place)).map((line) => `    ${paint.quiet(line)}`));
  });
  const more = problem.places.length - shown.length;
  if (more > 0) rows.push(`  ${paint.quiet(`and ${counted(more, "more place")}`)}`);
  if (problem.why !== undefined) rows.push(...wrap(problem.why, width - 2).map((line) => `  ${line}`));
  if (problem.hint !== undefined)
    rows.push(...wrap(`-> ${visible(problem.hint)}`, width - 2, "   ").map((line) => `  ${paint.good(line)}`));
  return rows;
}

/** Returns "file:line:column", or the file alone if its text is not available. */
export function placeText(place: Place, texts: ShownTexts): string {
  const position = texts.position(place);
  if (!position) return place.document;
  return `${place.document}:${String(position.line)}:${String(position.column)}`;
}
