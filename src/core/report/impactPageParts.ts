/** The styles of an impact's page, in light and dark. */
export const pageStyle = `
:root { color-scheme: light dark; --ground: #fbfaf7; --card: #ffffff; --text: #1d2430; --quiet: #5a6475; --line: #d9d6cd; --bad: #a8201a; --warn: #8a5a00; --good: #1f6b3a; --gone: #fbe3e0; --new: #def1e2; --focus: #1b5fa8; }
@media (prefers-color-scheme: dark) { :root { --ground: #14181f; --card: #1c222c; --text: #e6e9ee; --quiet: #9aa5b5; --line: #333c49; --bad: #ff8a80; --warn: #f2b84b; --good: #7fd39a; --gone: #43201f; --new: #1b3a27; --focus: #7db7f2; } }
* { box-sizing: border-box; }
body { margin: 0; background: var(--ground); color: var(--text); font: 15px/1.5 system-ui, sans-serif; }
header, main { max-width: 76rem; margin: 0 auto; padding: 1rem 1.25rem; }
header { border-bottom: 1px solid var(--line); }
h1 { font-size: 1.35rem; margin: 0 0 .75rem; }
h2 { font-size: 1.1rem; margin: 1.5rem 0 .5rem; }
h3 { font-size: .95rem; margin: 0; font-weight: 600; display: inline; overflow-wrap: anywhere; }
h4 { font-size: .8rem; margin: .75rem 0 .2rem; color: var(--quiet); font-weight: 600; }
.group { margin: .4rem 0; }
.group > summary { padding: .35rem 0; }
.items { margin: 0; max-height: 12rem; overflow-y: auto; overflow-wrap: anywhere; }
table { border-collapse: collapse; margin: .25rem 0 .5rem; }
th, td { padding: .15rem 1rem .15rem 0; text-align: left; vertical-align: top; font-weight: 400; }
thead th.level { font-weight: 600; }
small, .facts, #count { color: var(--quiet); }
#count { margin: .5rem 0 0; }
form { display: flex; flex-wrap: wrap; gap: .75rem; }
fieldset { border: 1px solid var(--line); border-radius: .4rem; padding: .25rem .75rem .4rem; display: flex; gap: .9rem; align-items: center; }
legend { font-size: .75rem; color: var(--quiet); padding: 0 .3rem; }
input[type=search] { font: inherit; color: inherit; background: var(--card); border: 1px solid var(--line); border-radius: .3rem; padding: .15rem .5rem; }
:focus-visible { outline: 2px solid var(--focus); outline-offset: 2px; }
.change { background: var(--card); border: 1px solid var(--line); border-radius: .4rem; margin: .5rem 0; padding: 0 .9rem; }
.change[open] { padding-bottom: .8rem; }
summary { cursor: pointer; padding: .55rem 0; }
.message { font-weight: 600; }
.facts { display: flex; flex-wrap: wrap; gap: 1rem; font-size: .85rem; }
.level { font-weight: 600; }
.breaking { color: var(--bad); } .risky { color: var(--warn); } .compatible { color: var(--good); }
code, pre, .sides li { font: .92em/1.5 ui-monospace, monospace; }
pre { margin: .15rem 0 .4rem; padding: .3rem .6rem; background: var(--ground); border-radius: .3rem; overflow-x: auto; }
ul { margin: 0; padding-left: 1.2rem; }
.sides { display: grid; grid-template-columns: 1fr 1fr; gap: .75rem; }
.sides figure { margin: 0; border: 1px solid var(--line); border-radius: .3rem; overflow: hidden; min-width: 0; }
.sides figcaption { padding: .2rem .6rem; font-size: .8rem; color: var(--quiet); border-bottom: 1px solid var(--line); }
.sides ul { list-style: none; padding: .3rem 0; }
.sides li { padding: 0 .6rem; overflow-wrap: anywhere; }
.gone { background: var(--gone); } .new { background: var(--new); } .nothing { color: var(--quiet); }
.hint { margin: .7rem 0 0; }
@media (max-width: 40rem) { .sides { grid-template-columns: 1fr; } }
`;

/** The script for its filters. The page is complete without it. */
export const pageScript = `
const form = document.getElementById("filters");
const count = document.getElementById("count");
const changes = [...document.querySelectorAll(".change")];
const texts = new Map();
function textOf(change) {
  const known = texts.get(change) ?? change.textContent.toLowerCase();
  texts.set(change, known);
  return known;
}
function show() {
  const data = new FormData(form);
  const clock = data.get("clock");
  const levels = data.getAll("level");
  const words = String(data.get("words")).toLowerCase();
  let shown = 0;
  for (const change of changes) {
    const { code, apps, use } = change.dataset;
    const rank = { breaking: 2, risky: 1, compatible: 0 };
    const level = clock === "code" ? code : clock === "apps" ? apps : rank[code] >= rank[apps] ? code : apps;
    const fits = levels.includes(level) && (data.get("use") === "all" || use !== "not used") && (words === "" || textOf(change).includes(words));
    change.hidden = !fits;
    if (fits) shown++;
  }
  for (const group of document.querySelectorAll(".group:has(.change)")) {
    const fitting = group.querySelectorAll(".change:not([hidden])").length;
    group.hidden = fitting === 0;
    if (words !== "" && fitting > 0) group.open = true;
  }
  count.textContent = shown + " of " + changes.length + (changes.length === 1 ? " entry" : " entries") + " shown";
}
form.addEventListener("input", show);
form.addEventListener("submit", (event) => event.preventDefault());
show();
`;
