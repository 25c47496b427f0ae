import type {
  DescribedChange,
  DescribedKey,
  DescribedPages,
  DescribedRead,
  DescribedStream,
  Kept,
} from "../wire/described.js";

/** The state that a screen shows of a call that reads. */
export type Shown<Answer, Failure extends Error> = Looking<Answer> &
  (
    | { readonly state: "loading"; readonly answer?: undefined; readonly failure?: undefined }
    | { readonly state: "failed"; readonly answer?: undefined; readonly failure: Failure }
    /** With the failure of the latest request, if it failed. */
    | { readonly state: "ready"; readonly answer: Answer; readonly failure?: Failure | undefined }
  );

interface Looking<Answer> {
  /** Whether a response is pending; for a stream, whether it is open. */
  readonly asking: boolean;
  /** Requests it again. The current response stays until the new one arrives. */
  readonly again: () => void;
  /** Shows the response with the expected result of a change. */
  readonly predict: (edit: (answer: Answer) => Answer) => Prediction;
}

/** An edit of a response that is shown before the server has made the change. */
export interface Prediction {
  /** The server has made the change. The edit ends with the response of a later request. */
  readonly keep: () => void;
  /** The server has not made the change. The edit ends at once. */
  readonly takeBack: () => void;
}

/** The state that a screen shows of the pages of a call. */
export type ShownPages<Page, Failure extends Error> = Shown<readonly Page[], Failure> & {
  readonly hasMore: boolean;
  /** Requests the next page, unless a request is pending. */
  readonly more: () => void;
};

/** The outcome of a change. */
export type Sent<Answer, Failure extends Error> =
  | { readonly state: "done"; readonly answer: Answer; readonly failure?: undefined }
  | { readonly state: "failed"; readonly answer?: undefined; readonly failure: Failure };

/** The state that a screen shows of a call that changes something. */
export type Change<Args, Answer, Failure extends Error> = {
  /** Sends it. Never throws. */
  readonly send: (args: Args) => Promise<Sent<Answer, Failure>>;
} & (
  | Sent<Answer, Failure>
  | { readonly state: "unsent" | "sending"; readonly answer?: undefined; readonly failure?: undefined }
);

export interface AnswerOptions<Answer> {
  /**
   * A response that the app already has, for example from a server that renders. Nothing is requested until `again`.
   */
  readonly first?: Answer | undefined;
}

export interface StreamOptions<Item, Answer> {
  /** Combines the current value with the next item. Default: the latest item. */
  readonly gather?: ((before: Answer | undefined, item: Item) => Answer) | undefined;
}

export interface ChangeOptions<Args> {
  /** Predictions that are shown while the change is sent. They are taken back when it fails. */
  readonly predict?: ((args: Args) => Prediction | readonly Prediction[]) | undefined;
}

/** The current state, and the listeners that are called when it changes. */
export interface Live<View, Described = unknown> {
  /** Starts the request with the first listener, and cancels it a moment after the last one has gone. */
  readonly listen: (changed: () => void) => () => void;
  readonly now: () => View;
  /** Uses another description of the same call for further requests. */
  readonly renew: (described: Described) => void;
}

/** The current state of a call, and the key it belongs to. */
export interface Held<View, Described> {
  readonly key: string;
  /** The response that the app had for the first call. */
  readonly first: unknown;
  readonly live: Live<View, Described>;
}

/**
 * Creates the state of a call.
 *
 * @param first a response that the app already has
 */
export type Make<View, Described, First> = (described: Described, first: First | undefined) => Live<View, Described>;

/**
 * The existing state if the call is the same, otherwise the state of the new call. A response that the app had for one
 * call is not used for the next.
 */
export function heldFor<View, Described extends { readonly queryKey: DescribedKey } | undefined, First = undefined>(
  old: Held<View, Described> | undefined,
  described: Described,
  make: Make<View, Described, First>,
  first?: First,
): Held<View, Described> {
  const key = described ? JSON.stringify(described.queryKey) : "";
  if (old?.key === key) return old;
  const isUsed = old !== undefined && old.first === first;
  return { key, first: described ? first : old?.first, live: make(described, isUsed ? undefined : first) };
}

interface Given<Answer> {
  readonly is: Answer;
}

/** Requests a value. Results before the last one are passed on. */
type Ask<Answer> = (signal: AbortSignal, show: (answer: Answer) => void) => Promise<Given<Answer> | undefined>;

/** The response of a call. Nothing is requested while it is undefined. */
export function answerOf<Answer, Failure extends Error>(
  described: DescribedRead<Answer, Failure> | undefined,
  first?: Kept<Answer>,
): Live<Shown<Kept<Answer>, Failure>, DescribedRead<Answer, Failure> | undefined> {
  let current = described;
  const ask: Ask<Kept<Answer>> = async (signal) => current && { is: await current.queryFn({ signal }) };
  const asked = asking<Kept<Answer>, Failure>(described && ask, first);
  return { ...asked, now: asked.shown, renew: (described) => (current = described) };
}

/** The pages of a call, as many as the app requests. */
export function pagesOf<Page, Place, Failure extends Error>(
  described: DescribedPages<Page, Place, Failure> | undefined,
): Live<ShownPages<Page, Failure>, DescribedPages<Page, Place, Failure> | undefined> {
  let current = described;
  let pages: readonly Page[] = [];
  let places: readonly Place[] = [];
  let next: { readonly place: Place } | undefined;
  /** Continues after the existing pages until there are as many as requested. */
  const ask =
    (before: readonly Page[], placesBefore: readonly Place[], wanted: number): Ask<readonly Page[]> =>
    async (signal) => {
      if (!current) return undefined;
      const { queryFn, initialPageParam, getNextPageParam } = current;
      let [read, at, going] = [before, placesBefore, before.length === 0 ? { place: initialPageParam } : next];
      while (going && read.length < wanted) {
        const { place } = going;
        const page = await queryFn({ pageParam: place, signal });
        [read, at] = [
          [...read, page],
          [...at, place],
        ];
        const following = getNextPageParam(page, read, place, at);
        going = following === undefined ? undefined : { place: following };
      }
      if (!signal.aborted) [pages, places, next] = [read, at, going];
      return { is: read };
    };
  const asked = asking<readonly Page[], Failure>(described && ((...given) => ask([], [], pages.length || 1)(...given)));
  const more = (): void => {
    if (next && !asked.shown().asking) asked.begin(ask(pages, places, pages.length + 1));
  };
  let seen: Shown<readonly Page[], Failure> | undefined;
  let view: ShownPages<Page, Failure>;
  return {
    ...asked,
    now: () => {
      const shown = asked.shown();
      if (shown !== seen) view = { ...(seen = shown), hasMore: next !== undefined, more };
      return view;
    },
    renew: (described) => (current = described),
  };
}

/** The items of a stream. */
export function streamOf<Item, Failure extends Error, Answer = Item>(
  described: DescribedStream<Item, Failure> | undefined,
  { gather }: StreamOptions<Item, Answer> = {},
): Live<Shown<Answer, Failure>, DescribedStream<Item, Failure> | undefined> {
  let current = described;
  const ask: Ask<Answer> = async (signal, show) => {
    let before: Answer | undefined;
    for await (const item of current?.follow({ signal }) ?? []) {
      before = gather ? gather(before, item) : (item as unknown as Answer);
      show(before);
    }
    return undefined;
  };
  const asked = asking<Answer, Failure>(described && ask);
  return { ...asked, now: asked.shown, renew: (described) => (current = described) };
}

/** The value to send, as the app has it at that time. */
interface ChangeSource<Args, Answer, Failure extends Error> {
  readonly described: DescribedChange<Args, Answer, Failure>;
  readonly options: ChangeOptions<Args> | undefined;
}

/** A change that can be sent repeatedly. The state is that of the last one. */
export function changeOf<Args, Answer, Failure extends Error>(
  newest: () => ChangeSource<Args, Answer, Failure>,
): Pick<Live<Change<Args, Kept<Answer>, Failure>>, "listen" | "now"> {
  type Own = Change<Args, Kept<Answer>, Failure>;
  const { listen, tell } = listeners();
  let last: Promise<unknown> | undefined;
  const set = (next: Own): void => {
    view = next;
    tell();
  };
  const send: Own["send"] = async (args) => {
    const { described, options } = newest();
    const predictions = [options?.predict?.(args) ?? []].flat() as readonly Prediction[];
    const sending = described.mutationFn(args);
    last = sending;
    set({ state: "sending", send });
    const sent: Sent<Kept<Answer>, Failure> = await sending.then(
      (answer) => ({ state: "done", answer }),
      (failure: unknown) => ({ state: "failed", failure: failure as Failure }),
    );
    for (const prediction of predictions) prediction[sent.state === "done" ? "keep" : "takeBack"]();
    if (last === sending) set({ ...sent, send });
    return sent;
  };
  let view: Own = { state: "unsent", send };
  return { listen: (changed) => listen(changed), now: () => view };
}

/**
 * The listeners.
 *
 * @param begin called with the first listener
 * @param end called after the last one has gone
 */
function listeners(begin?: () => void, end?: () => void) {
  const all = new Set<() => void>();
  let ending: ReturnType<typeof setTimeout> | undefined;
  return {
    listen: (changed: () => void): (() => void) => {
      clearTimeout(ending);
      if (all.size === 0) begin?.();
      all.add(changed);
      return () => {
        // A listener that is removed and added again at once has not gone: frameworks do this to find errors.
        if (all.delete(changed) && all.size === 0 && end) ending = setTimeout(end);
      };
    },
    tell: (): void => {
      for (const changed of all) changed();
    },
  };
}

function shownAs<Answer, Failure extends Error>(
  always: Looking<Answer>,
  answer: Given<Answer> | undefined,
  failure: Failure | undefined,
): Shown<Answer, Failure> {
  if (answer) return { ...always, state: "ready", answer: answer.is, failure };
  return failure ? { ...always, state: "failed", failure } : { ...always, state: "loading" };
}

/**
 * Requests a value while somebody listens.
 *
 * @param first a response that is already there
 */
function asking<Answer, Failure extends Error>(ask: Ask<Answer> | undefined, first?: Answer) {
  let answer: Given<Answer> | undefined = first === undefined ? undefined : { is: first };
  let failure: Failure | undefined;
  let edits: readonly { readonly edit: (answer: Answer) => Answer; keptAt?: number }[] = [];
  let asks = 0;
  let isAsking = ask !== undefined && answer === undefined;
  let isWanted = isAsking;
  let control: AbortController | undefined;
  let view: Shown<Answer, Failure> | undefined;

  const { listen, tell } = listeners(
    () => {
      if (isWanted && ask) begin(ask);
    },
    () => {
      control?.abort();
      control = undefined;
      isWanted = isAsking = ask !== undefined;
      change();
    },
  );
  const change = (): void => {
    view = undefined;
    tell();
  };
  const begin = (ask: Ask<Answer>): void => {
    control?.abort();
    const own = (control = new AbortController());
    const number = ++asks;
    const isNew = !isAsking || failure !== undefined;
    isWanted = false;
    isAsking = true;
    if (!answer) failure = undefined;
    const take = (given: Given<Answer> | undefined, failed?: Failure): void => {
      if (own !== control) return;
      if (given) {
        answer = given;
        edits = edits.filter(({ keptAt = number }) => keptAt >= number);
      }
      failure = failed;
      change();
    };
    const end = (given: Given<Answer> | undefined, failed?: Failure): void => {
      if (own === control) isAsking = false;
      take(given, failed);
      if (own === control) control = undefined;
    };
    ask(own.signal, (is) => {
      take({ is });
    }).then(end, (failed: unknown) => {
      end(undefined, failed as Failure);
    });
    if (isNew) change();
  };
  const again = (): void => {
    if (ask) begin(ask);
  };
  const predict: Looking<Answer>["predict"] = (edit) => {
    const own: (typeof edits)[number] = { edit };
    edits = [...edits, own];
    change();
    return {
      keep: () => {
        own.keptAt = asks;
      },
      takeBack: () => {
        edits = edits.filter((each) => each !== own);
        change();
      },
    };
  };
  const shown = (): Shown<Answer, Failure> => {
    const edited = answer && { is: edits.reduce<Answer>((before, { edit }) => edit(before), answer.is) };
    return (view ??= shownAs({ asking: isAsking, again, predict }, edited, failure));
  };
  return { listen, begin, shown };
}
