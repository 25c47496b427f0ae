/**
 * The environment for programs that a test starts and reads. Without it some print in colour: where `CI` is set, where
 * `FORCE_COLOR` is. `NODE_ENV` goes too, because what tests are run with is no setting of an app's.
 */
export function plainEnvironment(more: Readonly<Record<string, string>> = {}): NodeJS.ProcessEnv {
  const { FORCE_COLOR: _colour, NODE_ENV: _mode, ...rest } = process.env;
  return { ...rest, NO_COLOR: "1", ...more };
}
