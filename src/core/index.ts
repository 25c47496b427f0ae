/** The computation of Rhema as a library: contracts in, SDK texts and impact out; no file, network or console. */
export { readContract, type ContractReading } from "./readContract.js";
export { readQueryDocuments, type QueryReading } from "./graphql/readQueryDocuments.js";
export { readRestContract } from "./rest/readRestContract.js";
export { readGraphqlContract } from "./graphql/readGraphqlContract.js";
export type * from "./contract/model.js";
export type * from "./graphql/queryModel.js";
export type { Problem, ProblemLevel } from "./problem/problem.js";
export type { Place, SourceText } from "./problem/place.js";
export { findPosition, type Position } from "./problem/findPosition.js";
export { problemMeanings, type ProblemCode } from "./problem/codes.js";
export { planRest } from "./sdk/planRest.js";
export { planGraphql } from "./sdk/planGraphql.js";
export type * from "./sdk/sdkPlan.js";
export { printTypescriptSdk } from "./languages/typescript/printTypescriptSdk.js";
export type { TypescriptFacts, TypescriptSettings } from "./languages/typescript/settings.js";
export {
  compareContracts,
  judgeUse,
  type ContractImpact,
  type JudgedChange,
  type ProjectUses,
} from "./change/impact.js";
export type { Change, Level, Verdict } from "./change/change.js";
export { changeMeanings, type ChangeCode } from "./change/changeCodes.js";
export { renderProblem } from "./report/renderProblem.js";
export { renderImpact } from "./report/renderImpact.js";
export { plainPaint, type Paint } from "./report/paint.js";
export { renderChangeReference, renderProblemReference } from "./report/renderReference.js";
