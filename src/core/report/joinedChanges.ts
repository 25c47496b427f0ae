import { listed } from "../text/listed.js";
import type { Hit, JudgedChange } from "../change/judge/judgedChange.js";

/** Changes with one cause, as one entry in reports. */
export interface JoinedChange extends JudgedChange {
  /** The changes in the entry. */
  readonly parts: readonly JudgedChange[];
  /** How they differ, item by item; empty for a single change. */
  readonly items: readonly string[];
  readonly differ?: Joining["differ"];
}

const fewItems = 4;

/**
 * Joins similar changes with the same verdict and use: of several values of one subject, of several operations, of
 * fields with one name in several types, or of several fields of one type. The order stays: an entry is at the place of
 * its first change.
 */
export function joinedChanges(changes: readonly JudgedChange[]): JoinedChange[] {
  return [bySubject, byOperation, byField, byType].reduce(joinedBy, changes.map(single));
}

function single(change: JudgedChange): JoinedChange {
  return { ...change, parts: [change], items: [] };
}

/** The changes that are joined, and the sentence for all of them; undefined if there is none. */
interface Joining {
  readonly differ: "values" | "operations" | "types" | "fields";
  /** Fewer changes stay separate. */
  readonly fewest: number;
  readonly keyOf: (change: JoinedChange) => string | undefined;
  readonly said: (changes: readonly JoinedChange[]) => { message: string; items: readonly string[] } | undefined;
}

function joinedBy(changes: readonly JoinedChange[], { differ, fewest, keyOf, said }: Joining): JoinedChange[] {
  const groups = new Map<unknown, JoinedChange[]>();
  for (const change of changes) {
    const own = keyOf(change);
    const { code, face, verdict, use, accepted, leveled, sdks } = change;
    const levels = sdks?.map((each) => [each.sdk, each.code, each.use]);
    const key = own === undefined ? change : JSON.stringify([code, face, verdict, use, accepted, leveled, levels, own]);
    const known = groups.get(key);
    if (known) known.push(change);
    else groups.set(key, [change]);
  }
  return [...groups.values()].flatMap((group) => {
    const whole = group.length >= fewest ? said(group) : undefined;
    return whole ? [{ ...together(group, whole), differ }] : group;
  });
}

function together(
  group: readonly JoinedChange[],
  { message, items }: { readonly message: string; readonly items: readonly string[] },
): JoinedChange {
  const [first] = group as readonly [JoinedChange, ...JoinedChange[]];
  const errors = group.flatMap((each) => each.errors ?? []);
  return {
    ...first,
    message,
    items,
    parts: group.flatMap(({ parts }) => parts),
    operations: [...new Set(group.flatMap(({ operations }) => operations))],
    coordinates: [...new Set(group.flatMap(({ coordinates }) => coordinates))],
    hits: distinctHits(group.flatMap(({ hits }) => hits)),
    ...(errors.length > 0 ? { errors } : {}),
  };
}

function distinctHits(hits: readonly Hit[]): Hit[] {
  return [...new Map(hits.map((hit) => [JSON.stringify([hit.place, hit.owner]), hit])).values()];
}

/** Values, members and headers of one subject, whose sentences differ in one part. */
const bySubject: Joining = {
  differ: "values",
  fewest: 2,
  keyOf: ({ subject, operations }) => JSON.stringify([subject.replace(/ header \S+$/, ""), operations]),
  said: (changes) => {
    const messages = changes.map(({ message }) => message);
    const [first = "", ...others] = messages;
    const common = others.reduce((length, other) => sharedStart(first, other, length), first.length);
    const start = first.lastIndexOf(" ", common - 1) + 1;
    const end = others.reduce((length, other) => sharedEnd(first, other, length), first.length - start);
    const tail = first.slice(first.length - end);
    const suffix = tail.includes(" ") ? tail.slice(tail.indexOf(" ")) : ".";
    const items = messages.map((message) => message.slice(start, message.length - suffix.length));
    const isSaid = start >= shortestSentence && messages.every((message) => message.endsWith(suffix));
    if (!isSaid || items.some((item) => item === "" || item.length > longestItem)) return undefined;
    return { message: `${first.slice(0, start)}${listed(items, fewItems)}${suffix}`, items };
  },
};

/** An operation's own changes, which others have too. */
const byOperation: Joining = {
  differ: "operations",
  fewest: 2,
  keyOf: ({ operations, message }) => {
    const [label, ...more] = operations;
    if (label === undefined || more.length > 0 || !message.includes(label)) return undefined;
    return message.replace(label, "");
  },
  said: (changes) => {
    const [first] = changes;
    const [label = ""] = first?.operations ?? [];
    const count = `${String(changes.length)} operations`;
    const at = first?.message.indexOf(label) ?? -1;
    if (!first || at < 0) return undefined;
    const before = first.message.slice(0, at).replace(/`$/, "");
    const rest = first.message.slice(at + label.length);
    // A parameter comes after its operation: "`GET /berths quay` is now required."
    const [, inside, after = ""] = /^ ([^`]+)`(.*)$/s.exec(rest) ?? [];
    const isQuoted = inside !== undefined && first.message.charAt(at - 1) === "`";
    return {
      message: isQuoted
        ? `${before}\`${inside}\` of ${count}${after}`
        : `${before}${count}${before === "" ? plural(rest.replace(/^`/, "")) : rest.replace(/^`/, "")}`,
      items: changes.flatMap(({ operations }) => operations),
    };
  },
};

/** Fields with one name, with the same change in several types. */
const byField: Joining = {
  differ: "types",
  fewest: 3,
  keyOf: ({ subject, message, items }) => {
    const [type, field] = typeAndField(subject);
    const quoted = `\`${subject}\``;
    return type === "" || items.length > 0 || !message.includes(quoted)
      ? undefined
      : `${field} ${message.replace(quoted, "")}`;
  },
  said: (changes) => {
    const [first] = changes;
    if (!first) return undefined;
    const [, field] = typeAndField(first.subject);
    return {
      message: first.message.replace(`\`${first.subject}\``, `\`${field}\` of ${String(changes.length)} types`),
      items: changes.map(({ subject }) => typeAndField(subject)[0]),
    };
  },
};

/** Fields of one type with the same change. Those in use stay separate. */
const byType: Joining = {
  differ: "fields",
  fewest: 3,
  keyOf: ({ subject, message, items, use }) => {
    const [type] = typeAndField(subject);
    const start = `\`${subject}\` `;
    const isPlain = message.startsWith(start) && !/ (is|was|it) .* (is|was|it) /.test(message);
    return type === "" || items.length > 0 || use === "used" || !isPlain
      ? undefined
      : `${type} ${message.slice(start.length)}`;
  },
  said: (changes) => {
    const [first] = changes;
    if (!first) return undefined;
    const fields = changes.map(({ subject }) => typeAndField(subject)[1]);
    const rest = first.message.slice(first.subject.length + 2);
    const quoted = fields.map((field) => `\`${field}\``);
    return {
      message: `In \`${typeAndField(first.subject)[0]}\`, ${listed(quoted, fewItems)}${plural(rest)}`,
      items: fields,
    };
  },
};

/** "harbour.Berth.note" is the field "note" of "harbour.Berth". Arguments and parameters are not fields. */
function typeAndField(subject: string): [string, string] {
  const at = subject.lastIndexOf(".");
  return at <= 0 || /[ ([]/.test(subject) ? ["", subject] : [subject.slice(0, at), subject.slice(at + 1)];
}

const shortestSentence = 6;
const longestItem = 60;

/** The verbs after an operation in a sentence, with their plural. */
const verbs: Readonly<Record<string, string>> = {
  is: "are",
  was: "were",
  has: "have",
  accepts: "accept",
  returns: "return",
  succeeds: "succeed",
  declares: "declare",
  describes: "describe",
  requires: "require",
  sends: "send",
};

function plural(rest: string): string {
  return rest.replace(/^( no longer| now)? (\w+)/, (whole, adverb: string | undefined, verb: string) =>
    Object.hasOwn(verbs, verb) ? `${adverb ?? ""} ${verbs[verb] ?? verb}` : whole,
  );
}

function sharedStart(a: string, b: string, most: number): number {
  let length = 0;
  while (length < most && length < b.length && a[length] === b[length]) length += 1;
  return length;
}

function sharedEnd(a: string, b: string, most: number): number {
  let length = 0;
  while (length < most && length < b.length && a[a.length - 1 - length] === b[b.length - 1 - length]) length += 1;
  return length;
}
