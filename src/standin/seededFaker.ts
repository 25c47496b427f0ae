import { createHash } from "node:crypto";
import { faker } from "@faker-js/faker/locale/en";

/** Dates lie around this moment, whatever the clock says. */
const referenceDate = "2026-05-01T08:00:00.000Z";

/** The fake-data library, set to a seed made from the given parts: the same parts, the same data. */
export function seededFaker(...parts: readonly unknown[]): typeof faker {
  const digest = createHash("sha256").update(JSON.stringify(parts)).digest();
  faker.seed(digest.readUInt32BE(0));
  faker.setDefaultRefDate(referenceDate);
  return faker;
}

export type Fake = typeof faker;
