import { spawn } from "node:child_process";
import { chromium } from "./chromium.js";
import { whenTestEnds } from "./whenTestEnds.js";

/** Returns the text of a page's element `told` after its scripts ran. */
export async function pageAfter(url: string, profile: string): Promise<string> {
  const dom = await dumped(url, profile);
  const told = /<pre id="told">([\s\S]*?)<\/pre>/.exec(dom)?.[1] ?? dom;
  return told.replaceAll("&lt;", "<").replaceAll("&gt;", ">").replaceAll("&amp;", "&");
}

/** Returns the page after its scripts ran. The servers run in this process, so the browser must not block it. */
async function dumped(url: string, profile: string): Promise<string> {
  const options = [
    "--headless=new",
    "--no-sandbox",
    "--disable-gpu",
    "--disable-dev-shm-usage",
    `--user-data-dir=${profile}`,
  ];
  const child = spawn(chromium ?? "", [...options, "--virtual-time-budget=30000", "--dump-dom", url], {
    stdio: ["ignore", "pipe", "ignore"],
  });
  whenTestEnds(() => void child.kill("SIGKILL"));
  let text = "";
  child.stdout.setEncoding("utf8").on("data", (part: string) => (text += part));
  await new Promise((resolve) => child.on("exit", resolve));
  return text;
}
