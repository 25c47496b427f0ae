import { spawn, type ChildProcess } from "node:child_process";
import { existsSync, mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import WebSocket from "ws";

/** Debian's browser; undefined if it is not installed. */
export const chromium = ["/usr/bin/chromium", "/usr/bin/chromium-browser"].find((path) => existsSync(path));

const quiet = [
  "--disable-quic",
  "--no-first-run",
  "--disable-background-networking",
  "--disable-component-update",
  "--disable-sync",
];

/** A page in a headless browser, driven over the DevTools protocol. */
export class BrowserPage {
  private next = 0;
  private readonly waiting = new Map<number, (result: unknown) => void>();

  private constructor(
    private readonly browser: ChildProcess,
    private readonly profile: string,
    private readonly socket: WebSocket,
  ) {
    socket.on("message", (data: Buffer) => {
      const { id, result } = JSON.parse(data.toString()) as { id?: number; result?: unknown };
      if (id !== undefined) this.waiting.get(id)?.(result);
    });
  }

  static async open(url: string): Promise<BrowserPage> {
    const profile = mkdtempSync(join(tmpdir(), "rhema-browser-"));
    const browser = spawn(
      chromium ?? "",
      [
        "--headless=new",
        "--no-sandbox",
        "--disable-gpu",
        ...quiet,
        "--remote-debugging-port=0",
        `--user-data-dir=${profile}`,
        url,
      ],
      { stdio: ["ignore", "ignore", "pipe"] },
    );
    const address = await new Promise<string>((resolve, reject) => {
      let said = "";
      browser.stderr.on("data", (data: Buffer) => {
        said += data.toString();
        const [, port] = /DevTools listening on ws:\/\/[^:]+:(\d+)/.exec(said) ?? [];
        if (port !== undefined) resolve(`http://127.0.0.1:${port}`);
      });
      browser.on("exit", () => {
        reject(new Error(said));
      });
    });
    let target: { type: string; webSocketDebuggerUrl: string } | undefined;
    for (let tries = 0; !target && tries < 100; tries++) {
      const targets = (await (await fetch(`${address}/json`)).json()) as {
        type: string;
        webSocketDebuggerUrl: string;
      }[];
      target = targets.find(({ type }) => type === "page");
      if (!target) await new Promise((resolve) => setTimeout(resolve, 100));
    }
    const socket = new WebSocket(target?.webSocketDebuggerUrl ?? "");
    await new Promise((resolve) => socket.once("open", resolve));
    const page = new BrowserPage(browser, profile, socket);
    // The first, empty page is complete as well.
    const isThere = "location.href !== 'about:blank' && document.readyState === 'complete'";
    for (let tries = 0; tries < 400 && (await page.evaluate(isThere)) !== true; tries++)
      await new Promise((resolve) => setTimeout(resolve, 50));
    return page;
  }

  async evaluate(expression: string): Promise<unknown> {
    const { result } = (await this.send("Runtime.evaluate", { expression, returnByValue: true })) as {
      result: { value?: unknown };
    };
    return result.value;
  }

  /** Presses one key, like a person. */
  async press(key: "Tab" | " " | "Enter" | "ArrowRight" | "ArrowLeft"): Promise<void> {
    const codes = { Tab: 9, " ": 32, Enter: 13, ArrowRight: 39, ArrowLeft: 37 };
    const code = { key, code: key === " " ? "Space" : key, windowsVirtualKeyCode: codes[key] };
    const text = key === " " ? { text: " " } : key === "Enter" ? { text: "\r" } : {};
    await this.send("Input.dispatchKeyEvent", { type: "keyDown", ...code, ...text });
    await this.send("Input.dispatchKeyEvent", { type: "keyUp", ...code });
  }

  async type(text: string): Promise<void> {
    await this.send("Input.insertText", { text });
  }

  async close(): Promise<void> {
    const ended = new Promise((resolve) => this.browser.once("exit", resolve));
    // On request, it also ends its own processes, which otherwise write into the profile while that is removed.
    void this.send("Browser.close", {});
    const patience = setTimeout(() => this.browser.kill("SIGKILL"), 5_000);
    await ended;
    clearTimeout(patience);
    this.socket.close();
    rmSync(this.profile, { recursive: true, force: true, maxRetries: 20, retryDelay: 100 });
  }

  private send(method: string, params: object): Promise<unknown> {
    const id = ++this.next;
    return new Promise((resolve) => {
      this.waiting.set(id, resolve);
      this.socket.send(JSON.stringify({ id, method, params }));
    });
  }
}
