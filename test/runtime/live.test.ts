import { describe, expect, it } from "vitest";
import {
  answerOf,
  changeOf,
  heldFor,
  pagesOf,
  streamOf,
  type Live,
  type Prediction,
} from "../../runtimes/typescript/views/live.js";
import type { DescribedChange, DescribedRead, DescribedStream } from "../../runtimes/typescript/wire/described.js";
import { describedPages } from "../../runtimes/typescript/wire/describedPages.js";
import { connection } from "../../runtimes/typescript/wire/connection.js";

/** A call that gets its response when the test says so. */
class Answers<Answer> {
  readonly asked: {
    readonly signal: AbortSignal | undefined;
    give: (answer: Answer) => void;
    fail: (why: Error) => void;
  }[] = [];
  readonly ask = (signal?: AbortSignal): Promise<Answer> =>
    new Promise<Answer>((give, fail) => {
      this.asked.push({ signal, give, fail });
    });
  readonly read = (key = "listBerths"): DescribedRead<Answer, Error> => ({
    queryKey: ["berths", "", key, {}],
    queryFn: ({ signal }) => this.ask(signal) as Promise<never>,
  });
  signals(): unknown[] {
    return this.asked.map(({ signal }) => signal?.aborted);
  }
}

/** Listens, and records a line for each change. */
function followed<View>({ listen, now }: Pick<Live<View>, "listen" | "now">, line: (view: View) => string) {
  const lines = [line(now())];
  const end = listen(() => {
    lines.push(line(now()));
  });
  return { lines, end };
}

const told = ({
  state,
  answer,
  failure,
  asking,
}: {
  state: string;
  answer?: unknown;
  failure?: Error | undefined;
  asking?: boolean;
}): string =>
  [state, answer === undefined ? "" : JSON.stringify(answer), failure?.message ?? "", asking === true ? "…" : ""]
    .filter((part) => part !== "")
    .join(" ");

const moment = (): Promise<void> => new Promise((resolve) => setTimeout(resolve, 2));
const failing = new Error("the server is away");

describe("a shown response", () => {
  it("is requested with the first listener, once for all of them", async () => {
    const answers = new Answers<string>();
    const live = answerOf(answers.read());
    expect([told(live.now()), answers.asked.length]).toEqual(["loading …", 0]);
    const { lines } = followed(live, told);
    followed(live, told);
    answers.asked[0]?.give("N-07");
    await moment();
    expect([lines, answers.asked.length]).toEqual([["loading …", 'ready "N-07"'], 1]);
    expect(live.now()).toBe(live.now());
  });

  it("is cancelled a moment after the last listener, and requested again by the next one", async () => {
    const answers = new Answers<string>();
    const live = answerOf(answers.read());
    followed(live, told).end();
    const { lines, end } = followed(live, told);
    await moment();
    expect(answers.signals()).toEqual([false]);
    end();
    end();
    await moment();
    expect(answers.signals()).toEqual([true]);
    answers.asked[0]?.give("late");
    await moment();
    expect([lines, told(live.now())]).toEqual([["loading …"], "loading …"]);
    followed(live, told);
    expect(answers.signals()).toEqual([true, false]);
  });

  it("stays while another is requested, and an earlier late one is dropped", async () => {
    const answers = new Answers<string>();
    const live = answerOf(answers.read());
    const { lines } = followed(live, told);
    answers.asked[0]?.give("first");
    await moment();
    live.now().again();
    live.now().again();
    answers.asked[2]?.give("third");
    await moment();
    answers.asked[1]?.give("second");
    await moment();
    expect(lines.slice(1)).toEqual(['ready "first"', 'ready "first" …', 'ready "third"']);
    expect(answers.signals()).toEqual([false, true, false]);
  });

  it("has its failure next to it, or alone if there is none", async () => {
    const answers = new Answers<string>();
    const live = answerOf(answers.read());
    const { lines } = followed(live, told);
    answers.asked[0]?.fail(failing);
    await moment();
    live.now().again();
    answers.asked[1]?.give("N-07");
    await moment();
    live.now().again();
    answers.asked[2]?.fail(failing);
    await moment();
    expect(lines).toEqual([
      "loading …",
      "failed the server is away",
      "loading …",
      'ready "N-07"',
      'ready "N-07" …',
      'ready "N-07" the server is away',
    ]);
  });

  it("is not requested if there is no call yet, or the app has one", async () => {
    const none = answerOf<string, Error>(undefined);
    const answers = new Answers<string>();
    const given = answerOf(answers.read(), "rendered");
    const { lines } = followed(given, told);
    expect(followed(none, told).lines).toEqual(["loading"]);
    none.now().again();
    await moment();
    expect([lines, answers.asked.length, told(none.now())]).toEqual([['ready "rendered"'], 0, "loading"]);
    given.now().again();
    answers.asked[0]?.give("asked");
    await moment();
    expect(told(given.now())).toBe('ready "asked"');
  });

  it("is another one for other arguments, if the app had none", () => {
    const answers = new Answers<string>();
    const make = answerOf<string, Error>;
    const rendered = heldFor(undefined, answers.read(), make, "rendered");
    const other = heldFor(rendered, answers.read("getBerth"), make, "rendered");
    const again = heldFor(other, answers.read("listTides"), make, "rendered again");
    expect([rendered, other, again].map(({ live }) => told(live.now()))).toEqual([
      'ready "rendered"',
      "loading …",
      'ready "rendered again"',
    ]);
    const waiting = heldFor<ReturnType<typeof rendered.live.now>, DescribedRead<string, Error> | undefined, string>(
      undefined,
      undefined,
      make,
      "rendered",
    );
    expect(told(heldFor(waiting, answers.read(), make, "rendered").live.now())).toBe('ready "rendered"');
  });

  it("is kept as long as the call has the same key, and requested with the latest call", async () => {
    const [answers, others] = [new Answers<string>(), new Answers<string>()];
    const make = (described: DescribedRead<string, Error>) => answerOf(described);
    const held = heldFor(undefined, answers.read(), make);
    const same = heldFor(held, others.read(), make);
    expect([same === held, heldFor(held, answers.read("getBerth"), make) === held]).toEqual([true, false]);
    followed(held.live, told);
    held.live.renew(others.read());
    held.live.now().again();
    others.asked[0]?.give("another connection's");
    await moment();
    expect([told(held.live.now()), answers.signals()]).toEqual(['ready "another connection\'s"', [true]]);
  });
});

describe("predictions", () => {
  it("are shown at once, in their order, and removed only if their change fails", async () => {
    const answers = new Answers<readonly string[]>();
    const live = answerOf(answers.read());
    followed(live, told);
    const { predict } = live.now();
    const first = predict((berths) => [...berths, "first"]);
    expect(told(live.now())).toBe("loading …");
    answers.asked[0]?.give(["N-07"]);
    await moment();
    predict((berths) => [...berths, "second"]);
    expect(live.now().answer).toEqual(["N-07", "first", "second"]);
    first.takeBack();
    expect(live.now().answer).toEqual(["N-07", "second"]);
  });

  it("are removed when a response arrives that was requested after the change", async () => {
    const answers = new Answers<string>();
    const live = answerOf(answers.read());
    followed(live, told);
    answers.asked[0]?.give("free");
    await moment();
    const own = live.now().predict((berth) => `${berth}, reserved`);
    live.now().again();
    own.keep();
    answers.asked[1]?.give("free still");
    await moment();
    expect(live.now().answer).toBe("free still, reserved");
    live.now().again();
    answers.asked[2]?.give("reserved by the server");
    await moment();
    expect(live.now().answer).toBe("reserved by the server");
  });
});

describe("shown pages", () => {
  /** Pages of two numbers each, up to a last one, with immediate responses. */
  function numbers(last: { is: number }, fails: { at?: number } = {}) {
    const asked: (string | undefined)[] = [];
    const described = describedPages<readonly number[], string | undefined, Error>(connection("berths", "", {}), {
      call: "listBerths",
      args: {},
      first: undefined,
      ask: () => async (cursor) => {
        asked.push(cursor);
        const from = Number(cursor ?? "0");
        await moment();
        if (fails.at === from) throw failing;
        return [from, from + 1];
      },
      next: (page) => ((page[1] ?? 0) < last.is ? String((page[1] ?? 0) + 1) : null),
    });
    return { live: pagesOf(described), asked, fails };
  }
  const shown = ({
    state,
    answer,
    failure,
    hasMore,
  }: {
    state: string;
    answer?: readonly unknown[] | undefined;
    failure?: Error | undefined;
    hasMore: boolean;
  }): string => `${told({ state, answer, failure })}${hasMore ? " and more" : ""}`;
  const settled = async (live: { now: () => { asking: boolean } }): Promise<void> => {
    while (live.now().asking) await moment();
  };

  it("arrive one by one, and all shown ones are requested again", async () => {
    const last = { is: 5 };
    const { live, asked } = numbers(last);
    followed(live, shown);
    await settled(live);
    expect(shown(live.now())).toBe("ready [[0,1]] and more");
    live.now().more();
    live.now().more();
    await settled(live);
    expect([shown(live.now()), asked]).toEqual(["ready [[0,1],[2,3]] and more", [undefined, "2"]]);
    live.now().again();
    await settled(live);
    expect(asked.splice(0)).toEqual([undefined, "2", undefined, "2"]);
    live.now().more();
    await settled(live);
    live.now().more();
    await settled(live);
    expect([shown(live.now()), asked]).toEqual(["ready [[0,1],[2,3],[4,5]]", ["4"]]);
    last.is = 1;
    live.now().again();
    await settled(live);
    expect(shown(live.now())).toBe("ready [[0,1]]");
  });

  it("stay if the next one fails, which can be requested again", async () => {
    const { live, fails } = numbers({ is: 5 }, { at: 2 });
    followed(live, shown);
    await settled(live);
    live.now().more();
    await settled(live);
    expect(shown(live.now())).toBe("ready [[0,1]] the server is away and more");
    delete fails.at;
    live.now().more();
    await settled(live);
    expect(shown(live.now())).toBe("ready [[0,1],[2,3]] and more");
  });
});

describe("a shown stream", () => {
  const described = (items: AsyncIterable<number>): DescribedStream<number, Error> => ({
    queryKey: ["berths", "", "notices", {}],
    follow: () => items,
  });
  async function* of(...items: (number | Error)[]): AsyncGenerator<number> {
    for (const item of items) {
      await moment();
      if (item instanceof Error) throw item;
      yield item;
    }
  }

  it("is its newest item, or the collected items, until it ends", async () => {
    const newest = followed(streamOf(described(of(1, 2))), told);
    const gathered = followed(
      streamOf<number, Error, readonly number[]>(described(of(1, 2, 3)), {
        gather: (before = [], item) => [...before, item].slice(-2),
      }),
      told,
    );
    await new Promise((resolve) => setTimeout(resolve, 40));
    expect(newest.lines).toEqual(["loading …", "ready 1 …", "ready 2 …", "ready 2"]);
    expect(gathered.lines.at(-1)).toBe("ready [2,3]");
  });

  it("keeps its items if it fails", async () => {
    const { lines } = followed(streamOf(described(of(1, failing))), told);
    await new Promise((resolve) => setTimeout(resolve, 20));
    expect(lines.at(-1)).toBe("ready 1 the server is away");
  });
});

describe("a change", () => {
  function change(answers: Answers<string>, predict?: (args: string) => Prediction | readonly Prediction[]) {
    const described: DescribedChange<string, string, Error> = { mutationFn: () => answers.ask() };
    return changeOf(() => ({ described, options: { predict } }));
  }

  it("reports its result, and with several shows the last one", async () => {
    const answers = new Answers<string>();
    const live = change(answers);
    const { lines } = followed(live, told);
    const [first, second] = [live.now().send("one"), live.now().send("two")];
    answers.asked[1]?.give("second");
    await second;
    answers.asked[0]?.fail(failing);
    expect([await first, lines]).toEqual([
      { state: "failed", failure: failing },
      ["unsent", "sending", "sending", 'done "second"'],
    ]);
  });

  it("keeps its predictions, or removes them if it fails", async () => {
    const [berths, answers] = [new Answers<string>(), new Answers<string>()];
    const list = answerOf(berths.read());
    followed(list, told);
    berths.asked[0]?.give("free");
    await moment();
    const live = change(answers, (name) => [list.now().predict((berth) => `${berth}, ${name}`)]);
    const failed = live.now().send("reserved");
    expect(list.now().answer).toBe("free, reserved");
    answers.asked[0]?.fail(failing);
    await failed;
    expect(list.now().answer).toBe("free");
    const done = live.now().send("taken");
    answers.asked[1]?.give("done");
    await done;
    expect(list.now().answer).toBe("free, taken");
    list.now().again();
    berths.asked[1]?.give("taken by the server");
    await moment();
    expect(list.now().answer).toBe("taken by the server");
  });
});
