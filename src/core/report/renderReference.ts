import { changeMeanings } from "../change/changeCodes.js";
import { problemMeanings } from "../problem/codes.js";

/** The page of all problem codes, as Markdown. */
export function renderProblemReference(): string {
  const rows = Object.entries(problemMeanings).map(
    ([code, { title, why, fix }]) => `## \`${code}\`\n\n${title}.\n\n- Why it matters: ${why}\n- What to do: ${fix}\n`,
  );
  return `# Problem codes\n\nEvery problem Rhema reports carries one of these codes. This page is printed from the program (\`npm run docs\`).\n\n${rows.join("\n")}`;
}

/** The page of all change codes with both verdicts, as Markdown. */
export function renderChangeReference(): string {
  const rows = Object.entries(changeMeanings).map(
    ([code, { title, example, code: source, apps }]) => `| \`${code}\` | ${title} | ${example} | ${source} | ${apps} |`,
  );
  return (
    "# Changes and their verdicts\n\n" +
    "Each change between two contracts has one of these codes and a verdict on each of two clocks. **code**: your source, written against the old SDK\n" +
    "and compiled against the new one. **apps**: an app that was released with the old SDK and talks to the new server.\n" +
    "`ask` is what is sent, `answer` what comes back; the two directions are judged separately. Two spellings of one meaning (null in another\n" +
    "dress, another OpenAPI version, a shape moved behind a reference, another order) are no change at all.\n" +
    "This page is printed from the program (`npm run docs`).\n\n" +
    "| code | what happened | example | your code | released apps |\n|---|---|---|---|---|\n" +
    `${rows.join("\n")}\n`
  );
}
