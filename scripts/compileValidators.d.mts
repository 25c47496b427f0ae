export const compiledModules: Readonly<Record<string, () => string>>;
