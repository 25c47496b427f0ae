import { createSubscriber } from "svelte/reactivity";
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

/** The current state. When it is read in a template, an effect or a derived value, a change updates that reader. */
export interface Current<View> {
  readonly current: View;
}

/** The response of a call while something shows it. Nothing is requested while the call is undefined. */
export function liveAnswer<Answer, Failure extends Error>(
  described: () => DescribedRead<Answer, Failure> | undefined,
  options?: AnswerOptions<Kept<Answer>>,
): Current<Shown<Kept<Answer>, Failure>> {
  return currentOf(described, answerOf<Answer, Failure>, options?.first);
}

/** The pages of a call, from the first one on. */
export function livePages<Page, Place, Failure extends Error>(
  described: () => DescribedPages<Page, Place, Failure> | undefined,
): Current<ShownPages<Page, Failure>> {
  return currentOf(described, (described) => pagesOf(described));
}

/** The items of a stream or a subscription: the latest one, or the result of `gather`. */
export function liveStream<Item, Failure extends Error, Answer = Item>(
  described: () => DescribedStream<Item, Failure> | undefined,
  options?: StreamOptions<Item, Answer>,
): Current<Shown<Answer, Failure>> {
  return currentOf(described, (described) => streamOf(described, options));
}

/** A call that changes something, and its outcome. */
export function liveChange<Args, Answer, Failure extends Error>(
  described: () => DescribedChange<Args, Answer, Failure>,
  options?: ChangeOptions<Args>,
): Current<Change<Args, Kept<Answer>, Failure>> {
  const { listen, now } = changeOf(() => ({ described: described(), options }));
  const read = createSubscriber(listen);
  return {
    get current() {
      read();
      return now();
    },
  };
}

function currentOf<View, Described extends { readonly queryKey: DescribedKey } | undefined, First = undefined>(
  described: () => Described,
  make: Make<View, Described, First>,
  first?: First,
): Current<View> {
  let held: Held<View, Described> | undefined;
  let read: (() => void) | undefined;
  return {
    get current() {
      const now = described();
      const before = held;
      held = heldFor(before, now, make, first);
      const { live } = held;
      live.renew(now);
      if (held !== before || !read) read = createSubscriber(live.listen);
      read();
      return live.now();
    },
  };
}
