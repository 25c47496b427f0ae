import { faker } from "@faker-js/faker/locale/en";

/** Dates are around this date-time, whatever the clock. */
const referenceDate = new Date("2026-05-01T08:00:00.000Z");

let state = 0;

/** A generator that is cheap to create: every response needs a new one (mulberry32). */
const numbers = {
  next: (): number => {
    state = (state + 0x6d2b79f5) | 0;
    let mixed = Math.imul(state ^ (state >>> 15), 1 | state);
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed;
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4_294_967_296;
  },
  seed: (seed: number | readonly number[]): void => {
    state = typeof seed === "number" ? seed | 0 : (seed[0] ?? 0) | 0;
  },
};

export type Fake = typeof faker;

const own: Fake = new (
  faker.constructor as new (options: { locale: Fake["rawDefinitions"]; randomizer: typeof numbers }) => Fake
)({ locale: faker.rawDefinitions, randomizer: numbers });
own.setDefaultRefDate(referenceDate);

/** Returns the fake-data library with a seed from the given parts: the same parts give the same data. */
export function seededFaker(...parts: readonly unknown[]): Fake {
  numbers.seed(hashOf(JSON.stringify(parts)));
  return own;
}

/** 32 bits of a text (FNV-1a), with the last ones mixed well, so that texts with the same end start differently. */
function hashOf(text: string): number {
  let hash = 0x811c9dc5;
  for (let at = 0; at < text.length; at++) hash = Math.imul(hash ^ text.charCodeAt(at), 0x01000193);
  hash = Math.imul(hash ^ (hash >>> 16), 0x85ebca6b);
  hash = Math.imul(hash ^ (hash >>> 13), 0xc2b2ae35);
  return hash ^ (hash >>> 16);
}
