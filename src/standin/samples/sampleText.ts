import type { Constraints } from "../../core/contract/model.js";
import { words } from "../../core/text/words.js";
import { LimitedExpression } from "./limitedExpression.js";
import { mostCharacters } from "./sampleBudget.js";
import type { Fake } from "./seededFaker.js";

/**
 * Returns a string for a field's format, name and limits.
 *
 * @param name the name of the field
 */
export function sampleText(
  name: string,
  format: string | undefined,
  { constraints, fake }: { readonly constraints: Constraints; readonly fake: Fake },
): string {
  if (constraints.pattern !== undefined)
    return matching(constraints.pattern, fake) ?? fit(byName(name, fake), constraints, fake);
  return format === undefined
    ? fit(byName(name, fake), constraints, fake)
    : byFormat(format, name, { fake, constraints });
}

function byFormat(
  format: string,
  name: string,
  { fake, constraints }: { readonly fake: Fake; readonly constraints: Constraints },
): string {
  switch (format) {
    case "date":
      return sampleMoment(name, fake).slice(0, 10);
    case "date-time":
      return sampleMoment(name, fake).replace(/\.\d+Z$/, "Z");
    case "time": {
      // Starts are before noon, ends after it.
      const hour = (fake.date.soon().getUTCHours() % 12) + (isEnd(name) ? 12 : 0);
      return `${String(hour).padStart(2, "0")}${sampleMoment(name, fake).slice(13, 19)}Z`;
    }
    case "uuid":
      return fake.string.uuid();
    case "email":
      return `${fake.person.firstName().toLowerCase()}@example.test`;
    case "uri":
    case "url":
    case "uri-reference":
      return "https://example.test/";
    case "ipv4":
      return "192.0.2.7";
    case "ipv6":
      return "2001:db8::7";
    case "hostname":
      return "example.test";
    case "byte":
      return Buffer.from(fake.lorem.word()).toString("base64");
    case "duration":
      return "PT2H";
    case "id":
      return fake.string.alphanumeric({ length: 6, casing: "lower" });
    default:
      return fit(byName(name, fake), constraints, fake);
  }
}

const days = 30;
const millisecondsOfDay = 24 * 3600 * 1000;

/** A date-time in the coming month; in the month after it for an end, so that nothing ends before it starts. */
function sampleMoment(name: string, fake: Fake): string {
  const soon = fake.date.soon({ days }).getTime();
  return new Date(soon + (isEnd(name) ? days * millisecondsOfDay : 0)).toISOString();
}

/** Words in names of the later value of a pair: `validFrom` and `validUntil`, `createdAt` and `updatedAt`. */
const endWords = new Set(
  (
    "end ends ended ending to until till through close closes closed closing finish finishes finished complete completed " +
    "out update updated modified changed expire expires expired expiry expiration due deadline checkout last latest next"
  ).split(" "),
);

const arrivalOrDeparture = [/arriv/i, /depart/i] as const;

/**
 * Returns the name for which a field's sample is made. A stay begins with an arrival and a journey ends with one, so
 * the one of arrival and departure that is declared first comes first.
 *
 * @param siblings returns the fields of the same record
 */
export function sampledName(name: string, siblings: () => readonly { readonly name: string }[]): string {
  const [arrival, departure] = arrivalOrDeparture;
  const other = arrival.test(name) ? departure : departure.test(name) ? arrival : undefined;
  if (!other) return name;
  for (const sibling of siblings()) {
    if (sibling.name === name) return name;
    if (other.test(sibling.name)) return `${name} until`;
  }
  return name;
}

function isEnd(name: string): boolean {
  return words(name).some((word) => endWords.has(word.toLowerCase()));
}

function byName(name: string, fake: Fake): string {
  const lower = name.toLowerCase();
  if (/(^|_)id$|id$|key|code|token|cursor/.test(lower)) return fake.string.alphanumeric({ length: 6, casing: "lower" });
  if (lower.includes("email")) return `${fake.person.firstName().toLowerCase()}@example.test`;
  if (lower.includes("phone")) return `+00 ${fake.string.numeric(7)}`;
  if (/url|uri|link/.test(lower)) return "https://example.test/";
  if (lower.includes("country")) return fake.location.countryCode();
  if (/city|town|port$|place/.test(lower)) return fake.location.city();
  if (/name|title|author|skipper/.test(lower)) return fake.person.firstName();
  if (/note|text|remark|detail|message|description|reason|comment/.test(lower))
    return fake.lorem.sentence({ min: 3, max: 7 });
  return fake.lorem.word();
}

function fit(text: string, { minLength = 0, maxLength = Number.POSITIVE_INFINITY }: Constraints, fake: Fake): string {
  const cut = text.length > maxLength ? text.slice(0, maxLength).trimEnd() : text;
  const least = Math.min(minLength, mostCharacters);
  return cut.length < least ? cut + fake.string.alpha({ length: least - cut.length, casing: "lower" }) : cut;
}

const attempts = 5;
/** Patterns with more repetitions are not tried: their strings are too long. */
const mostRepeats = 1_000;

/** A string that matches a pattern; undefined if none is found. */
function matching(pattern: string, fake: Fake): string | undefined {
  try {
    const expression = new LimitedExpression(pattern, "u");
    const counts = [...pattern.matchAll(/\d+/g)].map(([count]) => Number(count));
    if (counts.some((count) => count > mostRepeats) || pattern.length > mostRepeats) return undefined;
    const simple = pattern
      .replace(/^\^|\$$/g, "")
      .replaceAll("\\d", "[0-9]")
      .replaceAll("\\w", "[a-z]")
      .replaceAll("\\.", "[.]");
    for (let attempt = 0; attempt < attempts; attempt++) {
      const text = fake.helpers.fromRegExp(simple);
      if (expression.test(text) === true) return text;
    }
  } catch {
    // For a pattern that is not a valid regular expression, the matching strings are unknown.
  }
  return undefined;
}
