import { computed, shallowRef, toValue, watch, type ComputedRef, type MaybeRefOrGetter, type ShallowRef } from "vue";
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

/** The response of a call while the component is mounted. Nothing is requested while the call is undefined. */
export function useAnswer<Answer, Failure extends Error>(
  described: MaybeRefOrGetter<DescribedRead<Answer, Failure> | undefined>,
  options?: AnswerOptions<Kept<Answer>>,
): ComputedRef<Shown<Kept<Answer>, Failure>> {
  return useLive(described, answerOf<Answer, Failure>, options?.first);
}

/** The pages of a call, from the first one on. */
export function usePages<Page, Place, Failure extends Error>(
  described: MaybeRefOrGetter<DescribedPages<Page, Place, Failure> | undefined>,
): ComputedRef<ShownPages<Page, Failure>> {
  return useLive(described, (described) => pagesOf(described));
}

/** The items of a stream or a subscription: the latest one, or the result of `gather`. */
export function useStream<Item, Failure extends Error, Answer = Item>(
  described: MaybeRefOrGetter<DescribedStream<Item, Failure> | undefined>,
  options?: StreamOptions<Item, Answer>,
): ComputedRef<Shown<Answer, Failure>> {
  return useLive(described, (described) => streamOf(described, options));
}

/** A call that changes something, and its outcome. */
export function useChange<Args, Answer, Failure extends Error>(
  described: MaybeRefOrGetter<DescribedChange<Args, Answer, Failure>>,
  options?: ChangeOptions<Args>,
): Readonly<ShallowRef<Change<Args, Kept<Answer>, Failure>>> {
  const live = changeOf(() => ({ described: toValue(described), options }));
  const shown = shallowRef(live.now());
  live.listen(() => {
    shown.value = live.now();
  });
  return shown;
}

function useLive<View, Described extends { readonly queryKey: DescribedKey } | undefined, First = undefined>(
  described: MaybeRefOrGetter<Described>,
  make: Make<View, Described, First>,
  first?: First,
): ComputedRef<View> {
  const held = computed<Held<View, Described>>((old) => {
    const now = toValue(described);
    const held = heldFor(old, now, make, first);
    held.live.renew(now);
    return held;
  });
  const changes = shallowRef(0);
  // A server that renders sends no requests here.
  if ("document" in globalThis)
    watch(
      held,
      ({ live }, _, onCleanup) => {
        onCleanup(
          live.listen(() => {
            changes.value++;
          }),
        );
      },
      { immediate: true },
    );
  return computed(() => {
    toValue(changes);
    return held.value.live.now();
  });
}
