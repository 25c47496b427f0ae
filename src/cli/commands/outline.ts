import { renderDetail, renderOutline } from "../../core/report/renderOutline.js";
import { placeText } from "../../core/report/renderProblem.js";
import type { Place } from "../../core/problem/place.js";
import { chosenContracts } from "../../workspace/configuration/chosenContracts.js";
import { exitCodes } from "../../workspace/project/halt.js";
import { outline } from "../../workspace/outline.js";
import { openProject } from "../../workspace/project/openProject.js";
import type { GlobalOptions, Terminal } from "../output/terminal.js";

export interface OutlineCommandOptions {
  readonly contracts: readonly string[];
  readonly find: string | undefined;
  readonly unused: boolean;
  readonly about: string | undefined;
}

/**
 * `rhema outline [contract…]`: shows what the contract offers and what this project uses.
 *
 * @returns the exit code
 */
export async function outlineCommand(
  terminal: Terminal,
  globals: GlobalOptions,
  { contracts, find, unused, about }: OutlineCommandOptions,
): Promise<number> {
  const project = await openProject(terminal.host, globals.config);
  const chosen = chosenContracts(project, contracts);
  const { outlines, details, texts } = await outline(project, { contracts: chosen, find: find ?? "", unused, about });
  const view = { texts, paint: terminal.paint, isNarrowed: find !== undefined || unused };
  const blocks = [
    ...outlines.map((each) => renderOutline(each, view)),
    ...details.map((each) => renderDetail(each, view)),
  ];
  terminal.result(blocks.flatMap((lines, at) => (at === 0 ? lines : ["", ...lines])));
  const shown = (places: readonly Place[]): string[] => places.map((place) => placeText(place, texts));
  terminal.document({
    contracts: outlines.map((each) => ({
      ...each,
      groups: each.groups.map((group) => ({
        ...group,
        entries: group.entries.map((entry) => ({ ...entry, places: shown(entry.places) })),
      })),
    })),
    ...(about === undefined ? {} : { about: details.map((each) => ({ ...each, places: shown(each.places) })) }),
    exitCode: exitCodes.done,
  });
  return exitCodes.done;
}
