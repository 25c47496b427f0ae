/** Runs an action for each item, two at a time, which is the compiler's limit. */
export async function inTwos<T>(all: Iterable<T>, act: (each: T) => Promise<void>): Promise<void> {
  const open = [...all];
  const work = async (): Promise<void> => {
    for (let next = open.shift(); next !== undefined; next = open.shift()) await act(next);
  };
  await Promise.all([work(), work()]);
}
