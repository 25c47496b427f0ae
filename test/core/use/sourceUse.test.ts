import { printCoordinate } from "../../../src/core/use/coordinate.js";
import { expect, it } from "vitest";
import { SourceIndex } from "../../../src/core/use/sourceUse.js";

const place = { document: "App.kt", offset: 0, length: 1 };

it.each([
  ["Berth.*", "Berth.note", true],
  ["Berth.*", "Berth{}", true],
  ["OneAnswer.Craft.*", "OneAnswer.Craft.name", true],
  ["OneAnswer.Craft.*", "OneAnswer.Craft{}", true],
  ["OneAnswer.*", "OneAnswer", false],
  ["Berth.*", "Berth.wind.speed", true],
  ["Tariff.*", "Berth.note", false],
])("source that reaches %s may reach %s: %s", (reached, coordinate, expected) => {
  const index = new SourceIndex([{ coordinate: printCoordinate(reached), kind: "reaches", place }]);
  expect(index.mayReach([printCoordinate(coordinate)])).toBe(expected);
});
