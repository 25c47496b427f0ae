import { describe, expect, it } from "vitest";
import { TemporaryProject } from "../support/temporaryProject.js";

const contract =
  'openapi: 3.0.3\ninfo: { title: Tides, version: "1" }\npaths:\n  /tides:\n    get: { operationId: listTides, responses: { "204": { description: none } } }\n';

/** What `rhema init --yes` configures in a project, as lines of the SDK, and the output of generating it. */
async function configured(files: Readonly<Record<string, string>>): Promise<string[]> {
  const project = new TemporaryProject({ "contracts/tides.yaml": contract, ...files });
  const { code, err } = await project.run(["init", "--yes", "--sdk", "harbour-api"]);
  expect([code, err]).toEqual([0, ""]);
  const generated = await project.run(["generate", "--quiet"]);
  expect([generated.code, generated.err]).toEqual([0, ""]);
  const text = project.read("rhema.yaml");
  return ["language", "into", "settings"].map(
    (key) => new RegExp(`^ +${key}: ([^#\\n]*[^# \\n])`, "m").exec(text)?.[1] ?? "",
  );
}

describe("rhema init in a Gradle or Maven project", () => {
  it("an Android app: Kotlin, in the app's source set and package", async () => {
    expect(
      await configured({
        "settings.gradle.kts": 'include(":core", ":app")\n',
        "build.gradle.kts": 'plugins { id("com.android.application") version "8.7.0" apply false }\n',
        "core/build.gradle.kts": 'plugins { id("com.android.library") }\nandroid { namespace = "com.ostrel.core" }\n',
        "app/build.gradle.kts":
          'plugins { id("com.android.application") }\nandroid { namespace = "com.ostrel.skipper"\n defaultConfig { applicationId = "com.ostrel.app" } }\n',
        "app/src/main/java/com/ostrel/skipper/Main.kt": "package com.ostrel.skipper\n",
      }),
    ).toEqual([
      "kotlin",
      "app/src/main/java/com/ostrel/skipper/harbourapi",
      "{ namespace: com.ostrel.skipper.harbourapi }",
    ]);
  });

  it("a Groovy build, with the plug-in from a catalog", async () => {
    expect(
      await configured({
        "settings.gradle": "include ':skipper'\n",
        "skipper/build.gradle":
          "plugins { alias(libs.plugins.android.application) }\nandroid { namespace 'org.ostrel' }\n",
        "skipper/src/main/kotlin/org/ostrel/Main.kt": "package org.ostrel\n",
      }),
    ).toEqual(["kotlin", "skipper/src/main/kotlin/org/ostrel/harbourapi", "{ namespace: org.ostrel.harbourapi }"]);
  });

  it("an older Android app, whose package is in the manifest", async () => {
    const [, into] = await configured({
      "build.gradle": "",
      "app/build.gradle": "apply plugin: 'com.android.application'\n",
      "app/src/main/AndroidManifest.xml": '<manifest package="org.ostrel.old"/>',
    });
    expect(into).toBe("app/src/main/kotlin/org/ostrel/old/harbourapi");
  });

  it("a program for the JVM, by its sources", async () => {
    const [language, into, settings] = await configured({
      "build.gradle.kts": 'plugins { kotlin("jvm") version "2.2.0"; application }\ngroup = "none"\n',
      "src/main/kotlin/quay/desk/Deep.kt": "package quay.desk.deep\n",
      "src/main/kotlin/quay/desk/Main.kt": "// The desk.\npackage quay.desk\n",
    });
    expect([language, into, settings]).toEqual([
      "kotlin",
      "src/main/kotlin/quay/desk/harbourapi",
      "{ namespace: quay.desk.harbourapi }",
    ]);
  });

  it("a Maven project without sources, by its own group and not its parent's", async () => {
    const [language, into] = await configured({
      "pom.xml":
        "<project><parent><groupId>org.parent</groupId></parent><groupId>org.ostrel</groupId><dependencies><dependency><groupId>x.y</groupId></dependency></dependencies></project>",
    });
    expect([language, into]).toEqual(["kotlin", "src/main/kotlin/org/ostrel/harbourapi"]);
  });

  it("a web app with an Android folder is a web app", async () => {
    const [language] = await configured({
      "package.json": '{ "name": "board", "devDependencies": { "typescript": "5" } }',
      "tsconfig.json": "{}",
      "android/build.gradle": "",
    });
    expect(language).toBe("typescript");
    const [plain] = await configured({
      "package.json": '{ "name": "board" }',
      "pom.xml": "<project/>",
      "src/a.js": "",
    });
    expect(plain).toBe("javascript");
  });

  it("existing files are not taken for the SDK's", async () => {
    const [, into] = await configured({
      "build.gradle.kts": 'plugins { kotlin("jvm") }\ngroup = "org.ostrel"\n',
      "src/main/kotlin/org/ostrel/harbourapi/Own.kt": "package org.ostrel\n",
    });
    expect(into).toBe("src/main/kotlin/org/ostrel/harbourapi/sdk");
  });
});
