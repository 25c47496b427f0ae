import type { HandWritten } from "../outline/handWritten.js";
import type { ShownTexts } from "../problem/shownTexts.js";
import { groupedBy } from "../text/groupedBy.js";
import { visible } from "../text/visible.js";
import { counted, type Paint } from "./paint.js";
import { placeText } from "./renderProblem.js";

/** How a reader sees it. */
export interface ReplaceableView {
  readonly texts: ShownTexts;
  readonly paint: Paint;
}

/** Returns the parts of an app's own code that an SDK has too, file by file, with their replacements. */
export function renderReplaceable(found: readonly HandWritten[], { texts, paint }: ReplaceableView): string[] {
  if (found.length === 0) return [paint.good("replaceable: there is nothing that an SDK of this project can replace")];
  const head = `replaceable: ${counted(found.length, "place")} that an SDK of this project can replace`;
  const lines = [...groupedBy(found, ({ place }) => place.document)].flatMap(([document, here]) => [
    "",
    `  ${paint.accent(visible(document))}`,
    ...here.flatMap((each) => [
      `    ${paint.quiet(lineOf(placeText(each.place, texts)))}  ${visible(each.what)}`,
      `      ${paint.quiet("->")} ${insteadText(each)}`,
    ]),
  ]);
  return [paint.strong(head), ...lines];
}

function lineOf(place: string): string {
  return /:(\d+:\d+)$/.exec(place)?.[1] ?? place;
}

function insteadText({ kind, contract, instead, from }: HandWritten): string {
  const where = from === undefined ? "" : ` of ${visible(from)}`;
  if (kind === "type") return `the type \`${visible(instead)}\`${where}`;
  if (instead !== "") return `call \`${visible(instead)}\`${where}`;
  return `move it to a file of \`queries\` of ${contract}, so that the SDK has a call for it`;
}
