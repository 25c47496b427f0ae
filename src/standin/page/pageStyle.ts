/** The styles of the stand-in server's page, in light and dark. */
export const pageStyle = `
:root { color-scheme: light dark; --ground: #f7f8fa; --card: #ffffff; --text: #1c2430; --quiet: #566073; --line: #d8dde5; --bad: #a8201a; --warn: #8a5a00; --good: #1f6b3a; --accent: #124f8c; --focus: #1b5fa8; }
@media (prefers-color-scheme: dark) { :root { --ground: #12161c; --card: #1a2029; --text: #e6e9ee; --quiet: #9aa5b5; --line: #313a47; --bad: #ff8a80; --warn: #f2b84b; --good: #7fd39a; --accent: #8cc2f7; --focus: #7db7f2; } }
* { box-sizing: border-box; }
body { margin: 0; background: var(--ground); color: var(--text); font: 15px/1.5 system-ui, sans-serif; }
header { display: flex; flex-wrap: wrap; gap: .5rem 1.25rem; align-items: baseline; padding: .75rem 1.25rem; border-bottom: 1px solid var(--line); background: var(--card); }
h1 { font-size: 1.2rem; margin: 0; }
header p { margin: 0; color: var(--quiet); flex: 1; }
main { display: grid; grid-template-columns: minmax(0, 1fr) minmax(0, 1fr); gap: 1.25rem; padding: 0 1.25rem 2rem; max-width: 100rem; margin: 0 auto; }
h2 { font-size: 1.05rem; margin: 1rem 0 .4rem; }
h3 { font-size: .95rem; margin: 1rem 0 .3rem; color: var(--accent); }
h4 { font-size: .78rem; margin: .6rem 0 .15rem; color: var(--quiet); font-weight: 600; }
.quiet { color: var(--quiet); margin: .3rem 0; font-size: .88rem; }
.search { display: inline-flex; gap: .4rem; align-items: center; font-size: .9rem; }
input, select, textarea, button { font: inherit; color: inherit; background: var(--card); border: 1px solid var(--line); border-radius: .3rem; padding: .2rem .5rem; }
input[type=checkbox] { padding: 0; }
input[type=number] { width: 6.5rem; }
textarea { width: 100%; min-height: 7rem; font: .85rem/1.45 ui-monospace, monospace; resize: vertical; }
button { cursor: pointer; }
button.main { background: var(--accent); border-color: var(--accent); color: var(--ground); font-weight: 600; }
:focus-visible { outline: 2px solid var(--focus); outline-offset: 2px; }
details { background: var(--card); border: 1px solid var(--line); border-radius: .35rem; margin: .3rem 0; padding: 0 .7rem; }
details[open] { padding-bottom: .7rem; }
summary { cursor: pointer; padding: .35rem 0; display: flex; flex-wrap: wrap; gap: .1rem .7rem; align-items: baseline; }
summary::before { content: "\\25B8"; color: var(--quiet); } details[open] > summary::before { content: "\\25BE"; }
code, pre { font: .85rem/1.45 ui-monospace, monospace; }
summary code { overflow-wrap: anywhere; }
summary .end { margin-left: auto; color: var(--quiet); font-size: .82rem; }
pre { margin: 0; padding: .4rem .6rem; background: var(--ground); border-radius: .3rem; overflow: auto; max-height: 20rem; white-space: pre-wrap; overflow-wrap: anywhere; }
.row { display: flex; flex-wrap: wrap; gap: .5rem .9rem; align-items: center; margin: .5rem 0; font-size: .9rem; }
.good { color: var(--good); } .warn { color: var(--warn); } .bad { color: var(--bad); }
.status { font-weight: 700; min-width: 2.2rem; }
.overridden { color: var(--warn); font-weight: 600; font-size: .82rem; }
ul { margin: .2rem 0; padding-left: 1.2rem; }
@media (max-width: 60rem) { main { grid-template-columns: minmax(0, 1fr); } }
`;
