import type { Contract } from "../../core/contract/model.js";
import type { ContractReading } from "../../core/contract/contractReading.js";
import { readQueryDocuments, type QueryReading } from "../../core/graphql/documents/readQueryDocuments.js";
import type { SourceText } from "../../core/problem/place.js";
import type { SharedSettings } from "../../core/sdk/lower/sharedSettings.js";
import type { ContractPlan } from "../../core/sdk/sdkPlan.js";
import { planContract, type Planning } from "../generate/planContract.js";

/** The reading of a contract that could be read at least in part. */
export type ReadableContract = ContractReading & { readonly contract: Contract };

/** The facts about a side besides its reading. */
export interface SideOptions {
  /** Its name in reports if the contract has no version. */
  readonly label?: string;
  /** Whether it is the pin, so that the SDK on disk was made from it. */
  readonly isPinned?: boolean;
}

/** Query documents, and their reading. */
interface TypedDocuments {
  readonly documents: readonly SourceText[];
  readonly byFragments: Map<SharedSettings["fragments"], QueryReading>;
  readonly plans: Map<string, ContractPlan>;
}

/** A contract at one revision: its reading, its queries and its plans, each computed once. */
export class Side {
  readonly contract: Contract;
  /** Its name in reports: a version, or its origin. */
  readonly label: string;
  readonly isPinned: boolean;
  private readonly typed: TypedDocuments[] = [];

  constructor(
    readonly reading: ReadableContract,
    { label = "now", isPinned = false }: SideOptions = {},
  ) {
    this.contract = reading.contract;
    this.label = reading.contract.version === "" ? label : reading.contract.version;
    this.isPinned = isPinned;
  }

  /**
   * Returns the query documents of the contract, validated and typed; undefined for REST.
   *
   * @param documents the texts of the documents
   * @param fragments how an SDK types them
   */
  queries(documents: readonly SourceText[], fragments: SharedSettings["fragments"]): QueryReading | undefined {
    const { schema } = this.reading;
    if (!schema) return undefined;
    const { byFragments } = this.of(documents);
    const known = byFragments.get(fragments) ?? readQueryDocuments(schema, documents, { fragments });
    byFragments.set(fragments, known);
    return known;
  }

  /** Returns the same with any typing of fragments: the uses and errors are the same. */
  checkedQueries(documents: readonly SourceText[]): QueryReading | undefined {
    const [known] = this.of(documents).byFragments.values();
    return known ?? this.queries(documents, "inline");
  }

  /**
   * Returns the plan of the contract for an SDK.
   *
   * @param documents the texts of the query documents, which are not read for a REST contract
   * @param fragments how the SDK types fragments
   */
  plan(documents: readonly SourceText[], fragments: SharedSettings["fragments"], planning: Planning): ContractPlan {
    const { language, settings } = planning.plannedFor;
    const { plans } = this.of(documents);
    const key = JSON.stringify([language, settings.unions, settings.formats, fragments]);
    const known = plans.get(key) ?? planContract(this.contract, this.queries(documents, fragments), planning);
    plans.set(key, known);
    return known;
  }

  private of(documents: readonly SourceText[]): TypedDocuments {
    const known = this.typed.find((each) => isSame(each.documents, documents)) ?? {
      documents,
      byFragments: new Map(),
      plans: new Map(),
    };
    if (!this.typed.includes(known)) this.typed.push(known);
    return known;
  }
}

function isSame(some: readonly SourceText[], others: readonly SourceText[]): boolean {
  return (
    some.length === others.length &&
    some.every(({ document, text }, at) => others[at]?.document === document && others[at].text === text)
  );
}
