/**
 * The environment for programs that a test starts and reads. Without it, some print in colour: if `CI` or `FORCE_COLOR`
 * is set. `NODE_ENV` is removed too, because the test runner's value is not a setting of an app.
 */
export function plainEnvironment(more: Readonly<Record<string, string>> = {}): NodeJS.ProcessEnv {
  const { FORCE_COLOR: _colour, NODE_ENV: _mode, ...rest } = process.env;
  return { ...rest, NO_COLOR: "1", ...more };
}
