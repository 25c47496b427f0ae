"use client";

import { useEffect, useRef, useState, useSyncExternalStore } from "react";
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
  type Make,
  type Shown,
  type ShownPages,
  type StreamOptions,
} from "./live.js";

/** The response of a call while the component is mounted. Nothing is requested while the call is undefined. */
export function useAnswer<Answer, Failure extends Error>(
  described: DescribedRead<Answer, Failure> | undefined,
  options?: AnswerOptions<Kept<Answer>>,
): Shown<Kept<Answer>, Failure> {
  return useLive(described, answerOf<Answer, Failure>, options?.first);
}

/** The pages of a call, from the first one on. */
export function usePages<Page, Place, Failure extends Error>(
  described: DescribedPages<Page, Place, Failure> | undefined,
): ShownPages<Page, Failure> {
  return useLive(described, (described) => pagesOf(described));
}

/** The items of a stream or a subscription: the latest one, or the result of `gather`. */
export function useStream<Item, Failure extends Error, Answer = Item>(
  described: DescribedStream<Item, Failure> | undefined,
  options?: StreamOptions<Item, Answer>,
): Shown<Answer, Failure> {
  return useLive(described, (described) => streamOf(described, options));
}

/** A call that changes something, and its outcome. */
export function useChange<Args, Answer, Failure extends Error>(
  described: DescribedChange<Args, Answer, Failure>,
  options?: ChangeOptions<Args>,
): Change<Args, Kept<Answer>, Failure> {
  const newest = useRef({ described, options });
  useEffect(() => {
    newest.current = { described, options };
  });
  const [live] = useState(() => changeOf(() => newest.current));
  return useSyncExternalStore(live.listen, live.now, live.now);
}

function useLive<View, Described extends { readonly queryKey: DescribedKey } | undefined, First = undefined>(
  described: Described,
  make: Make<View, Described, First>,
  first?: First,
): View {
  const [before, hold] = useState(() => heldFor(undefined, described, make, first));
  const held = heldFor(before, described, make, first);
  if (held !== before) hold(held);
  const { live } = held;
  useEffect(() => {
    live.renew(described);
  });
  return useSyncExternalStore(live.listen, live.now, live.now);
}
