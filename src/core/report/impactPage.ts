import { capital } from "../text/capital.js";
import { visibleLines } from "../text/visible.js";
import type { ContractImpact, JudgedChange } from "../change/judge/judgedChange.js";
import type { Gate } from "../change/judge/gate.js";
import { isHeld } from "../change/judge/gate.js";
import type { Place } from "../problem/place.js";
import { levels, worst } from "../change/verdict.js";
import type { CompileError } from "../use/compileError.js";
import { groupedBy } from "../text/groupedBy.js";
import { headingIn } from "./changeHeading.js";
import { impactSummary, needsSummary } from "./impactSummary.js";
import { joinedChanges, type JoinedChange } from "./joinedChanges.js";
import { counted } from "./paint.js";
import { impactHeadline, type ImpactTexts } from "./renderImpact.js";
import type { Reporting } from "./impactMarkdown.js";
import { servedText, usersText } from "./usersText.js";
import { placeText } from "./renderProblem.js";
import type { ShownTexts } from "../problem/shownTexts.js";
import { pageScript, pageStyle } from "./impactPageParts.js";
import { shapeSides } from "./shapeText.js";

/** Returns an impact as one page that needs no network and no other file. */
export function impactPage(
  impacts: readonly ContractImpact[],
  texts: ImpactTexts,
  { gate, served }: Reporting,
): string {
  const headline = impactHeadline(impacts).replace(/^impact: /, "");
  return `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<meta http-equiv="Content-Security-Policy" content="default-src 'none'; style-src 'unsafe-inline'; script-src 'unsafe-inline'">
<title>${html(headline)}</title>
<style>${pageStyle}</style>
</head>
<body>
<header>
<h1>${html(capital(headline))}</h1>
${
  served
    ? `<p>${servedText(served)
        .map((line) => `${html(capital(line))}.`)
        .join(" ")}</p>`
    : ""
}
${filters()}
<p id="count" role="status"></p>
</header>
<main>
${needsSummary(impacts) ? summary(impacts) : ""}
${impacts.map((impact) => section(impact, texts, gate)).join("\n")}
</main>
<script>${pageScript}</script>
</body>
</html>
`;
}

function filters(): string {
  const radio = (
    name: string,
    value: string,
    { label, checked = false }: { readonly label: string; readonly checked?: boolean | undefined },
  ): string =>
    `<label><input type="radio" name="${name}" value="${value}"${checked ? " checked" : ""}> ${label}</label>`;
  const box = (value: string): string =>
    `<label><input type="checkbox" name="level" value="${value}" checked> <span class="level ${value}">${value}</span></label>`;
  return `<form id="filters" aria-label="Which changes are shown">
<fieldset><legend>Verdict for</legend>${radio("clock", "both", { label: "either", checked: true })}${radio("clock", "code", { label: "your code" })}${radio("clock", "apps", { label: "released apps" })}</fieldset>
<fieldset><legend>Level</legend>${["breaking", "risky", "compatible"].map(box).join("")}</fieldset>
<fieldset><legend>Use</legend>${radio("use", "all", { label: "all" })}${radio("use", "used", { label: "what you use", checked: true })}</fieldset>
<fieldset><legend>Words</legend><input type="search" name="words" aria-label="Words in a change" placeholder="Berth.note"></fieldset>
</form>`;
}

function summary(impacts: readonly ContractImpact[]): string {
  const { clocks, kinds, knowsUse } = impactSummary(impacts);
  const cells = (clock: "code" | "apps"): string =>
    levels
      .map(
        (level) =>
          `<td>${knowsUse ? `${String(clocks[clock].used[level])} of ` : ""}${String(clocks[clock].all[level])}</td>`,
      )
      .join("");
  const rows = kinds.map(
    ({ code, title, verdict, count, used }) =>
      `<tr><td>${knowsUse ? `${String(used)} of ` : ""}${String(count)}</td><td><span class="level ${worst(verdict)}">${worst(verdict)}</span></td><td>${words(title)}</td><td><code>${html(code)}</code></td></tr>`,
  );
  return `<section class="summary"><table><thead><tr><th>${knowsUse ? "in use, of all" : ""}</th>${levels.map((level) => `<th class="level ${level}">${level}</th>`).join("")}</tr></thead><tbody><tr><th>your code</th>${cells("code")}</tr><tr><th>released apps</th>${cells("apps")}</tr></tbody></table>
<h3>Kinds of change</h3><table><tbody>${rows.slice(0, kindsShown).join("")}</tbody></table>
${rows.length > kindsShown ? `<details class="group"><summary>${counted(rows.length - kindsShown, "more kind")}</summary><table><tbody>${rows.slice(kindsShown).join("")}</tbody></table></details>` : ""}</section>`;
}

const kindsShown = 5;

function section(impact: ContractImpact, texts: ImpactTexts, gate: Gate): string {
  const refused = impact.brokenQueries.map(
    ({ message, places }) =>
      `<li>${places.map((place) => `<code>${html(placeText(place, texts.before))}</code>`).join(" ")} ${words(message)}</li>`,
  );
  return `<section>
<h2>${html(impact.contract)} <small>${html(impact.from)} → ${html(impact.to)}</small></h2>
${impact.changes.length === 0 ? "<p>No change of meaning.</p>" : ""}
${[...groupedBy(joinedChanges(impact.changes), headingIn(impact))].map(([heading, changes]) => group(heading, changes, { impact, texts, gate })).join("\n")}
${refused.length > 0 ? `<h3>Query documents that the new contract refuses</h3><ul class="refused">${refused.join("")}</ul>` : ""}
</section>`;
}

interface Shown {
  readonly impact: ContractImpact;
  readonly texts: ImpactTexts;
  readonly gate: Gate;
  /** The titles of shapes that are not shown again. */
  readonly told?: Set<string> | undefined;
}

/** The entries below one heading, closed unless one of them fails the gate and the report is short. */
function group(heading: string, changes: readonly JoinedChange[], shown: Shown): string {
  const held = changes.filter((change) => change.use !== "not used" && isHeld(change, shown.gate));
  const isOpen = held.length > 0 && shown.impact.changes.length <= shortReport;
  const breaking = changes.filter(({ verdict }) => worst(verdict) === "breaking").length;
  const broken = breaking > 0 ? `, <span class="level breaking">${String(breaking)} breaking</span>` : "";
  // In a long report, the old and new type are shown once below their heading.
  const told = shown.impact.changes.length > shortReport ? new Set<string>() : undefined;
  return `<details class="group"${isOpen ? " open" : ""}>
<summary><h3>${html(heading)}</h3> <small>${counted(changes.length, "entry", "entries")}${broken}</small></summary>
${changes.map((change) => card(change, { ...shown, told })).join("\n")}
</details>`;
}

const shortReport = 100;

function card(change: JoinedChange, { impact, texts, gate, told }: Shown): string {
  const { verdict } = change;
  const clock = (name: string, level: string): string =>
    `<span class="clock">${name} <b class="level ${level}">${level}</b></span>`;
  const isOpen = change.use !== "not used" && isHeld(change, gate) && impact.changes.length <= shortReport;
  const places = placeItems(change, texts);
  return `<details class="change" data-code="${verdict.code}" data-apps="${verdict.apps}" data-use="${change.use}"${isOpen ? " open" : ""}>
<summary><span class="message">${words(change.message)}</span><span class="facts">${clock("code", verdict.code)}${clock("apps", verdict.apps)}<span class="use">${change.use}</span><code>${html(change.code)}</code></span></summary>
${sides(change, impact, told)}
${list("Where", hitItems(change, texts.before))}
${list("Does not compile", errorItems(change.errors ?? [], texts.before))}
${list("In the contract", places)}
${line(capital(change.differ ?? ""), change.differ === "operations" ? [] : change.items)}
${line("Operations", change.operations)}
${[
  change.users ? capital(`${usersText(change.users)}.`) : "",
  change.hint === undefined ? "" : `→ ${change.hint}`,
  change.leveled === undefined ? "" : `Level set in the configuration: ${change.leveled}`,
  change.accepted ? `Accepted until ${change.accepted.until}: ${change.accepted.reason}` : "",
]
  .filter((text) => text !== "")
  .map((text) => `<p class="hint">${words(text)}</p>`)
  .join("")}
</details>`;
}

function list(title: string, items: readonly string[]): string {
  const all = items.filter((item) => item !== "");
  return all.length === 0 ? "" : `<h4>${title}</h4><ul>${all.join("")}</ul>`;
}

/** Short texts in one paragraph. */
function line(title: string, items: readonly string[]): string {
  if (items.length === 0) return "";
  return `<h4>${title}</h4><p class="items">${items.map((item) => words(item.includes("`") ? item : `\`${item}\``)).join(", ")}</p>`;
}

function placeItems({ before, after, parts }: JoinedChange, texts: ImpactTexts): string[] {
  if (parts.length > 1) return [];
  return [placeItem(before, texts.before, "before"), placeItem(after, texts.after, "after")];
}

function hitItems(change: JudgedChange, texts: ShownTexts): string[] {
  return change.hits.map(({ place, kind, owner, operations }) => {
    const through = operations.filter((operation) => operation !== owner);
    const sent = through.length > 0 ? `, sent by ${html(through.join(", "))}` : "";
    return `<li><code>${html(placeText(place, texts))}</code> ${html(kind)} <code>${html(owner)}</code>${sent}${lineOf(place, texts)}</li>`;
  });
}

function errorItems(errors: readonly CompileError[], texts: ShownTexts): string[] {
  return errors.map(
    ({ place, code, message }) =>
      `<li><code>${html(placeText(place, texts))}</code> ${html(code)} ${html(message)}${lineOf(place, texts)}</li>`,
  );
}

function placeItem(place: Place | undefined, texts: ShownTexts, side: string): string {
  return place && place.document !== "" ? `<li>${side} <code>${html(placeText(place, texts))}</code></li>` : "";
}

const longestSides = 24;

function lineOf(place: Place, texts: ShownTexts): string {
  const text = texts.find(place.document)?.text;
  if (text === undefined || !("offset" in place)) return "";
  const start = text.lastIndexOf("\n", place.offset - 1) + 1;
  const end = text.indexOf("\n", place.offset);
  return `<pre>${html(text.slice(start, end < 0 ? undefined : end).trim())}</pre>`;
}

/** The changed shape, before and after, side by side. Lines on one side only are marked. */
function sides({ subject, differ }: JoinedChange, { contracts, changes }: ContractImpact, told?: Set<string>): string {
  const found =
    contracts && (differ === undefined || ["values", "fields"].includes(differ))
      ? shapeSides(subject, contracts.before, contracts.after)
      : undefined;
  if (!found || told?.has(found.title) === true) return "";
  told?.add(found.title);
  // Long shapes show only their differences.
  const isLong = found.before.length + found.after.length > longestSides || changes.length > shortReport;
  const rows = (own: readonly string[], other: readonly string[], mark: string): string => {
    if (own.length === 0) return `<li class="nothing">not there</li>`;
    const known = new Set(other);
    const kept = own.filter((each) => !isLong || !known.has(each));
    const shown = kept
      .slice(0, longestSides)
      .map((each) => `<li${known.has(each) ? "" : ` class="${mark}"`}>${html(each)}</li>`);
    const left = own.length - shown.length;
    return `${shown.join("")}${left > 0 ? `<li class="nothing">and ${String(left)} more</li>` : ""}`;
  };
  return `<div class="sides"><figure><figcaption>${html(found.title)} before</figcaption><ul>${rows(found.before, found.after, "gone")}</ul></figure><figure><figcaption>${html(found.title)} after</figcaption><ul>${rows(found.after, found.before, "new")}</ul></figure></div>`;
}

/** A sentence, with its quoted parts as code. */
function words(text: string): string {
  return html(text).replace(/`([^`]*)`/g, "<code>$1</code>");
}

/** Text for an element or an attribute. */
function html(text: string): string {
  return visibleLines(text)
    .replaceAll("&", "&amp;")
    .replaceAll("<", "&lt;")
    .replaceAll(">", "&gt;")
    .replaceAll('"', "&quot;");
}
