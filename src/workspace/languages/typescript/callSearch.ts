import type { ProjectUses } from "../../../core/change/impact.js";
import type { Hit } from "../../../core/change/judgedChange.js";
import type { AppSource } from "./appSources.js";

/** Where sources name calls, by operation label, and where they name any other word. */
export function searchCalls(
  sources: readonly AppSource[],
  labels: ReadonlyMap<string, string>,
): Pick<ProjectUses, "calls" | "named"> {
  const calls = new Map<string, Hit[]>();
  for (const source of sources) {
    for (const { 0: name, index } of source.code.matchAll(/[\p{ID_Start}$_][\p{ID_Continue}$]*/gu)) {
      const label = labels.get(name);
      if (label !== undefined) calls.set(label, [...(calls.get(label) ?? []), hit(source, name, index, "calls")]);
    }
  }
  const named = (word: string): Hit[] =>
    sources.flatMap((source) => [...occurrences(source.code, word)].map((index) => hit(source, word, index, "names")));
  return { calls, named };
}

function hit({ document }: AppSource, owner: string, offset: number, kind: string): Hit {
  return { owner, kind, operations: [], place: { document, offset, length: owner.length } };
}

function* occurrences(code: string, word: string): Generator<number> {
  const isPart = (character: string | undefined): boolean =>
    character !== undefined && /[\p{ID_Continue}$]/u.test(character);
  for (let at = code.indexOf(word); at !== -1; at = code.indexOf(word, at + word.length)) {
    if (!isPart(code[at - 1]) && !isPart(code[at + word.length])) yield at;
  }
}
