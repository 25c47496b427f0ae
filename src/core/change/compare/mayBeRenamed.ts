import type { Reference, Shape } from "../../contract/model.js";
import { sameReference } from "../../contract/sameShape.js";
import { words } from "../../text/words.js";

/** A name with its documentation. */
export interface Described {
  readonly name: string;
  readonly description?: string | undefined;
  readonly default?: unknown;
  readonly type?: Reference;
}

/**
 * Returns whether two names probably mean the same thing. One adds words to the other or corrects it, or both have the
 * same documentation that hardly anything else has. Words in all kinds of names ("id", "name", "at") are no evidence.
 *
 * @param owner the name of the owner of both; its words are no evidence
 */
export function mayBeRenamed(a: Described, b: Described, owner = ""): boolean {
  return saysTheSame(a, b) || namesAlike(a.name, b.name, owner);
}

/**
 * Returns whether one name adds words to the other, or corrects it.
 *
 * @param owner the name of the owner of both; its words do not count
 */
export function namesAlike(a: string, b: string, owner = ""): boolean {
  const known = new Set(stems(owner));
  const left = told(stems(a), known);
  const right = told(stems(b), known);
  const [short, long] = left.length <= right.length ? [left, right] : [right, left];
  const rest = [...long];
  const shared = short.filter((word) => {
    const at = rest.findIndex((other) => isSameWord(word, other));
    if (at >= 0) rest.splice(at, 1);
    return at >= 0;
  });
  if (shared.length < short.length || shared.length === 0) return false;
  return rest.length === 0 || shared.some((word) => !commonWords.has(word));
}

/** The same sentence, the same unusual default, or the same values or limits. */
function saysTheSame(a: Described, b: Described): boolean {
  const [left, right] = [a, b].map(({ description = "" }) => stems(description).join(" "));
  if (left !== undefined && left === right && left.split(" ").length >= fewestWords) return true;
  if (typeof a.default === "number" && a.default > 1 && a.default === b.default) return true;
  return a.type !== undefined && b.type !== undefined && isTelling(a.type.shape) && sameReference(a.type, b.type);
}

/** Whether the shape is rare: with values of its own, or a number with a limit on both sides. */
function isTelling(shape: Shape): boolean {
  if (shape.kind === "choice") return shape.values.length > 1;
  if (shape.kind !== "integer" && shape.kind !== "number") return false;
  return shape.constraints?.minimum !== undefined && shape.constraints.maximum !== undefined;
}

/** A sentence with fewer words could describe anything. */
const fewestWords = 3;

function stems(text: string): string[] {
  return words(text).map((word) =>
    word
      .toLowerCase()
      .replace(/ies$/, "y")
      .replace(/(?<=[^s])s$/, ""),
  );
}

/** The words of a name without those of its owner and without conjunctions, unless none are left. */
function told(all: readonly string[], owner: ReadonlySet<string>): readonly string[] {
  const [left] = [
    all.filter((word) => !owner.has(word) && !particles.has(word)),
    all.filter((word) => !particles.has(word)),
  ].filter((some) => some.length > 0);
  return left ?? all;
}

/** Whether two words are the same, cut short or with one letter that is wrong, missing, extra or swapped. */
function isSameWord(a: string, b: string): boolean {
  if (a === b) return true;
  const [short, long] = a.length <= b.length ? [a, b] : [b, a];
  if (short.length >= shortestCut && long.startsWith(short) && !commonWords.has(short)) return true;
  if (short.length < shortestTypo || long.length - short.length > 1) return false;
  let at = 0;
  while (at < short.length && short[at] === long[at]) at += 1;
  if (at === 0) return false;
  const swapped = `${long.charAt(at + 1)}${long.charAt(at)}${long.slice(at + 2)}`;
  const corrected = short.length === long.length ? [short.slice(at + 1), swapped] : [short.slice(at)];
  return short.slice(at) === swapped || corrected.includes(long.slice(at + 1));
}

const shortestCut = 3;
const shortestTypo = 5;

const particles = new Set("at on of by is has to in for with and or the a an".split(" "));

/** Words that do not identify what a name is about. */
const commonWords = new Set(
  "id ids uid uuid ref no num number count total size name title label type kind key code date day time value data info detail url uri link list item page new old first last next previous start end from min max get set create update delete add remove v1 v2 v3 v4 api".split(
    " ",
  ),
);
