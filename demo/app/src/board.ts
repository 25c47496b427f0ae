import { arrivalsLines } from "./arrivals.js";
import { berthLines, reserveFirstFree } from "./berths.js";
import { connect } from "./connections.js";
import { fleetLines } from "./fleet.js";
import { tideLines, windLine } from "./weather.js";

/** Prints the quay board once: arrivals, berths, fleet, tides and wind. */
const [address = "http://127.0.0.1:4020", today = "2026-05-01"] = globalThis.process?.argv.slice(2) ?? [];
const harbour = connect(address);

const sections: readonly (readonly [string, Promise<readonly string[]>])[] = [
  ["ARRIVALS", arrivalsLines(harbour.passages, today)],
  ["BERTHS", berthLines(harbour.berths)],
  ["FLEET", fleetLines(harbour.passages)],
  ["TIDES", tideLines(harbour.berths, today)],
  ["WIND", windLine(harbour.passages)],
  ["DESK", reserveFirstFree(harbour.berths, today)],
];

for (const [heading, lines] of sections) {
  console.log(`\n${heading}`);
  for (const line of await lines) console.log(`  ${line}`);
}
