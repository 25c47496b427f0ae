/** Variables of the environment by name, as Node gives them. */
export type Environment = Readonly<Record<string, string | undefined>>;

/** Takes note of a step that is done, for whoever looks for where time goes and what is read; never of a secret. */
export type Trace = (step: () => string) => void;

/** Takes no note. */
export const untraced: Trace = () => undefined;
