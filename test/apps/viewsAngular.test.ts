import { expect, it } from "vitest";
import { chromium } from "../support/chromium.js";
import { boardModule, walkThroughBoard } from "./support/boardScreen.js";
import { appProject, openedApp } from "./support/openedApp.js";

const app = `import "@angular/compiler";
import { Component, computed, provideZonelessChangeDetection, signal } from "@angular/core";
import { bootstrapApplication } from "@angular/platform-browser";
import { map } from "rxjs";
import { arrivalsText, berths, counted, listText, noted, oneText, pagesText, passages, overrideWith } from "./board.js";
import type { BerthStatus } from "./sdk/berths/index.js";
import { liveAnswer, liveChange, livePages, liveStream, pagesStates } from "./sdk/views/angular.js";

@Component({
  selector: "harbour-board",
  template: \`
    <p id="list">{{ listText() }}</p>
    <p id="pages">{{ pagesText() }}</p>
    <p id="one">{{ oneText() }}</p>
    <p id="arrivals">{{ arrivalsText() }}</p>
    <p id="change">{{ change().state }} {{ change().failure?.status }}</p>
    <button id="free" (click)="status.set('free')">free</button>
    <button id="again" (click)="list().again()">again</button>
    <button id="more" (click)="pages().more()">more</button>
    <button id="missing" (click)="missing()">missing</button>
    <button id="change-it" (click)="paint()">change</button>
  \`,
})
class Board {
  readonly status = signal<BerthStatus | undefined>(undefined);
  readonly chosen = signal<string | undefined>(undefined);
  readonly list = liveAnswer(() => {
    const status = this.status();
    return berths.listBerths(status === undefined ? {} : { status: [status] });
  });
  readonly pages = livePages(() => berths.listBerthsPages({ pageSize: 2 }));
  readonly one = liveAnswer(() => {
    const berthId = this.chosen();
    return berthId === undefined ? undefined : berths.getBerth({ berthId });
  });
  readonly arrivals = liveStream(() => passages.liveArrivals(), { gather: counted });
  readonly change = liveChange(() => berths.changeBerth(), {
    predict: (args) => this.list().predict((page) => noted(page, args)),
  });
  readonly listText = computed(() => listText(this.list()));
  readonly pagesText = computed(() => pagesText(this.pages()));
  readonly oneText = computed(() => oneText(this.one()));
  readonly arrivalsText = computed(() => arrivalsText(this.arrivals()));

  missing(): void {
    overrideWith("status=404");
    this.chosen.set("nowhere");
  }

  async paint(): Promise<void> {
    const berthId = this.list().answer?.items[0]?.id ?? "";
    const sent = await this.change().send({ berthId, body: { note: "freshly painted" } });
    if (sent.state === "done") this.list().again();
  }
}

@Component({
  selector: "harbour-app",
  imports: [Board],
  template: \`
    @if (isThere()) {
      <harbour-board />
      <button id="leave" (click)="isThere.set(false)">leave</button>
    } @else {
      <p id="gone">gone</p>
    }
  \`,
})
class App {
  readonly isThere = signal(true);
}

/** An observable sends its request on subscription, and cancels it when nobody is subscribed. */
const states = pagesStates(berths.listBerthsPages({ pageSize: 7 })).pipe(map(pagesText));
const watched = (): void => {
  const said: string[] = [];
  const subscription = states.subscribe((text) => {
    said.push(text);
    document.getElementById("said")!.textContent = said.join(", ");
    if (text.startsWith("ready")) subscription.unsubscribe();
  });
};

Object.assign(window, { overrideWith, watched });
document.getElementById("app")!.innerHTML = '<harbour-app></harbour-app><p id="said"></p>';
void bootstrapApplication(App, { providers: [provideZonelessChangeDetection()] });
`;

it.skipIf(chromium === undefined)(
  "a screen with Angular shows every state, by signals and as observables",
  async () => {
    const project = await appProject({ "src/board.ts": boardModule, "src/main.ts": app }, "{ views: angular }");
    const compilerOptions = { experimentalDecorators: true, useDefineForClassFields: false };
    expect(project.compile({ ...compilerOptions, moduleResolution: "bundler", module: "esnext" })).toBe("");
    const opened = await openedApp(project, "src/main.ts", { how: { tsconfigRaw: { compilerOptions } } });
    await walkThroughBoard(opened);
    await opened.page.evaluate("window.overrideWith(undefined); window.watched()");
    await opened.says("said", /^loading 0 0 in all, ready (\d+) \1 /);
  },
);
