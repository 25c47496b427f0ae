import type { Contract } from "../../core/contract/model.js";
import { isHostFile } from "../../core/languages/hostFiles.js";
import { problem, type Problem } from "../../core/problem/problem.js";
import { readContract } from "../../core/readContract.js";
import type { ContractReading } from "../../core/contract/contractReading.js";
import { exitCodes, Halt } from "../project/halt.js";
import { Side } from "./side.js";
import type { ProjectTexts } from "../generate/sdkInputs.js";

/** Reads contracts once, however many SDKs cover them. */
export class ContractReader {
  private readonly readings = new Map<string, ContractReading>();
  private readonly sides = new Map<string, Side>();

  constructor(readonly texts: ProjectTexts) {}

  /** Reads a contract. @throws Halt (unreadable) if nothing in the contract can be read */
  read(name: string): ContractReading & { contract: Contract } {
    const known = this.readings.get(name) ?? this.readWithParts(name);
    this.readings.set(name, known);
    const { contract } = known;
    if (contract) return { ...known, contract };
    const sources = [...this.texts.contract(name), ...(known.derived ?? [])];
    const documents = new Map(sources.map(({ document, text }) => [document, text]));
    throw new Halt(known.problems, exitCodes.unreadable, documents);
  }

  /** Reads a contract, and again with the documents that it refers to, until it needs no more. */
  private readWithParts(name: string): ContractReading {
    const { texts } = this;
    texts.forgetParts(name);
    for (;;) {
      const reading = readSafely(name, texts);
      const wanted = reading.wanted ?? [];
      if (wanted.length === 0) return reading;
      for (const each of wanted) texts.addPart(name, each);
    }
  }

  /** Returns the current side of a contract. @throws Halt (unreadable) like `read` */
  side(name: string): Side {
    const known = this.sides.get(name) ?? new Side(this.read(name));
    this.sides.set(name, known);
    return known;
  }

  /** Uses another side for a contract in place of the project's own. */
  instead(name: string, side: Side): this {
    this.readings.set(name, side.reading);
    this.sides.set(name, side);
    return this;
  }

  /** Forgets a reading, after more of its documents became available. */
  forget(name: string): void {
    this.readings.delete(name);
    this.sides.delete(name);
  }
}

function readSafely(name: string, texts: ProjectTexts): ContractReading {
  try {
    const found = texts.schema(name);
    if (found.problems.some(({ level }) => level === "error")) return { problems: found.problems };
    const hosts = texts
      .contract(name)
      .map(({ document }) => document)
      .filter(isHostFile);
    if (hosts.length > 0 && found.texts.length === 0) return { problems: [noSchemaIn(hosts)] };
    const reading = readContract(name, found.texts, texts.unobtainable(name));
    texts.addDerived(reading.derived ?? []);
    return { ...reading, problems: [...found.problems, ...reading.problems] };
  } catch (error) {
    // Only extreme nesting exhausts the stack.
    if (!(error instanceof RangeError)) throw error;
    const message = `The contract \`${name}\` is nested too deeply to be read.`;
    return { problems: [problem("contract.syntax", message, { hint: "Ask its authors to flatten it." })] };
  }
}

function noSchemaIn(hosts: readonly string[]): Problem {
  const files = hosts.map((document) => `\`${document}\``).join(", ");
  return problem("contract.kind", `${files} contains no schema text that Rhema can read without running it.`, {
    hint: "Tag the text with `gql` or `graphql`, or let a command print it: `from: { run: … }`.",
  });
}
