import { worst } from "../change/verdict.js";
import type { ContractImpact, JudgedChange } from "../change/judge/judgedChange.js";

/**
 * Returns the changes of contracts as a changelog in Markdown, for readers who may use any part of them. The two
 * directions of one change are one line.
 */
export function impactChangelog(impacts: readonly ContractImpact[]): string {
  return impacts.map(contractLog).join("\n");
}

const groups: readonly [string, (change: JudgedChange) => boolean][] = [
  ["Breaking", ({ verdict }) => worst(verdict) === "breaking"],
  ["Risky", ({ verdict }) => worst(verdict) === "risky"],
  ["Deprecated", (change) => worst(change.verdict) === "compatible" && change.isDeprecation === true],
  ["Compatible", (change) => worst(change.verdict) === "compatible" && change.isDeprecation !== true],
];

function contractLog({ contract, from, to, changes }: ContractImpact): string {
  const title = `## ${contract}: ${from} to ${to}\n`;
  if (changes.length === 0) return `${title}\nNo change of meaning.\n`;
  const parts = groups.flatMap(([heading, belongs]) => {
    const lines = new Set(changes.filter(belongs).map(line));
    return lines.size === 0 ? [] : [`\n### ${heading}\n\n${[...lines].sort().join("\n")}\n`];
  });
  return title + parts.join("");
}

function line({ message, hint }: JudgedChange): string {
  const text = `${message}${hint === undefined ? "" : ` ${hint}`}`;
  return `- ${text.replace(/[\r\n]+/g, " ").replace(/<(?=[a-z!/])/gi, "&lt;")}`;
}
