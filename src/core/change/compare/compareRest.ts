import { connectionCoordinate, printCoordinate, type Coordinate } from "../../use/coordinate.js";
import {
  isStream,
  operationLabel,
  type Field,
  type Reference,
  type RestContract,
  type RestOperation,
} from "../../contract/model.js";
import { namedTypes } from "../../contract/reachedTypes.js";
import { connectionPlan } from "../../sdk/lower/connectionPlan.js";
import { planRest } from "../../sdk/planRest.js";
import type {
  PlannedArgument,
  PlannedResponse,
  PlannedSent,
  PlannedType,
  RestCall,
  RestPlan,
} from "../../sdk/sdkPlan.js";
import type { Change } from "../change.js";
import { bodyWays } from "./bodyWays.js";
import { applyRules, type ChangeContext } from "../changeContext.js";
import { ShapeWalk, type NamedPairs } from "./compareReferences.js";
import { deepSignature } from "./deepSignature.js";
import { namesAlike } from "./mayBeRenamed.js";
import { isToldToBreak, otherSpellings, spelledPlan } from "./compareSpellings.js";
import { pairOperations } from "./pairOperations.js";
import { partsShared } from "./partsShared.js";
import type { Asked, PointKind, Points } from "./points.js";
import { renamedTo } from "./renamedTo.js";
import type { ContractNames } from "../../sdk/contractNames.js";
import { operationNames, type OperationNames } from "../judge/operationNames.js";
import type { SdkFacts } from "../sdkFacts.js";
import { usersOfTypes } from "../judge/usersOfTypes.js";

/**
 * Returns every difference between two versions of a REST contract, as the SDKs made from them see it. Both are
 * planned, and the plans are compared call by call, each named type once for each direction.
 *
 * @param facts the facts of the SDK's language and settings
 */
export function compareRest(before: RestContract, after: RestContract, facts: SdkFacts): Change[] {
  const plans = { before: planRest(before, facts.rest), after: planRest(after, facts.rest) };
  return new RestComparison(before, after, plans.before, plans.after, facts).changes;
}

/** The calls of an operation: for the whole response, and as a stream. */
interface CallsOfOperation {
  readonly whole: RestCall;
  readonly stream?: RestCall;
}

interface CallPair {
  readonly before: RestCall;
  readonly after: RestCall;
  readonly label: string;
}

class RestComparison {
  readonly changes: Change[] = [];
  private readonly named = new Map<string, { before: string; after: string; face: "ask" | "answer" }>();
  private readonly users: Record<"ask" | "answer", (key: string) => readonly string[]>;
  private readonly names: Record<"before" | "after", ContractNames>;
  private readonly left: ReadonlyMap<string, CallsOfOperation>;
  private readonly operationNames = new Map<string, OperationNames>();
  private readonly callers = new WeakMap<readonly string[], readonly Coordinate[]>();

  constructor(
    private readonly from: RestContract,
    private readonly to: RestContract,
    private readonly before: RestPlan,
    private readonly after: RestPlan,
    private readonly facts: SdkFacts,
  ) {
    this.names = { before: facts.names(before), after: facts.names(after) };
    this.left = callsByLabel(before);
    this.users = {
      ask: usersOfTypes(before, "ask"),
      answer: usersOfTypes(before, "answer"),
    };
    this.compareCalls();
    this.compareSent();
    this.compareNamed();
    this.compareNames();
    if (facts.knowsTypesByName) this.compareSpellings();
    const contracts = { subject: "servers", face: "operation", coordinates: [connectionCoordinate] } as const;
    this.at("servers", { ...contracts, before: before.servers, after: after.servers, isOwn: false }, () => []);
    this.compareConnection();
  }

  private at<K extends PointKind>(kind: K, point: Points[K], operations: () => readonly string[]): void {
    const first = this.changes.length;
    applyRules(this.changes, kind, { point, facts: this.facts, operations });
    if (this.changes.length === first || !this.isReadWhole(kind, point)) return;
    for (const change of this.changes.splice(first)) {
      const isFatal = change.face === "answer" && change.verdict.apps === "breaking";
      this.changes.push(isFatal ? { ...change, callers: this.callersOf(change.operations) } : change);
    }
  }

  /** Whether the SDK reads the point in every response: it reads whole responses, or it converts the value. */
  private isReadWhole<K extends PointKind>(kind: K, point: Points[K]): boolean {
    const { facts } = this;
    if (facts.readsWhole) return true;
    const before = "before" in point ? point.before : undefined;
    if (kind === "value") return facts.decodes((before as Reference).shape);
    return kind === "field" && before !== undefined && facts.decodes((before as Field).type.shape);
  }

  /** The source names of the calls of some operations. */
  private callersOf(operations: readonly string[]): readonly Coordinate[] {
    const known = this.callers.get(operations);
    if (known) return known;
    const found = operations.flatMap((label) => {
      const call = this.left.get(label)?.whole;
      return call ? this.namesOf(call).calls : [];
    });
    this.callers.set(operations, found);
    return found;
  }

  private readonly onNamed: NamedPairs = (before, after, face) => {
    this.named.set(`${face} ${before} ${after}`, { before, after, face });
  };

  private context(operations: () => readonly string[]): ChangeContext {
    const { before, after, facts } = this;
    return {
      before: before.types,
      after: after.types,
      facts,
      isGraphql: false,
      signatures: {
        before: (reference) => deepSignature(reference, before.types, isInline),
        after: (reference) => deepSignature(reference, after.types, isInline),
      },
      at: (kind, point) => {
        this.at(kind, point, operations);
      },
    };
  }

  /** The source names of a planned type. */
  private typeNames(key: string): string[] {
    const name = this.before.types.get(key)?.name;
    return name === undefined ? [] : [this.facts.typeName(name)];
  }

  /** The source names of an operation of the old contract, for all its calls. */
  private namesOf(call: RestCall): OperationNames {
    const label = operationLabel(call.operation);
    const known = this.operationNames.get(label);
    if (known) return known;
    const { whole, stream } = this.left.get(label) ?? { whole: call };
    const names = operationNames([whole, ...(stream ? [stream] : [])], this.names.before);
    this.operationNames.set(label, names);
    return names;
  }

  /** The source names of one call. As a stream, an operation has other response and failure types. */
  private ownNamesOf(call: RestCall): OperationNames {
    return operationNames([call], this.names.before);
  }

  private walk(operations: () => readonly string[]): ShapeWalk {
    return new ShapeWalk(
      this.context(operations),
      this.onNamed,
      (key) => !isInline(key),
      (key) => this.typeNames(key),
    );
  }

  private compareCalls(): void {
    const { left } = this;
    const right = callsByLabel(this.after);
    const kept = (plan: RestPlan): RestOperation[] =>
      [...callsByLabel(plan).values()].map(({ whole }) => whole.operation);
    const likeness = {
      before: (operation: RestOperation) => likenessOf(left.get(operationLabel(operation))?.whole, this.before),
      after: (operation: RestOperation) => likenessOf(right.get(operationLabel(operation))?.whole, this.after),
    };
    const { pairs, gone, fresh } = pairOperations(kept(this.before), kept(this.after), likeness);
    for (const operation of gone) {
      const label = operationLabel(operation);
      const call = left.get(label)?.whole;
      const point = { ...this.operationPoint(label, call), coordinates: call ? this.namesOf(call).all : [] };
      this.at("operation", { ...point, before: call }, () => [label]);
    }
    for (const operation of fresh) {
      const label = operationLabel(operation);
      const point = { subject: label, face: "operation", coordinates: [], placeAfter: operation.place } as const;
      this.at("operation", { ...point, after: right.get(label)?.whole }, () => []);
    }
    for (const pair of pairs) {
      const label = operationLabel(pair.before);
      const before = left.get(label);
      const after = right.get(operationLabel(pair.after));
      if (before && after) this.compareCall({ before: before.whole, after: after.whole, label });
      if (before?.stream && after && !after.stream) {
        const calls = { before: before.stream, after: after.whole, label };
        this.at("stream", { ...this.answerPoint(calls, "stream"), before: before.stream.name }, () => [label]);
      }
      if (before?.stream && after?.stream)
        this.compareStatuses({ before: before.stream, after: after.stream, label: `${label} as a stream` }, () => [
          label,
        ]);
    }
  }

  private compareCall({ before, after, label }: CallPair): void {
    const operations = (): string[] => [label];
    const named = this.namesOf(before);
    const coordinates = named.calls;
    const point = {
      ...this.operationPoint(label, before),
      placeAfter: after.operation.place,
    };
    const names = before.name === after.name ? coordinates : named.all;
    this.at("operation", { ...point, before, after, coordinates: names }, operations);
    const { pages, allPages } = this.names.before.call(before);
    if (pages !== undefined) {
      const now = this.names.after.call(after).pages;
      this.at(
        "paging",
        { ...point, before: pages, after: now, coordinates: allPages.map((name) => printCoordinate(name)) },
        operations,
      );
    }
    const contracts = { before: this.from, after: this.to };
    this.at("auth", { ...point, before, after, contracts }, operations);
    const own = { before: before.operation.servers, after: after.operation.servers };
    if (own.before.length > 0 || own.after.length > 0) {
      // An operation without servers of its own uses those of the contract.
      const servers = {
        before: own.before.length > 0 ? own.before : this.from.servers,
        after: own.after.length > 0 ? own.after : this.to.servers,
      };
      this.at("servers", { ...point, ...servers, isOwn: true }, operations);
    }
    this.compareArguments({ before, after, label }, operations);
    this.compareBody({ before, after, label }, operations);
    this.compareStatuses({ before, after, label }, operations);
    this.compareHeaders({ before, after, label }, operations, this.ownNamesOf(before).calls);
  }

  private operationPoint(label: string, call: RestCall | undefined) {
    return {
      subject: label,
      face: "operation",
      placeBefore: call?.operation.place,
      coordinates: call ? this.namesOf(call).calls : [],
    } as const;
  }

  private compareArguments({ before, after, label }: CallPair, operations: () => readonly string[]): void {
    const left = before.arguments.flatMap((argument) => askedByName(argument, this.names.before));
    const right = after.arguments.flatMap((argument) => askedByName(argument, this.names.after));
    const gone = left.filter((each) => !right.some((other) => isSameParameter(each, other)));
    const fresh = right.filter((each) => !left.some((other) => isSameParameter(each, other)));
    const context = this.context(operations);
    const walk = this.walk(operations);
    const common = { owner: label, isGraphql: false, face: "ask" } as const;
    const pointOf = (each: Asked) => ({
      ...common,
      subject: `${label} ${each.name}`,
      coordinates: this.namesOf(before).argument(each.argument ?? each.name),
      word: each.argument ?? each.name,
    });
    const renamed = new Set<Asked>();
    for (const each of left) {
      const other = right.find((candidate) => isSameParameter(each, candidate));
      const successor = other
        ? undefined
        : successorOf(each, { before, after, label }, { gone, fresh, changeContext: context });
      if (successor) renamed.add(successor);
      const partner = other ?? successor;
      const point = { ...pointOf(each), placeBefore: each.place, placeAfter: partner?.place };
      context.at("parameter", { ...point, before: each, after: other, successor });
      if (!partner) continue;
      const isWritten = each.style !== "json";
      const asListOfOne = listOfOne(partner);
      walk.compare({
        ...point,
        before: each.type,
        after: partner.type,
        owner: point.coordinates,
        isWritten,
        asListOfOne,
      });
    }
    for (const each of fresh)
      if (!renamed.has(each))
        context.at("parameter", {
          ...pointOf(each),
          coordinates: this.namesOf(before).calls,
          after: each,
          placeAfter: each.place,
        });
  }

  private compareBody({ before, after, label }: CallPair, operations: () => readonly string[]): void {
    const left = before.arguments.find(({ source }) => source.kind === "body");
    const right = after.arguments.find(({ source }) => source.kind === "body");
    const from = before.operation.body;
    const to = after.operation.body;
    const context = this.context(operations);
    const point = {
      owner: label,
      face: "ask",
      subject: `${label} body`,
      coordinates: this.namesOf(before).argument("body"),
      placeBefore: from?.place,
      placeAfter: to?.place,
    } as const;
    if (from ?? to)
      context.at("body", {
        ...point,
        before: from,
        after: to,
        coordinates: from ? point.coordinates : this.namesOf(before).calls,
      });
    if (left?.source.kind !== "body" || right?.source.kind !== "body") return;
    const offered = right.source.body.contents.map(({ mediaType }) => mediaType);
    const ways = bodyWays(right);
    const isChosen = bodyWays(left).length > 1;
    for (const [at, { mediaType, type }] of bodyWays(left).entries()) {
      context.at("media", { ...point, usual: mediaType, offered, isChosen });
      // A media type that source chose and that was removed is a change. If it was the default one, it is compared with
      // the new default.
      const other = ways.find((way) => way.mediaType === mediaType) ?? (at === 0 ? ways[0] : undefined);
      if (other) this.walk(operations).compare({ ...point, before: type, after: other.type, owner: point.coordinates });
    }
  }

  private compareStatuses(pair: CallPair, operations: () => readonly string[]): void {
    const { before, after } = pair;
    this.compareSuccesses(pair, operations);
    for (const response of before.failures) {
      const other = after.failures.find(({ status }) => status === response.status);
      this.compareResponses("failure", response, other, pair, operations);
    }
    for (const response of after.failures)
      if (!before.failures.some(({ status }) => status === response.status))
        this.compareResponses("failure", undefined, response, pair, operations);
  }

  private compareSuccesses(pair: CallPair, operations: () => readonly string[]): void {
    const { before, after } = pair;
    const unmatched = after.answers.filter(({ status }) => !before.answers.some((each) => each.status === status));
    for (const response of before.answers) {
      const other = after.answers.find(({ status }) => status === response.status) ?? unmatched.shift();
      this.compareResponses("success", response, other, pair, operations);
    }
    for (const response of unmatched) this.compareResponses("success", undefined, response, pair, operations);
    // A choice of media types: the response in another one.
    for (const { mediaType, answers } of before.answerChoices.slice(1)) {
      const other = after.answerChoices.find((choice) => choice.mediaType === mediaType);
      const isOffered = other !== undefined || after.answers.some((answer) => answer.mediaType === mediaType);
      if (!isOffered) this.at("answerMedia", { ...this.answerPoint(pair, mediaType), before: mediaType }, operations);
      for (const response of answers) {
        const partner = other?.answers.find(({ status }) => status === response.status);
        if (partner?.type && response.type && response.mediaType === mediaType)
          this.compareTypes(response, partner, pair, operations);
      }
    }
  }

  private answerPoint({ before, after, label }: CallPair, what: string) {
    return {
      owner: label,
      face: "answer",
      subject: `${label} ${what}`,
      coordinates: this.ownNamesOf(before).calls,
      placeBefore: before.operation.place,
      placeAfter: after.operation.place,
    } as const;
  }

  private compareResponses(
    role: "success" | "failure",
    before: PlannedResponse | undefined,
    after: PlannedResponse | undefined,
    pair: CallPair,
    operations: () => readonly string[],
  ): void {
    const { label } = pair;
    const isSame =
      !before &&
      after?.type !== undefined &&
      pair.before.answers.some(
        ({ type }) =>
          type !== undefined &&
          after.type !== undefined &&
          deepSignature(type, this.before.types, isInline) === deepSignature(after.type, this.after.types, isInline),
      );
    const status = (before ?? after)?.status ?? "";
    const coordinates = role === "failure" ? this.ownNamesOf(pair.before).failures : this.ownNamesOf(pair.before).calls;
    const point = {
      owner: label,
      role,
      isStream: pair.before.answers.some(({ form }) => isStream(form)),
      face: "answer",
      subject: `${label} ${status}`,
      coordinates,
      placeBefore: responsePlace(pair.before, before),
      placeAfter: responsePlace(pair.after, after),
    } as const;
    const isMisread = !before && after !== undefined && role === "failure" && this.isMisread(after, pair.before);
    this.at("status", { ...point, before, after, isSame, isMisread }, operations);
    if (before && after) this.compareTypes(before, after, pair, operations);
  }

  /** Whether a new failure was covered by a range or by `default`, with another body. */
  private isMisread(failure: PlannedResponse, before: RestCall): boolean {
    const covers = [`${failure.status.charAt(0)}XX`, "default"];
    const covering = covers.flatMap((status) => before.failures.find((each) => each.status === status) ?? [])[0];
    if (!covering?.type) return false;
    const { type } = failure;
    return (
      type === undefined ||
      deepSignature(type, this.after.types, isInline) !== deepSignature(covering.type, this.before.types, isInline)
    );
  }

  private compareTypes(
    before: PlannedResponse,
    after: PlannedResponse,
    pair: CallPair,
    operations: () => readonly string[],
  ): void {
    if (!before.type || !after.type || before.form !== after.form) return;
    const coordinates = this.ownNamesOf(pair.before).calls;
    this.walk(operations).compare({
      before: before.type,
      after: after.type,
      face: "answer",
      subject: `${pair.label} ${before.status}`,
      placeBefore: responsePlace(pair.before, before),
      placeAfter: responsePlace(pair.after, after),
      coordinates,
      owner: coordinates,
    });
  }

  private compareHeaders(
    { before, after, label }: CallPair,
    operations: () => readonly string[],
    calls: readonly Coordinate[],
  ): void {
    const pointOf = (name: string) => ({ owner: label, face: "answer", subject: `${label} header ${name}` }) as const;
    for (const { name, field } of before.headers) {
      const other = after.headers.find((each) => each.name === name);
      const point = {
        ...pointOf(field.name),
        coordinates: this.ownNamesOf(before).header(name),
        word: name,
        placeBefore: field.place,
        placeAfter: other?.field.place,
      };
      this.at("header", { ...point, before: field, after: other?.field }, operations);
      if (other) this.walk(operations).compare({ ...point, before: field.type, after: other.field.type, owner: calls });
    }
    for (const { name, field } of after.headers)
      if (!before.headers.some((each) => each.name === name))
        this.at(
          "header",
          { ...pointOf(field.name), coordinates: [], after: field, placeAfter: field.place },
          operations,
        );
  }

  private compareSent(): void {
    const keyOf = ({ name, of }: PlannedSent): string => `${of ? operationLabel(of) : ""} ${name}`;
    const right = new Map(this.after.sent.map((each) => [keyOf(each), each]));
    const left = new Map(this.before.sent.map((each) => [keyOf(each), each]));
    const none = (): string[] => [];
    const pointOf = ({ request, name }: PlannedSent) =>
      ({ subject: request.name, face: "operation", coordinates: [printCoordinate(name)] }) as const;
    for (const [key, sent] of left) {
      const other = right.get(key);
      const places = { placeBefore: sent.request.operation.place, placeAfter: other?.request.operation.place };
      this.at("sent", { ...pointOf(sent), ...places, before: sent.request, after: other?.request }, none);
      if (!other) continue;
      const pair = { ...places, coordinates: [printCoordinate(sent.name)], owner: [printCoordinate(sent.name)] };
      if (sent.body && other.body)
        this.walk(none).compare({
          ...pair,
          face: "answer",
          subject: `${sent.request.name} body`,
          before: sent.body,
          after: other.body,
        });
      if (sent.reply && other.reply)
        this.walk(none).compare({
          ...pair,
          face: "ask",
          subject: `${sent.request.name} reply`,
          before: sent.reply,
          after: other.reply,
        });
    }
    for (const [key, sent] of right)
      if (!left.has(key))
        this.at("sent", { ...pointOf(sent), after: sent.request, placeAfter: sent.request.operation.place }, none);
  }

  /** The map grows during the loop: comparing one type finds the next. */
  private compareNamed(): void {
    for (const { before: left, after: right, face } of this.named.values()) {
      const type = this.before.types.get(left);
      const other = this.after.types.get(right);
      if (!type || !other) continue;
      const name = this.facts.typeName(type.name);
      const pair = {
        before: { shape: type.shape, nullable: false },
        after: { shape: other.shape, nullable: false },
        face,
        subject: ownName(this.from, left) ?? name,
        placeBefore: definedAt(this.from, left),
        placeAfter: definedAt(this.to, right),
        coordinates: [printCoordinate(name)],
        owner: [printCoordinate(name, "built")],
        isShared: type.face === "both",
      };
      this.walk(() => this.users[face](left)).compareNamed(pair, type.shape, other.shape);
    }
  }

  /** The names that source can import: those of the contract. Names that Rhema makes up are not promised. */
  private compareNames(): void {
    const names = (plan: RestPlan, inline = false) =>
      new Map([...plan.types.values()].filter(({ id }) => isInline(id) === inline).map((type) => [type.name, type]));
    const left = names(this.before);
    const right = names(this.after);
    const madeUp = names(this.after, true);
    for (const [name, { id }] of names(this.before, true)) {
      if (right.has(name) || madeUp.has(name)) continue;
      const coordinates = [printCoordinate(this.facts.typeName(name))];
      const point = { subject: name, face: "operation", coordinates, word: name, before: name } as const;
      this.at("name", { ...point, isMadeUp: true }, () => [
        ...new Set([...this.users.ask(id), ...this.users.answer(id)]),
      ]);
    }
    const successors = this.renamedNames(left, right);
    for (const [name, { id }] of left) {
      if (right.has(name)) continue;
      const point = {
        subject: name,
        face: "operation",
        coordinates: [printCoordinate(this.facts.typeName(name))],
        word: name,
      } as const;
      this.at(
        "name",
        { ...point, before: name, successor: successors.get(name), placeBefore: definedAt(this.from, id) },
        () => [...new Set([...this.users.ask(id), ...this.users.answer(id)])],
      );
    }
  }

  /** A change that breaks anyway is already reported. */
  private compareSpellings(): void {
    const before = spelledPlan(this.before, this.names.before);
    const after = spelledPlan(this.after, this.names.after);
    for (const { owner, operation, ...point } of otherSpellings(before, after, this.facts.memberName)) {
      if (isToldToBreak(point, this.changes)) continue;
      this.at("spelling", point, () => (owner === undefined ? [operation ?? ""] : this.users[point.face](owner)));
    }
  }

  /** The new names by the old ones: a removed type that was replaced by one other in all remaining places. */
  private renamedNames(left: ReadonlyMap<string, PlannedType>, right: ReadonlyMap<string, PlannedType>) {
    const candidates = new Map<string, Set<string>>();
    const origins = new Map<string, Set<string>>();
    for (const { before, after } of this.named.values()) {
      const from = this.before.types.get(before);
      const to = this.after.types.get(after);
      if (!from || !to || right.has(from.name) || this.to.types.has(before)) continue;
      candidates.set(from.name, (candidates.get(from.name) ?? new Set()).add(to.name));
      origins.set(to.name, (origins.get(to.name) ?? new Set()).add(from.name));
    }
    const found = new Map<string, string>();
    for (const [name, tos] of candidates) {
      const [only, ...others] = tos;
      if (only === undefined || others.length > 0 || left.has(only) || origins.get(only)?.size !== 1) continue;
      const [before, after] = [left.get(name), right.get(only)];
      if (before && after && isRenamed(before, after)) found.set(name, only);
    }
    return found;
  }

  /** The required options of the connection. */
  private compareConnection(): void {
    const known = new Set(this.before.standing.map(({ name }) => name));
    const none = (): string[] => [];
    for (const { name, type } of this.after.standing) {
      if (known.has(name)) continue;
      const isDemanded = this.after.calls.some((call) =>
        call.arguments.some(
          ({ source }) => source.kind === "parameter" && source.parameter.name === name && source.parameter.required,
        ),
      );
      const place = { document: "", offset: 0, length: 0 };
      const field = { name, type, required: isDemanded, isStanding: true, place };
      const point = { owner: "connection", subject: `connection ${name}`, face: "ask", isGraphql: false } as const;
      if (isDemanded) this.at("parameter", { ...point, coordinates: [connectionCoordinate], after: field }, none);
    }
    // Options with names of their own are in one option, which disappears with the last of them.
    const given = (name: string, option: string, left: number): Coordinate[] =>
      [name, ...(left === 0 ? [option] : [])].map((each) => this.names.before.connectionCoordinate(each));
    for (const [name, scheme] of this.before.authSchemes) {
      const point = {
        subject: `connection ${name}`,
        face: "operation",
        coordinates: given(name, "auth", this.after.authSchemes.size),
        word: name,
      } as const;
      this.at("scheme", { ...point, before: name, scheme, after: this.after.authSchemes.get(name) }, none);
    }
    const { ownServers } = connectionPlan(this.after);
    for (const url of connectionPlan(this.before).ownServers) {
      if (ownServers.includes(url)) continue;
      const coordinates = given(url, "servers", ownServers.length);
      const subject = `connection ${url}`;
      this.at("ownServer", { subject, face: "operation", coordinates, word: url, before: url }, none);
    }
  }
}

/** Whether one type replaced the other: most of its parts are the same, or its name shows it. */
function isRenamed(before: PlannedType, after: PlannedType): boolean {
  return (
    partsShared(before.shape, after.shape) ||
    (before.shape.kind === after.shape.kind && namesAlike(before.name, after.name))
  );
}

/** How a single value is read if a parameter is a list (OpenAPI 3.1, section 4.8.12.4). */
function listOfOne({ style, explode }: Asked): "whole" | "split" | undefined {
  if (style === "form" && explode === true) return "whole";
  return style === "json" || style === "deepObject" || style === undefined ? undefined : "split";
}

function isInline(key: string): boolean {
  return key.startsWith("inline ");
}

/** The contract's own name of a planned type. */
function ownName(contract: RestContract, id: string): string | undefined {
  return contract.types.get(id)?.name;
}

function definedAt(contract: RestContract, id: string) {
  return contract.types.get(id.replace(/ to send$| in JSON$/g, ""))?.place;
}

/** The calls of each operation: for the whole response, and item by item, if it has both. */
function callsByLabel(plan: RestPlan): Map<string, CallsOfOperation> {
  const found = new Map<string, CallsOfOperation>();
  const labels = new Map<string, RestCall[]>();
  for (const call of plan.calls) {
    const label = operationLabel(call.operation);
    labels.set(label, [...(labels.get(label) ?? []), call]);
  }
  for (const [label, [first, second]] of labels) {
    if (!first) continue;
    if (!second) found.set(label, { whole: first });
    // The stream comes after the whole response.
    else if (first.name.length > second.name.length) found.set(label, { whole: second, stream: first });
    else found.set(label, { whole: first, stream: second });
  }
  return found;
}

function asked(argument: PlannedArgument): Asked[] {
  const { source, type, standing } = argument;
  if (source.kind === "body") return [];
  const { parameter } = source;
  return [{ ...parameter, type, isStanding: standing }];
}

/** An argument with its source name. */
function askedByName(argument: PlannedArgument, names: ContractNames): Asked[] {
  return asked(argument).map((each) => ({ ...each, argument: names.argument(argument) }));
}

function isSameParameter(a: Asked, b: Asked): boolean {
  return a.in === b.in && (a.in === "header" ? a.name.toLowerCase() === b.name.toLowerCase() : a.name === b.name);
}

/** Path parameters correspond by position. Other parameters correspond by shape, if there is only one candidate. */
function successorOf(
  parameter: Asked,
  { before, after }: CallPair,
  {
    gone,
    fresh,
    changeContext: { signatures },
  }: { readonly gone: readonly Asked[]; readonly fresh: readonly Asked[]; readonly changeContext: ChangeContext },
): Asked | undefined {
  const moved = fresh.find((each) => each.name.toLowerCase() === parameter.name.toLowerCase());
  if (moved && parameter.in !== "path") return moved;
  if (parameter.in !== "path") {
    const here = (each: Asked): boolean => each.in === parameter.in;
    return renamedTo(parameter, { gone: gone.filter(here), fresh: fresh.filter(here), owner: "" }, signatures);
  }
  const names = (path: string): string[] => [...path.matchAll(/\{([^{}]+)\}/g)].map(([, name = ""]) => name);
  const name = names(after.operation.path)[names(before.operation.path).indexOf(parameter.name)];
  return fresh.find((each) => each.in === "path" && each.name === name);
}

function responsePlace(call: RestCall, response: PlannedResponse | undefined) {
  return response && call.operation.responses.find(({ status }) => status === response.status)?.place;
}

/**
 * A call's request and response, without its path, as a text. With it, an operation with another path and name is
 * recognised. Undefined if there is no shape of its own to compare.
 */
function likenessOf(call: RestCall | undefined, { types }: RestPlan): string | undefined {
  if (!call) return undefined;
  const answers = call.answers.flatMap(({ type }) => type ?? []);
  const bodies = call.arguments.flatMap(bodyWays).map(({ type }) => type);
  const isTelling = [...answers, ...bodies].some(({ shape }) => namedTypes([shape]).size > 0);
  if (!isTelling) return undefined;
  const text = (type: Reference): string => deepSignature(type, types, isInline);
  const parameters = call.arguments.flatMap(asked).map((each) => [
    each.in,
    // Names inside a path are rated separately.
    each.in === "path" ? "" : each.name,
    each.required,
    text(each.type),
  ]);
  return JSON.stringify([call.operation.method, parameters, bodies.map(text), answers.map(text)]);
}
