import { describe, expect, it } from "vitest";
import { until } from "../support/until.js";
import { Secrets } from "../../src/core/text/secrets.js";
import { workspaceLanguages } from "../../src/workspace/languages/index.js";
import { Session } from "../../src/workspace/project/session.js";
import { untraced } from "../../src/workspace/project/trace.js";
import { InputWatcher } from "../../src/workspace/inputWatcher.js";
import { openProject } from "../../src/workspace/project/openProject.js";
import { restProject } from "../support/temporaryProject.js";

const after = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms));

describe("the input watcher", () => {
  it("reports a save during or just after the reading of another one", async () => {
    const project = restProject("{}");
    let read = "";
    const told: string[] = [];
    const watcher = new InputWatcher(20, (saved) => {
      read = project.read("api.yaml");
      told.push(...saved);
      return Promise.resolve();
    });
    await watcher.observe(
      await openProject(
        {
          folder: project.folder,
          environment: {},
          trace: untraced,
          secrets: new Secrets(),
          session: new Session((url) => import(url), workspaceLanguages),
        },
        undefined,
      ),
    );
    for (const ms of [15, 18, 20, 21, 22, 24, 26, 30, 35, 40, 45, 48]) {
      project.write("api.yaml", `first ${String(ms)}`);
      await after(ms);
      project.write("api.yaml", `second ${String(ms)}`);
      await until(() => read === `second ${String(ms)}`);
      expect(read).toBe(`second ${String(ms)}`);
    }
    expect(new Set(told)).toEqual(new Set(["api.yaml"]));
    await watcher.close();
  });

  it("watches nothing new after it is closed, also if it was about to", async () => {
    const project = restProject("{}");
    project.write("later.yaml", "{}");
    const opened = await openProject(
      {
        folder: project.folder,
        environment: {},
        trace: untraced,
        secrets: new Secrets(),
        session: new Session((url) => import(url), workspaceLanguages),
      },
      undefined,
    );
    const wider = {
      ...opened.configuration,
      contracts: { ...opened.configuration.contracts, later: { from: "later.yaml" } },
    };
    let watchesMore: boolean | undefined;
    let hasBegun = false;
    const watcher = new InputWatcher(5, async () => {
      hasBegun = true;
      await after(60);
      watchesMore = await watcher.observe({ ...opened, configuration: wider });
    });
    await watcher.observe(opened);
    project.write("api.yaml", "{ }");
    await until(() => hasBegun);
    await watcher.close();
    expect(watchesMore).toBe(false);
  });

  it("reports the next saves only after the last is processed, and nothing after it is closed", async () => {
    const project = restProject("{}");
    let [atOnce, most, times] = [0, 0, 0];
    const watcher = new InputWatcher(5, async () => {
      times++;
      most = Math.max(most, ++atOnce);
      await after(60);
      atOnce--;
    });
    await watcher.observe(
      await openProject(
        {
          folder: project.folder,
          environment: {},
          trace: untraced,
          secrets: new Secrets(),
          session: new Session((url) => import(url), workspaceLanguages),
        },
        undefined,
      ),
    );
    for (let count = 0; count < 6; count++) {
      project.write("api.yaml", String(count));
      await after(25);
    }
    await until(() => times > 0);
    await watcher.close();
    expect([most, atOnce]).toEqual([1, 0]);
    const before = times;
    project.write("api.yaml", "later");
    await after(60);
    expect([before > 0, times]).toEqual([true, before]);
  });
});
