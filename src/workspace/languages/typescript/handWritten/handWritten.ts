import ts from "typescript";
import type { HandWritten, RequestedOperation } from "../../../../core/outline/handWritten.js";
import type { AppProgram } from "../appProgram.js";
import { CoveredTypes, type SdkModule } from "./coveredTypes.js";
import { claimedTypes, type ClaimedType } from "./parsedTypes.js";
import { placeOf } from "./placeOf.js";
import { requestOf, type Request } from "./requests.js";

/** The contracts and SDKs to compare an app with. */
export interface Covered {
  readonly operations: readonly RequestedOperation[];
  /** The modules with the types and the calls of each contract. */
  readonly modules: readonly SdkModule[];
}

/**
 * Returns requests and types of an app's own that its SDKs have too. A type counts if a part of it comes from a parsed
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
  for (const [name, document] of documents) {
    const file = program.getSourceFile(name);
    if (!file || modules.some(({ isOwn }) => isOwn(name))) continue;
    for (const node of nodesOf(file)) {
      claims.push(...claimedTypes(node, { checker, requestOf: known }));
      const operation = ts.isCallExpression(node) ? known(node)?.operation : undefined;
      const place = operation && placeOf(node, document);
      if (!place) continue;
      const { contract, label: what, call: instead } = operation;
      found.push({ kind: "request", contract, place, what, instead, ...fromOf(modules, contract) });
    }
  }
  return [...found, ...new CoveredTypes({ program, documents }, modules).ofClaims(claims)];
}

/** Every node of a file. Code can be nested to any depth, so this does not recurse. */
function* nodesOf(file: ts.SourceFile): Generator<ts.Node> {
  const open: ts.Node[] = [file];
  for (let node = open.pop(); node; node = open.pop()) {
    yield node;
    ts.forEachChild(node, (child) => {
      open.push(child);
    });
  }
}

function fromOf(modules: readonly SdkModule[], contract: string): { readonly from?: string } {
  const module = modules.find((each) => each.contract === contract);
  return module ? { from: module.path } : {};
}
