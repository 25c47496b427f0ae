import { changeMeanings, type ChangeCode } from "../change/changeCodes.js";
import { changeExamples } from "../change/examples.js";
import { comparedWhole } from "../change/judge/impact.js";
import type { Language } from "../languages/language.js";
import { problemMeanings } from "../problem/codes.js";
import { readContract } from "../readContract.js";

/** Returns the page of all problem codes, as Markdown. */
export function renderProblemReference(): string {
  const rows = Object.entries(problemMeanings).map(
    ([code, { title, why, fix }]) => `## \`${code}\`\n\n${title}.\n\n- Why it matters: ${why}\n- What to do: ${fix}\n`,
  );
  return `# Problem codes\n\nEvery problem that Rhema reports has one of these codes. \`npm run docs\` generates this page.\n\n${rows.join("\n")}`;
}

/**
 * Returns the page of all change codes with both verdicts, as Markdown.
 *
 * @param languages each has a column for its verdict on the example
 */
export function renderChangeReference(languages: readonly Language[]): string {
  const rows = Object.entries(changeMeanings).map(([code, { title, example, code: source, apps }]) => {
    const verdicts = languages.map((language) => exampleVerdict(code as ChangeCode, language));
    return `| \`${code}\` | ${[title, example, source, ...verdicts, apps].join(" | ")} |`;
  });
  const titles = languages.map(({ title }) => title);
  const judging = languages.flatMap(({ judging: how }) => (how === undefined ? [] : [` ${how}`])).join("");
  const heads = ["code", "change", "example", "your code", ...titles, "released apps"];
  return (
    "# Changes\n\n" +
    "Each change between two contracts has one of these codes, and two verdicts:\n\n" +
    "- **your code**: source that was written for the old SDK, compiled with the new one.\n" +
    "- **released apps**: apps with the old SDK, with the new server.\n\n" +
    "`ask` stands for requests and `answer` for responses, which are rated separately. A contract that means the same\n" +
    "in another way is not a change: another spelling of null, another OpenAPI version, a schema moved behind a\n" +
    "reference, another order.\n\n" +
    `The columns with the name of a language rate the example for source in it, with its default settings.${judging}\n\n` +
    "`npm run docs` generates this page.\n\n" +
    `| ${heads.join(" | ")} |\n|${"---|".repeat(heads.length)}\n` +
    `${rows.join("\n")}\n`
  );
}

/** The verdict on a code's example in a language. @throws Error if the example does not raise the code */
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
