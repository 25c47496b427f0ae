import { hideSecrets } from "../text/secrets.js";
import { visible } from "../text/visible.js";
import { worst } from "../change/verdict.js";
import { isHeld, type Gate } from "../change/gate.js";
import type { ContractImpact, Hit, JudgedChange } from "../change/judgedChange.js";
import { counted } from "./paint.js";
import { impactHeadline, type ImpactTexts } from "./renderImpact.js";
import { placeText } from "./renderProblem.js";

const hitsShown = 8;

/** The report of `impact` as Markdown, for a comment on a pull request: what the gate holds, then the rest, folded. */
export function impactMarkdown(impacts: readonly ContractImpact[], texts: ImpactTexts, gate: Gate): string {
  const parts = impacts.map((impact) => contractPart(impact, texts, gate));
  return `## ${escaped(impactHeadline(impacts))}\n\n${parts.join("\n")}`;
}

function contractPart(impact: ContractImpact, texts: ImpactTexts, gate: Gate): string {
  const held = impact.changes.filter((change) => isHeld(change, gate));
  const others = impact.changes.filter((change) => !held.includes(change));
  const title = `### ${escaped(impact.contract)}: ${escaped(impact.from)} to ${escaped(impact.to)}\n\n`;
  if (impact.changes.length === 0) return `${title}No change of meaning.\n`;
  const refused = impact.brokenQueries.map((problem) => {
    const [place] = problem.places;
    return `- ${escaped(problem.message)}${place ? ` (${code(placeText(place, texts.before))})` : ""}\n`;
  });
  return (
    title +
    held.map((change) => changeItem(change, texts)).join("") +
    (refused.length > 0 ? `\nQueries the new contract refuses:\n\n${refused.join("")}` : "") +
    (others.length === 0
      ? ""
      : `\n<details><summary>${counted(others.length, "other change")}</summary>\n\n${others.map((change) => changeItem(change, texts)).join("")}\n</details>\n`)
  );
}

function changeItem(change: JudgedChange, texts: ImpactTexts): string {
  const { verdict } = change;
  const mark = { breaking: "**breaking**", risky: "risky", compatible: "compatible" }[worst(verdict)];
  const hits = change.hits.slice(0, hitsShown).map((hit) => hitItem(hit, texts));
  const more = change.hits.length - hits.length;
  return (
    `- ${mark} ${escaped(change.message)} ${code(change.code)}, code ${verdict.code}, apps ${verdict.apps}${change.use === "used" ? "" : `, ${change.use}`}\n` +
    hits.join("") +
    (more > 0 ? `  - and ${counted(more, "more place")}\n` : "") +
    (change.hint === undefined || change.use === "not used" ? "" : `  - ${escaped(change.hint)}\n`)
  );
}

function hitItem(hit: Hit, texts: ImpactTexts): string {
  return `  - ${code(placeText(hit.place, texts.before))} ${hit.kind} ${hit.isInSource === true ? "" : "in "}${code(hit.owner)}\n`;
}

/** Contract text on a line: nothing in it can open HTML, a link or a mention. */
function escaped(text: string): string {
  // What is escaped is known no more as the address that it is.
  return visible(hideSecrets(text.replace(/\s+/g, " ")))
    .split(/(`[^`]*`)/)
    .map((part) => (/^`[^`]*`$/.test(part) ? code(part.slice(1, -1)) : part.replace(/[\\`*_[\]<>|#@]/g, "\\$&")))
    .join("");
}

function code(text: string): string {
  return `\`${visible(text.replace(/\s+/g, " ")).replaceAll("`", "'")}\``;
}
