import { hiddenCharacters } from "../../core/text/visible.js";

/**
 * The script of the stand-in server's page. Everything from a contract or a call is inserted as text, never as markup.
 */
export const pageScript = `
const byId = (id) => document.getElementById(id);
const kept = 100;
let overrides = {};

function make(tag, properties, ...inside) {
  const element = Object.assign(document.createElement(tag), properties);
  element.append(...inside.map((each) => typeof each === "string" ? seen(each) : each));
  return element;
}

// Invisible characters, which could reorder text, are shown.
function seen(text) {
  return text.replace(/(?![\\n\\t])[${hiddenCharacters}]/gu, "\u00b7");
}

async function post(path, data) {
  const response = await fetch(path, { method: "POST", headers: { "content-type": "application/json" }, body: JSON.stringify(data) });
  const answer = await response.json();
  if (!response.ok) throw new Error(answer.title);
  return answer;
}

function overrideText(override) {
  return Object.entries(override ?? {}).map(([key, value]) => key + "=" + value).join(", ");
}

function operationView(contract, sample) {
  const key = sample.id || sample.operation;
  const overridden = make("span", { className: "overridden" });
  const showOverride = () => { overridden.textContent = overrides[key] ? "override: " + overrideText(overrides[key]) : ""; };
  showOverride();
  const title = contract.protocol === "rest" ? sample.operation : sample.operation.split(" ")[0] + " " + sample.id;
  const head = make("summary", {}, make("code", {}, title), overridden, make("span", { className: "end" }, contract.protocol === "rest" ? sample.id : ""));
  const view = make("details", {}, head);
  view.dataset.text = (contract.name + " " + sample.operation + " " + sample.id + " " + sample.summary).toLowerCase();
  view.addEventListener("toggle", () => { if (view.open && view.childElementCount === 1) fill(); });
  const fill = () => {
    const path = make("input", { value: sample.path, size: 40 });
    path.setAttribute("aria-label", "Path of the sample");
    const body = make("textarea", { value: sample.body, spellcheck: false });
    body.setAttribute("aria-label", "Body of the sample");
    const said = make("span", { className: "quiet" });
    said.setAttribute("role", "status");
    const result = make("pre", { hidden: true });
    const send = make("button", { type: "button", className: "main" }, "Send");
    send.addEventListener("click", async () => {
      send.disabled = true;
      result.hidden = true;
      said.textContent = "waiting";
      const end = new AbortController();
      const timer = setTimeout(() => end.abort(), 15000);
      try {
        const bodyAllowed = sample.method !== "GET" && sample.method !== "HEAD" && body.value !== "";
        const response = await fetch(path.value, { method: sample.method, signal: end.signal, headers: { ...sample.headers, ...(bodyAllowed ? { "content-type": sample.mediaType } : {}) }, ...(bodyAllowed ? { body: body.value } : {}) });
        said.textContent = String(response.status);
        if ((response.headers.get("content-type") ?? "").startsWith("text/event-stream")) {
          const reader = response.body.pipeThrough(new TextDecoderStream()).getReader();
          result.textContent = "";
          result.hidden = false;
          for (let events = 0; events < 3; events++) {
            const { done, value } = await reader.read();
            if (done) break;
            result.textContent += seen(value);
          }
          end.abort();
        } else {
          const text = await response.text();
          try { result.textContent = seen(JSON.stringify(JSON.parse(text), null, 2)); } catch { result.textContent = seen(text); }
          result.hidden = false;
        }
      } catch (error) {
        said.textContent = error.name === "AbortError" ? "no response" : error.message;
      }
      clearTimeout(timer);
      send.disabled = false;
    });
    const status = make("select", {}, make("option", { value: "" }, "default"));
    const plain = sample.statuses.filter((each) => /^\\d+$/.test(each));
    const others = ["401", "404", "429", "500", "503"].filter((each) => !plain.includes(each));
    for (const each of plain) status.append(make("option", { value: each }, each + " (documented)"));
    for (const each of others) status.append(make("option", { value: each }, each));
    const delay = make("input", { type: "number", min: "0", max: "60000", step: "100", value: String(overrides[key]?.delay ?? 0) });
    status.value = String(overrides[key]?.status ?? "");
    const override = make("button", { type: "button" }, "Always respond like this");
    const overrideSaid = make("span", { className: "quiet" });
    overrideSaid.setAttribute("role", "status");
    override.addEventListener("click", async () => {
      const parts = [status.value ? "status=" + status.value : "", Number(delay.value) > 0 ? "delay=" + Number(delay.value) : ""];
      try {
        ({ overrides } = await post("/.play/override", { operation: key, override: parts.filter((part) => part !== "").join(", ") }));
        showOverride();
        overrideSaid.textContent = overrides[key] ? "done" : "override removed";
      } catch (error) { overrideSaid.textContent = error.message; }
    });
    view.append(
      ...(sample.summary ? [make("p", { className: "quiet" }, sample.summary)] : []),
      make("div", { className: "row" }, make("code", {}, sample.method), path, send, said),
      ...(sample.body ? [body] : []),
      result,
      make("div", { className: "row" }, make("label", {}, "Status ", status), make("label", {}, "Delay in ms ", delay), override, overrideSaid),
      ...sample.code.map(({ language, code }) => make("details", {}, make("summary", {}, "In " + language), make("pre", {}, code))),
    );
  };
  return view;
}

function shownPart(title, { headers, body }) {
  const list = Object.entries(headers).map(([name, value]) => name + ": " + value).join("\\n");
  return [make("h4", {}, title), make("pre", {}, list + (body ? "\\n\\n" + body : ""))];
}

function callView(call) {
  const fits = call.misfits.length === 0 && call.faults.length === 0;
  const tone = call.status >= 500 || call.faults.length > 0 ? "bad" : call.status >= 400 || !fits ? "warn" : "good";
  const head = make("summary", {},
    make("span", { className: "status " + tone }, String(call.status)),
    make("code", {}, call.method + " " + call.path),
    make("span", { className: "end" }, (call.operation && call.contract ? call.operation + ", " : "") + Math.round(call.ms) + " ms, " + new Date(call.at).toLocaleTimeString()));
  const view = make("details", {}, head);
  view.dataset.fits = String(fits);
  const complaints = [...call.misfits.map((each) => "The request: " + each), ...call.faults.map((each) => "The response: " + each)];
  if (complaints.length > 0) view.append(make("ul", { className: tone }, ...complaints.map((each) => make("li", {}, each))));
  else view.append(make("p", { className: "quiet" }, "Request and response match the contract."));
  view.addEventListener("toggle", () => {
    if (view.open && !view.dataset.filled) {
      view.dataset.filled = "yes";
      view.append(...shownPart("Request", call.request), ...shownPart("Response", call.answer));
    }
  });
  return view;
}

function addCall(call) {
  byId("none").hidden = true;
  const calls = byId("calls");
  calls.prepend(callView(call));
  while (calls.childElementCount > kept) calls.lastElementChild.remove();
  filterCalls();
}

function filterCalls() {
  for (const each of byId("calls").children) each.hidden = byId("only").checked && each.dataset.fits === "true";
}

function filterOperations() {
  const words = byId("search").value.toLowerCase().split(/\\s+/);
  let shown = 0;
  const all = [...byId("operations").querySelectorAll("details")];
  for (const each of all) {
    each.hidden = !words.every((word) => each.dataset.text.includes(word));
    if (!each.hidden) shown++;
  }
  byId("found").textContent = shown + " of " + all.length + " shown";
}

async function load() {
  const state = await (await fetch("/.play/state")).json();
  overrides = state.overrides;
  byId("operations").replaceChildren(...state.contracts.flatMap((contract) => [
    make("h3", {}, contract.name + (contract.title ? ": " + contract.title : "")),
    ...contract.operations.map((sample) => operationView(contract, sample)),
  ]));
  byId("calls").replaceChildren();
  state.calls.slice(-kept).forEach(addCall);
  filterOperations();
}

function listen() {
  const events = new EventSource("/.play/events");
  events.addEventListener("open", () => { byId("state").textContent = "Live at " + location.host; load(); });
  events.addEventListener("message", ({ data }) => addCall(JSON.parse(data)));
  events.addEventListener("reload", load);
  events.addEventListener("error", () => { byId("state").textContent = "The stand-in server does not respond. Waiting for it."; });
}

byId("search").addEventListener("input", filterOperations);
byId("only").addEventListener("change", filterCalls);
byId("forget").addEventListener("click", async () => { await post("/.play/forget", {}); byId("state").textContent = "The data begins anew"; });
listen();
`;
