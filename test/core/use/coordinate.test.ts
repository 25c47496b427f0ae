import { describe, expect, it } from "vitest";
import {
  argumentOf,
  directiveOf,
  memberOf,
  membersOfBuilt,
  nameOf,
  ownersOf,
  positionsOfBuilt,
  printCoordinate,
  readCoordinate,
  type Way,
} from "../../../src/core/use/coordinate.js";

const ways = [
  ...(["omitted", "variable", "maybeNull", "toldApart", "byName"] as const),
  ...(["sharedKey", "sharedKeyToldApart", "built", "wholeMatch", "anyMember"] as const),
] satisfies readonly Way[];

describe("a coordinate", () => {
  it.each(ways)("for %s is read as it was printed", (way) => {
    for (const path of ["Berth", memberOf("Berth", "note"), argumentOf("Query.berth", "id"), directiveOf("shown")])
      expect(readCoordinate(printCoordinate(path, way))).toEqual({ path, way });
  });

  it("without a kind of use is only a path", () => {
    const path = memberOf("Berth", "note");
    expect(readCoordinate(path)).toEqual({ path, way: undefined });
  });

  it("of an object that is built gives its members and positions; others do not change", () => {
    const owners = [printCoordinate("Berth", "built"), printCoordinate("berth")];
    expect(membersOfBuilt(owners, "note")).toEqual(["Berth.note", "berth"]);
    expect(positionsOfBuilt(owners, 2)).toEqual(["Berth(2)", "berth"]);
  });

  it("of an SDK is shown without its kind of use, but a name may end with a dollar sign", () => {
    const shown = (["omitted", "wholeMatch", "built"] as const).map((way) =>
      nameOf(printCoordinate("Berth.note", way)),
    );
    expect([...shown, nameOf(memberOf("Berth", "price$"))]).toEqual([
      "Berth.note",
      "Berth.note",
      "Berth.note",
      "Berth.price$",
    ]);
  });

  it("knows everything that may have the named member", () => {
    expect(ownersOf(printCoordinate("Answer.Craft.name"))).toEqual(["Answer", "Answer.Craft"]);
    expect(ownersOf(printCoordinate("Answer.Craft", "built"))).toEqual(["Answer.Craft", "Answer"]);
  });
});
