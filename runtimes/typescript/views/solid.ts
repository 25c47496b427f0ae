import { createEffect, createMemo, createSignal, onCleanup, type Accessor } from "solid-js";
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
  type Make,
  type Shown,
  type ShownPages,
  type StreamOptions,
} from "./live.js";

/** The response of a call while its owner exists. Nothing is requested while the call is undefined. */
export function createAnswer<Answer, Failure extends Error>(
  described: () => DescribedRead<Answer, Failure> | undefined,
  options?: AnswerOptions<Kept<Answer>>,
): Accessor<Shown<Kept<Answer>, Failure>> {
  return createLive(described, answerOf<Answer, Failure>, options?.first);
}

/** The pages of a call, from the first one on. */
export function createPages<Page, Place, Failure extends Error>(
  described: () => DescribedPages<Page, Place, Failure> | undefined,
): Accessor<ShownPages<Page, Failure>> {
  return createLive(described, (described) => pagesOf(described));
}

/** The items of a stream or a subscription: the latest one, or the result of `gather`. */
export function createStream<Item, Failure extends Error, Answer = Item>(
  described: () => DescribedStream<Item, Failure> | undefined,
  options?: StreamOptions<Item, Answer>,
): Accessor<Shown<Answer, Failure>> {
  return createLive(described, (described) => streamOf(described, options));
}

/** A call that changes something, and its outcome. */
export function createChange<Args, Answer, Failure extends Error>(
  described: () => DescribedChange<Args, Answer, Failure>,
  options?: ChangeOptions<Args>,
): Accessor<Change<Args, Kept<Answer>, Failure>> {
  const { listen, now } = changeOf(() => ({ described: described(), options }));
  const [shown, show] = createSignal(now());
  listen(() => show(now));
  return shown;
}

function createLive<View, Described extends { readonly queryKey: DescribedKey } | undefined, First = undefined>(
  described: () => Described,
  make: Make<View, Described, First>,
  first?: First,
): Accessor<View> {
  const held = createMemo<Held<View, Described>>((old) => {
    const now = described();
    const held = heldFor(old, now, make, first);
    held.live.renew(now);
    return held;
  });
  const [changes, changed] = createSignal(0);
  createEffect(() => {
    onCleanup(held().live.listen(() => changed((count) => count + 1)));
  });
  return () => {
    changes();
    return held().live.now();
  };
}
