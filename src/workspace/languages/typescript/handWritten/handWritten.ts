import ts from "typescript";
import type { HandWritten, RequestedOperation } from "../../../../core/outline/handWritten.js";
import type { AppProgram } from "../appProgram.js";
import { CoveredTypes, type SdkModule } from "./coveredTypes.js";
import { claimedTypes, type ClaimedType } from "./parsedTypes.js";
import { requestOf, type Request } from "./requests.js";

/** What an app is held against. */
export interface Covered {
  readonly operations: readonly RequestedOperation[];
  /** The modules that have the types and the calls of each contract. */
  readonly modules: readonly SdkModule[];
}

/**
 * Requests and types of an app's own that its SDKs have too. A type counts when something of it comes from a parsed
 * response, and all its fields, at least three, are those of one type of a contract.
 */
export function handWritten({ program, documents }: AppProgram, { operations, modules }: Covered): HandWritten[] {
  const checker = program.getTypeChecker();
  const requests = new Map<ts.CallExpression, Request | undefined>();
  const known = (node: ts.CallExpression): Request | undefined => {
    if (!requests.has(node)) requests.set(node, requestOf(node, checker, operations));
    return requests.get(node);
  };
  const found: HandWritten[] = [];
  const claims: ClaimedType[] = [];
  for (const [name, { document, module }] of documents) {
    const file = program.getSourceFile(name);
    if (!file || modules.some(({ isOwn }) => isOwn(name))) continue;
    const visit = (node: ts.Node): void => {
      claims.push(...claimedTypes(node, { checker, requestOf: known }));
      const operation = ts.isCallExpression(node) ? known(node)?.operation : undefined;
      const range =
        operation && (module ? module.mapped.sourceRange(node.getStart(), node.end) : [node.getStart(), node.end]);
      if (operation && range) {
        const [offset = 0, end = 0] = range;
        found.push({
          kind: "request",
          contract: operation.contract,
          place: { document, offset, length: end - offset },
          what: operation.label,
          instead: operation.call,
          ...fromOf(modules, operation.contract),
        });
      }
      ts.forEachChild(node, visit);
    };
    visit(file);
  }
  return [...found, ...new CoveredTypes({ program, documents }, modules).ofClaims(claims)];
}

function fromOf(modules: readonly SdkModule[], contract: string): { readonly from?: string } {
  const module = modules.find((each) => each.contract === contract);
  return module ? { from: module.path } : {};
}
