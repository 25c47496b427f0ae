import { changeMeanings, type ChangeCode } from "../change/changeCodes.js";
import { changeExamples } from "../change/examples.js";
import { problemMeanings, type ProblemCode } from "../problem/codes.js";
import { problemExamples } from "./problemExamples.js";
import { lineDiff } from "../text/lineDiff.js";
import { wrap, type Paint } from "./paint.js";

const width = 80;

/** Returns the meaning of a problem code, why it matters, what to do, and a project that raises it. */
export function explainProblem(code: ProblemCode, paint: Paint): string[] {
  const { title, why, fix } = problemMeanings[code];
  const { files, steps, keys } = problemExamples[code];
  const example = [...Object.entries(files).flatMap(([path, text]) => fileLines(path, text, { paint }))];
  for (const step of steps) {
    if (typeof step === "string") example.push(`    ${paint.strong(`$ ${step}`)}`);
    else
      example.push(
        ...Object.entries(step).flatMap(([path, text]) => fileLines(path, text, { paint, before: "then " })),
      );
  }
  return [
    ...wrap(`explain: ${title}`, width).map(paint.strong),
    ...paragraph("Why it matters", why, paint),
    ...paragraph("What to do", fix, paint),
    "",
    paint.accent("  Example"),
    ...example,
    ...(keys === undefined ? [] : [`    ${paint.strong(keys)}`]),
  ];
}

/** Returns the meaning of a change code for code and apps, and two contracts with that change. */
export function explainChange(code: ChangeCode, paint: Paint): string[] {
  const { title, example, code: onCode, apps } = changeMeanings[code];
  const { before, after, along = [], standing = [] } = changeExamples[code];
  const marked = {
    same: (text: string) => `      ${text}`,
    gone: (text: string) => paint.bad(`    - ${text}`),
    new: (text: string) => paint.good(`    + ${text}`),
  };
  return [
    ...wrap(`explain: ${title}`, width).map(paint.strong),
    ...paragraph("For example", plain(example), paint),
    ...paragraph("Your code, with the new SDK", onCode, paint),
    ...paragraph("Released apps, with the new server", apps, paint),
    "",
    paint.accent("  Between two contracts"),
    ...(standing.length === 0 ? [] : [paint.quiet(`    with \`standing: [${standing.join(", ")}]\` in rhema.yaml`)]),
    ...lineDiff(before, after).map(({ kind, text }) => marked[kind](text)),
    ...(along.length === 0 ? [] : paragraph("Always comes with", along.join(", "), paint)),
    "",
    ...wrap(
      `A team can rate it differently, or accept it until a date. Use \`guard\` in rhema.yaml with the code \`${code}\`.`,
      width - 2,
    ).map((line) => paint.quiet(`  ${line}`)),
  ];
}

/** Returns every code with its title. */
export function listCodes(paint: Paint): string[] {
  const rows = (meanings: Readonly<Record<string, { readonly title: string }>>): string[] =>
    Object.entries(meanings).map(([code, { title }]) => `  ${paint.accent(code.padEnd(30))} ${title}`);
  return [
    paint.strong("explain: all codes; `rhema explain CODE` explains one"),
    "",
    paint.strong("problems"),
    ...rows(problemMeanings),
    "",
    paint.strong("changes"),
    ...rows(changeMeanings),
  ];
}

function paragraph(title: string, text: string, paint: Paint): string[] {
  return ["", paint.accent(`  ${title}`), ...wrap(text, width - 4).map((line) => `    ${line}`)];
}

/** Contract text in a table has its marks doubled. */
function plain(text: string): string {
  return text.replaceAll("\\|", "|");
}

function fileLines(
  path: string,
  text: string,
  { paint, before = "" }: { readonly paint: Paint; readonly before?: string | undefined },
): string[] {
  const lines = text === "" ? ["(empty)"] : text.replace(/\n$/, "").split("\n");
  return [`    ${paint.quiet(`${before}${path}`)}`, ...lines.map((line) => `      ${line}`), ""];
}
