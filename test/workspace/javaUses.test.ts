import { describe, expect, it } from "vitest";
import { javaUses } from "../../src/workspace/languages/kotlin/source/javaUses.js";
import { demoSdkSource } from "../support/kotlin/demoSdkSource.js";

const closed = demoSdkSource({ choices: "closed" });

/** What Java source uses, as "kind coordinate @text", sorted. */
function used(text: string): string[] {
  return javaUses([{ document: "App.java", text }], closed)
    .map(
      ({ kind, coordinate, place }) =>
        `${kind} ${coordinate} @${text.slice(place.offset, place.offset + place.length)}`,
    )
    .sort();
}

describe("uses in Java source next to Kotlin", () => {
  it("imported and named types, and members that getters may reach", () => {
    expect(
      used(`package app;
        import org.ostrel.berths.Berth;
        import java.util.List;
        class Board {
          // Quay and getLength() are only talked about, as are /* all
          String show(List<Berth> berths) { return berths.get(0).getNote() + "getQuay() \${"; }
          /* of /* these */
          boolean has(Berth berth) { return berth.getShorePower(); }
        }`),
    ).toEqual([
      "names Berth @Berth",
      "names Berth @Berth",
      "names Berth @Berth",
      "reaches Berth.note @getNote",
      "reaches Berth.shorePower @getShorePower",
      // Of what a getter is called on nothing is known.
      "reaches BerthChange.note @getNote",
      "reaches BerthToSend.note @getNote",
      "reaches BerthToSend.shorePower @getShorePower",
      "reaches ReservationRequest.shorePower @getShorePower",
    ]);
  });

  it("calls by the class of their file, by static imports, and as method references", () => {
    const call = `harbour, "N-07", new CallOptions(), done)`;
    const whole = used(`class A { void a() { org.ostrel.berths.BerthsCalls.getBerth(${call}; } }`);
    expect(whole).toContain("calls getBerth @getBerth");
    const imported = used(
      `import org.ostrel.berths.*;\nclass A { void a() { BerthsCalls.listBerthsItems(harbour); } }`,
    );
    expect(imported).toContain("calls listBerths @listBerthsItems");
    const one = used(
      `import static org.ostrel.berths.BerthsCalls.getBerth;\nclass A { void a() { getBerth(${call}; } }`,
    );
    expect(one).toContain("calls getBerth @getBerth");
    const reference = used(
      `import org.ostrel.berths.BerthsCalls;\nclass A { Object a = each(BerthsCalls::getBerth); }`,
    );
    expect(reference).toContain("calls getBerth @getBerth");
    expect(used(`import org.ostrel.berths.Berth;\nclass A { void a() { ours.getBerth(1); } }`)).toEqual([
      "names Berth @Berth",
    ]);
  });

  it("objects that are built, constants, switches, and nested types", () => {
    const found = used(`import org.ostrel.berths.*;
      class A {
        Object make() { return new ReservationRequest(a, b, c); }
        int of(BerthStatus status) { switch (status) { case Free: return 1; default: return 0; } }
        void failed(Throwable error) { if (error instanceof GetBerthFailure.NotFound) retry(); }
      }`);
    expect(found).toEqual(
      expect.arrayContaining([
        "names ReservationRequest @ReservationRequest",
        "reaches ReservationRequest.* @ReservationRequest",
        "reaches BerthStatus.free @Free",
        "reaches BerthStatus.* @switch",
        "names GetBerthFailure.NotFound @NotFound",
      ]),
    );
  });

  it("nothing in files that do not name the SDK, whatever getters they call", () => {
    expect(used(`package app;\nimport org.other.Berth;\nclass A { Object a = new Berth().getNote(); }`)).toEqual([]);
    expect(used(`package org.ostrel.berths.more;\nclass A { String a = "org.ostrel.berths.Berth"; }`)).toEqual([]);
  });
});
