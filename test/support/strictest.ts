/** The compiler options under which the generated code must compile, as in a tsconfig. */
// The oldest library of fresh projects with common frameworks.
export const strictest = {
  target: "ES2022",
  lib: ["ES2020", "DOM", "DOM.Iterable"],
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
  // The platform is not tested here, and checking it takes longer than checking an SDK.
  skipDefaultLibCheck: true,
};
