/** Environment variables by name, as in Node. */
export type Environment = Readonly<Record<string, string | undefined>>;

/** Records a finished step, for finding slow steps and the files that are read. It never contains a secret. */
export type Trace = (step: () => string) => void;

/** Records nothing. */
export const untraced: Trace = () => undefined;
