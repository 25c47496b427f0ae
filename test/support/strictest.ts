/** Everything the generated code promises to compile under, as a tsconfig writes it. */
export const strictest = {
  target: "ES2022",
  lib: ["ES2022", "DOM", "DOM.Iterable"],
  module: "nodenext",
  types: [],
  strict: true,
  noUncheckedIndexedAccess: true,
  exactOptionalPropertyTypes: true,
  verbatimModuleSyntax: true,
  isolatedModules: true,
  noUnusedLocals: true,
  noUnusedParameters: true,
  noEmit: true,
};
