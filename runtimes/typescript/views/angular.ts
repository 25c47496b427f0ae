import { computed, effect, inject, PLATFORM_ID, signal, type Signal } from "@angular/core";
import { Observable } from "rxjs";
import type {
  DescribedChange,
  DescribedKey,
  DescribedPages,
  DescribedRead,
  DescribedStream,
  Kept,
} from "../wire/described.js";
import {
  answerOf,
  changeOf,
  heldFor,
  pagesOf,
  streamOf,
  type AnswerOptions,
  type Change,
  type ChangeOptions,
  type Held,
  type Live,
  type Make,
  type Shown,
  type ShownPages,
  type StreamOptions,
} from "./live.js";

/**
 * The response of a call as a signal, as long as its context exists. Use it where injection is possible. Nothing is
 * requested while the call is undefined.
 */
export function liveAnswer<Answer, Failure extends Error>(
  described: () => DescribedRead<Answer, Failure> | undefined,
  options?: AnswerOptions<Kept<Answer>>,
): Signal<Shown<Kept<Answer>, Failure>> {
  return signalOf(described, answerOf<Answer, Failure>, options?.first);
}

/** The pages of a call, from the first one on. */
export function livePages<Page, Place, Failure extends Error>(
  described: () => DescribedPages<Page, Place, Failure> | undefined,
): Signal<ShownPages<Page, Failure>> {
  return signalOf(described, (described) => pagesOf(described));
}

/** The items of a stream or a subscription: the latest one, or the result of `gather`. */
export function liveStream<Item, Failure extends Error, Answer = Item>(
  described: () => DescribedStream<Item, Failure> | undefined,
  options?: StreamOptions<Item, Answer>,
): Signal<Shown<Answer, Failure>> {
  return signalOf(described, (described) => streamOf(described, options));
}

/** A call that changes something, and its outcome. */
export function liveChange<Args, Answer, Failure extends Error>(
  described: () => DescribedChange<Args, Answer, Failure>,
  options?: ChangeOptions<Args>,
): Signal<Change<Args, Kept<Answer>, Failure>> {
  const live = changeOf(() => ({ described: described(), options }));
  const shown = signal(live.now());
  live.listen(() => {
    shown.set(live.now());
  });
  return shown.asReadonly();
}

/**
 * The response of a call as an observable. It sends the request on the first subscription and cancels it when nobody is
 * subscribed.
 */
export function answerStates<Answer, Failure extends Error>(
  described: DescribedRead<Answer, Failure>,
): Observable<Shown<Kept<Answer>, Failure>> {
  return observableOf(() => answerOf(described));
}

/** The pages of a call as an observable. */
export function pagesStates<Page, Place, Failure extends Error>(
  described: DescribedPages<Page, Place, Failure>,
): Observable<ShownPages<Page, Failure>> {
  return observableOf(() => pagesOf(described));
}

/** The items of a stream or a subscription as an observable. */
export function streamStates<Item, Failure extends Error, Answer = Item>(
  described: DescribedStream<Item, Failure>,
  options?: StreamOptions<Item, Answer>,
): Observable<Shown<Answer, Failure>> {
  return observableOf(() => streamOf(described, options));
}

function observableOf<View>(make: () => Pick<Live<View>, "listen" | "now">): Observable<View> {
  return new Observable((subscriber) => {
    const { listen, now } = make();
    const end = listen(() => {
      subscriber.next(now());
    });
    subscriber.next(now());
    return end;
  });
}

function signalOf<View, Described extends { readonly queryKey: DescribedKey } | undefined, First = undefined>(
  described: () => Described,
  make: Make<View, Described, First>,
  first?: First,
): Signal<View> {
  let old: Held<View, Described> | undefined;
  const held = computed(() => {
    const now = described();
    old = heldFor(old, now, make, first);
    old.live.renew(now);
    return old;
  });
  const changes = signal(0);
  // A server that renders sends no requests here.
  if (inject(PLATFORM_ID) !== "server")
    effect((onCleanup) => {
      onCleanup(
        held().live.listen(() => {
          changes.update((count) => count + 1);
        }),
      );
    });
  return computed(() => {
    changes();
    return held().live.now();
  });
}
