import { changeMeanings, type ChangeCode } from "../change/changeCodes.js";
import { changeExamples } from "../change/examples.js";
import { comparedWhole } from "../change/judge/impact.js";
import type { Language } from "../languages/language.js";
import { problemMeanings } from "../problem/codes.js";
import { readContract } from "../readContract.js";

/** The page of all problem codes, as Markdown. */
export function renderProblemReference(): string {
  const rows = Object.entries(problemMeanings).map(
    ([code, { title, why, fix }]) => `## \`${code}\`\n\n${title}.\n\n- Why it matters: ${why}\n- What to do: ${fix}\n`,
  );
  return `# Problem codes\n\nEvery problem Rhema reports carries one of these codes. This page is printed from the program (\`npm run docs\`).\n\n${rows.join("\n")}`;
}

/**
 * The page of all change codes with both verdicts, as Markdown.
 *
 * @param languages each has a column: what it makes of the example on source
 */
export function renderChangeReference(languages: readonly Language[]): string {
  const rows = Object.entries(changeMeanings).map(([code, { title, example, code: source, apps }]) => {
    const verdicts = languages.map((language) => exampleVerdict(code as ChangeCode, language));
    return `| \`${code}\` | ${[title, example, source, ...verdicts, apps].join(" | ")} |`;
  });
  const titles = languages.map(({ title }) => title);
  const judging = languages.flatMap(({ judging: how }) => (how === undefined ? [] : [` ${how}`])).join("");
  const heads = ["code", "what happened", "example", "your code", ...titles, "released apps"];
  return (
    "# Changes and their verdicts\n\n" +
    "Each change between two contracts has one of these codes and a verdict on each of two clocks. **code**: your source, written against the old SDK\n" +
    "and compiled against the new one. **apps**: an app that was released with the old SDK and talks to the new server.\n" +
    "`ask` is what is sent, `answer` what comes back; the two directions are judged separately. Two spellings of one meaning (null in another\n" +
    "dress, another OpenAPI version, a shape moved behind a reference, another order) are no change at all.\n" +
    `The columns that have the name of a language say what the example is to source in it, with its default settings.${judging}\n` +
    "This page is printed from the program (`npm run docs`).\n\n" +
    `| ${heads.join(" | ")} |\n|${"---|".repeat(heads.length)}\n` +
    `${rows.join("\n")}\n`
  );
}

/** What the example of a code is to source in a language. @throws Error when it is not what the example raises */
function exampleVerdict(code: ChangeCode, language: Language): string {
  const { protocol, before, after, standing, isOfNames = false, isOfPlaces = false } = changeExamples[code];
  const document = protocol === "rest" ? "berths.yaml" : "passages.graphql";
  const [old, now] = [before, after].map((text) => readContract("berths", [{ document, text }]).contract);
  const facts = language.facts({ settings: {}, rest: standing ? { standing } : {}, scalars: new Map() });
  if ((isOfNames && !facts.knowsTypesByName) || (isOfPlaces && !facts.takesRecordsApart)) return "compatible";
  const change = old && now && comparedWhole(old, now, facts).find((each) => each.code === code);
  if (!change) throw new Error(`The example of ${code} does not raise it.`);
  return change.verdict.code;
}
