/** Everything the generated code promises to compile under, as a tsconfig writes it. */
// The oldest library that fresh projects of the usual frameworks ask for.
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
  // The platform is not what is tested, and checking it takes longer than checking an SDK.
  skipDefaultLibCheck: true,
};
