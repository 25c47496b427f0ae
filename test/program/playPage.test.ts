import { describe, expect, it } from "vitest";
import { BrowserPage, chromium } from "../support/chromium.js";
import { demoProject } from "../support/temporaryProject.js";
import { until } from "../support/until.js";

/** Waits until a page shows something. */
async function pageSays(page: BrowserPage, expression: string): Promise<boolean> {
  await until(async () => (await page.evaluate(expression)) === true);
  return true;
}

const focused = "document.activeElement";

describe.skipIf(chromium === undefined)("the stand-in server's page", () => {
  it("lists operations with samples, sends one by keyboard, shows requests live, and sets overrides", async () => {
    const project = demoProject();
    const address = await project.play();
    const page = await BrowserPage.open(`${address}/`);
    try {
      expect(await pageSays(page, "document.querySelectorAll('#operations details').length === 26")).toBe(true);
      // The search is the second thing that the keyboard reaches.
      await page.press("Tab");
      await page.press("Tab");
      expect(await page.evaluate(`${focused}.id`)).toBe("search");
      await page.type("getberth");
      expect(await pageSays(page, "document.getElementById('found').textContent === '1 of 26 shown'")).toBe(true);
      await page.press("Tab");
      expect(await page.evaluate(`${focused}.tagName`)).toBe("SUMMARY");
      await page.press("Enter");
      expect(await pageSays(page, "document.querySelector('#operations details[open] button') !== null")).toBe(true);
      await page.press("Tab");
      await page.press("Tab");
      expect(await page.evaluate(`${focused}.textContent`)).toBe("Send");
      await page.press("Enter");
      expect(await pageSays(page, "document.querySelectorAll('#calls details').length === 1")).toBe(true);
      expect(await page.evaluate("document.querySelector('#calls summary').textContent")).toMatch(
        /^200GET \/berths\/berths\//,
      );
      // A call of an app appears automatically, with its errors and without its secrets.
      await fetch(`${address}/berths/berths?pageSize=900&token=hush-hush`, {
        headers: { authorization: "Bearer hush-hush" },
      });
      expect(await pageSays(page, "document.querySelectorAll('#calls details').length === 2")).toBe(true);
      await page.evaluate("document.querySelector('#calls details').open = true");
      expect(await pageSays(page, "document.querySelector('#calls').textContent.includes('must be <= 100')")).toBe(
        true,
      );
      expect(await page.evaluate("document.documentElement.outerHTML.includes('hush-hush')")).toBe(false);
      // An override applies to everybody from now on.
      await page.evaluate(
        "const open = document.querySelector('#operations details[open]'); open.querySelector('select').value = '404'; [...open.querySelectorAll('button')].find((each) => each.textContent.startsWith('Always respond')).click()",
      );
      expect(
        await pageSays(
          page,
          "document.querySelector('#operations details[open] .overridden').textContent === 'override: status=404'",
        ),
      ).toBe(true);
      const headers = { authorization: "Bearer any" };
      expect((await fetch(`${address}/berths/berths/N-07`, { headers })).status).toBe(404);
    } finally {
      await page.close();
    }
  });

  it("shows code that calls an operation, in the language of each SDK", async () => {
    const project = demoProject();
    const skipper =
      "\n  skipper: { language: kotlin, covers: [berths, passages], into: skipper, settings: { failures: return } }\n";
    project.write("rhema.yaml", project.read("rhema.yaml").trimEnd() + skipper);
    const address = await project.play();
    const page = await BrowserPage.open(`${address}/`);
    try {
      expect(await pageSays(page, "document.querySelectorAll('#operations details').length === 26")).toBe(true);
      const code = async (operation: string): Promise<unknown> => {
        const found = `[...document.querySelectorAll('#operations details')].find((each) => each.textContent.includes('${operation}'))`;
        await page.evaluate(`${found}.open = true`);
        expect(await pageSays(page, `${found}.querySelectorAll('details').length === 2`)).toBe(true);
        return page.evaluate(
          `[...${found}.querySelectorAll('details')].map((each) => each.innerText + each.querySelector('pre').textContent).join()`,
        );
      };
      expect(await code("getBerth")).toMatch(
        /^In TypeScript.*getBerth\(.*In Kotlin.*connection\.getBerth\(berthId = /s,
      );
      // For a root field, the project's queries that select it.
      expect(await code("query voyages")).toMatch(
        /^In TypeScript.*arrivalsToday\(.*In Kotlin.*connection\.arrivalsToday\(day = /s,
      );
    } finally {
      await page.close();
    }
  });

  it("shows text from the contract as text, and other sites cannot control it", async () => {
    const project = demoProject();
    const evil = "<img src=x onerror=document.title='owned'>";
    project.write("contracts/berths.yaml", project.read("contracts/berths.yaml").replaceAll("One berth.", evil));
    const address = await project.play(["berths"]);
    const page = await BrowserPage.open(`${address}/`);
    try {
      expect(await pageSays(page, "document.querySelectorAll('#operations details').length === 15")).toBe(true);
      await page.evaluate("for (const each of document.querySelectorAll('#operations details')) each.open = true");
      expect(await pageSays(page, "document.querySelector('#operations').textContent.includes('onerror')")).toBe(true);
      expect(await page.evaluate("document.querySelectorAll('#operations img').length")).toBe(0);
      expect(await page.evaluate("document.title")).toBe("Rhema play");
    } finally {
      await page.close();
    }
    const foreign = { headers: { origin: "https://elsewhere.example" } };
    expect((await fetch(`${address}/.play/state`, foreign)).status).toBe(403);
    expect((await fetch(`${address}/.play/forget`, { method: "POST", ...foreign })).status).toBe(403);
  });
});
